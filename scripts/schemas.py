"""Writes the JSON Schemas of touchpoints and of the wire, and the API's OpenAPI description."""

import json
import os
import sys
from pathlib import Path
from typing import Any

import django

_JSON_SCHEMA = "https://json-schema.org/draft/2020-12/schema"


def main(folder: Path) -> None:
    """Write them into a folder."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "intavo.project.settings")
    os.environ.setdefault("INTAVO_SECRET_KEY", "schemas")
    os.environ.setdefault("DATABASE_URL", "postgres://none@127.0.0.1/none")
    django.setup()
    from ninja.schema import NinjaGenerateJsonSchema

    from intavo.core.holds import with_types
    from intavo.core.names import every_name
    from intavo.core.touchpoint import document_schema, offered
    from intavo.core.touchpoint.choices import CHOICES
    from intavo.core.touchpoint.parts import KINDS
    from intavo.core.touchpoint.speech import every_word
    from intavo.project.api import api

    folder.mkdir(parents=True, exist_ok=True)
    written = {
        "touchpoint.schema.json": document_schema(), "wire.json": _wire(),
        "openapi.json": with_types(dict(api.get_openapi_schema()), NinjaGenerateJsonSchema),
        "words.json": every_word(), "names.json": every_name(),
        "parts.json": {"called": {kind: one.CALLED for kind, one in KINDS.items()}, "offered": offered(),
                       "choices": CHOICES},
    }  # fmt: skip
    for name, content in written.items():
        (folder / name).write_text(json.dumps(content, indent=1, ensure_ascii=False) + "\n")


def _wire() -> dict[str, Any]:
    """What the types of the visitor's script are made of: what goes over the wire."""
    from intavo.core.touchpoint.schema import untitled
    from intavo.visitor.wire import wire_schema

    schema = untitled(wire_schema())
    return {"$schema": _JSON_SCHEMA, "title": "Wire", **schema}


if __name__ == "__main__":
    main(Path(sys.argv[1]))
