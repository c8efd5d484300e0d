"""The JSON Schema of a touchpoint's document, from which the browser's types are made."""

from typing import Any

from .document import Document


def document_schema() -> dict[str, Any]:
    """JSON Schema (2020-12) of version 1."""
    schema = Document.model_json_schema(mode="serialization")
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema, "title": "TouchpointDocument"}
