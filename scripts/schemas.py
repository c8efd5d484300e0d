"""Writes the touchpoint's JSON Schema and the API's OpenAPI description into docs/."""

import json
import os
import sys
from pathlib import Path

import django


def main(folder: Path) -> None:
    """Write both files into a folder."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "intavo.project.settings")
    os.environ.setdefault("INTAVO_SECRET_KEY", "schemas")
    os.environ.setdefault("DATABASE_URL", "postgres://none@127.0.0.1/none")
    django.setup()
    from intavo.core.touchpoint import document_schema, offered
    from intavo.core.touchpoint.choices import CHOICES
    from intavo.core.touchpoint.parts import KINDS
    from intavo.core.touchpoint.speech import every_word
    from intavo.project.api import api

    folder.mkdir(parents=True, exist_ok=True)
    written = {
        "touchpoint.schema.json": document_schema(), "given-out.json": document_schema("serialization"),
        "openapi.json": api.get_openapi_schema(),
        "words.json": every_word(),
        "parts.json": {"called": {kind: one.CALLED for kind, one in KINDS.items()}, "offered": offered(),
                       "choices": CHOICES},
    }  # fmt: skip
    for name, content in written.items():
        (folder / name).write_text(json.dumps(content, indent=1, ensure_ascii=False) + "\n")


if __name__ == "__main__":
    main(Path(sys.argv[1]))
