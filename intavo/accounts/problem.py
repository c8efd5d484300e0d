"""The one writer of errors: problem+json, with the fields that are wrong. Source: RFC 9457."""

import json

from django.http import HttpResponse


def problem(status: int, title: str, errors: list[tuple[str, str]] | None = None) -> HttpResponse:
    """An error; `errors` are pairs of a field's place and words, None where no field is to blame."""
    body: dict[str, object] = {"title": title, "status": status}
    if errors is not None:
        body["errors"] = [{"field": field, "message": message} for field, message in errors]
    # What is quoted may hold half of a character, which no answer can carry.
    text = json.dumps(body, ensure_ascii=False).encode("utf-8", "replace")
    return HttpResponse(text, status=status, content_type="application/problem+json")
