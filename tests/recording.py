"""Writes down what the console's API answers for the demo business, for the component tests: `make recorded`.

Every operation that reads is asked, with the ids of a few things that are there. A server test holds what is written
here against the API's description, so that it cannot grow stale unseen.
"""

import json
import os
import re
from pathlib import Path
from typing import Any

from scripts.cluster import ROOT, Cluster

FILE = ROOT / "console" / "src" / "testing" / "answers.json"
NOW = "2026-11-24T14:05:00+00:00"
# Not JSON, or about what is only there while somebody is doing it.
LEFT_OUT = ("/file", "/csv", "/qr", "/events", "/export", "/calendar", "/out", "/refused-rows", "/pictures")


def paths_of(openapi: dict[str, Any]) -> list[str]:
    """Every address that is read from."""
    return [
        path
        for path, operations in openapi["paths"].items()
        if "get" in operations and not path.endswith(LEFT_OUT)
    ]


def ids_of(ask: Any) -> dict[str, str]:
    """What stands in the places of addresses: a live pop-up, somebody with an open question, and the like."""
    touchpoint = next(one for one in ask("/api/touchpoints") if one["slug"] == "tide-table")
    items = [item for lane in ask("/api/follow-ups")["lanes"] for item in lane["items"]]
    item = next(item for item in items if item["called"] == "Rosalind Achterberg")
    return {
        "touchpoint_id": str(touchpoint["id"]),
        "followup_id": str(item["id"]),
        "person_id": str(item["person_id"]),
        "site_id": str(ask("/api/sites")[0]["id"]),
        "hours_id": str(ask("/api/hours")["main"]["id"]),
    }


def record() -> dict[str, Any]:
    """What is answered, by address with the ids in it."""
    from django.test import Client

    from intavo.accounts.models import User

    client = Client(HTTP_HOST="127.0.0.1")
    client.force_login(User.objects.get(email="morwenna@otterwick.example"))
    openapi = json.loads((ROOT / "docs" / "openapi.json").read_text())

    def ask(path: str) -> Any:
        return client.get(path).json()

    ids, answers = ids_of(ask), {}
    for path in paths_of(openapi):
        address = re.sub(r"\{(\w+)\}", lambda place: ids.get(place[1], "1"), path)
        answer = client.get(address)
        if answer.status_code == 200 and answer.headers["Content-Type"].startswith("application/json"):
            answers[address] = answer.json()
    for address, body in asked_by_post(answers, ids):
        answer = client.post(address, body, content_type="application/json")
        assert answer.status_code == 200, (address, answer.content)
        answers[f"POST {address}"] = answer.json()
    return answers


def asked_by_post(answers: dict[str, Any], ids: dict[str, str]) -> list[tuple[str, Any]]:
    """What is asked by sending something, though nothing is kept of it."""
    site, draft = int(ids["site_id"]), answers[f"/api/touchpoints/{ids['touchpoint_id']}"]
    channel = answers["/api/channels"]["channels"][0]
    made_up = {"at": "2026-11-24T14:05:00Z"}
    return [
        (f"/api/follow-ups/{ids['followup_id']}/desk", {"draft": None, "writing": False}),
        ("/api/page-map", {"site_id": site, "visitor": made_up}),
        ("/api/show-words", {"show": draft["document"]["show"]}),
        (
            "/api/channels/preview",
            {"document": channel["document"], "channel": channel["public_id"], "language": ""},
        ),
        ("/api/hours/read", {"text": "Mon-Fri 9-17:30, Sat 8-19"}),
        ("/api/channels/read", {"text": "01632 960 777"}),
        (f"/api/hours/{ids['hours_id']}/would-move", {"document": answers["/api/hours"]["main"]["document"]}),
        (
            "/api/rehearsals",
            {
                "site_id": site,
                "visitor": made_up,
                "length": 60,
                "deeds": [{"do": "page", "at": 0, "url": "/trips"}],
            },
        ),
    ]


def main() -> None:
    """Load the demo business into a database of its own, and ask."""
    cluster = Cluster("test")
    os.environ["DATABASE_URL"] = cluster.start()
    os.environ |= {
        "DJANGO_SETTINGS_MODULE": "intavo.project.settings", "INTAVO_SECRET_KEY": "for the tests alone",
        "INTAVO_NOW": NOW, "INTAVO_DB_POOL": "false", "INTAVO_ALLOWED_HOSTS": "127.0.0.1",
        "INTAVO_MEDIA": str(ROOT / ".run" / "uploads" / "recorded"),
    }  # fmt: skip
    from .databases import fresh_database

    os.environ["DATABASE_URL"] = fresh_database("intavo_recorded")
    import django

    django.setup()
    from demo.load import load

    try:
        load(people=30)
        answers = record()
    finally:
        if cluster.started_here:
            cluster.stop()
    FILE.parent.mkdir(exist_ok=True)
    FILE.write_text(json.dumps(answers, ensure_ascii=False, indent=1, sort_keys=True) + "\n")
    print(f"{len(answers)} answers in {Path(FILE).relative_to(ROOT)}")


if __name__ == "__main__":
    main()
