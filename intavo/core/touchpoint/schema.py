"""The JSON Schema of a touchpoint's document."""

from typing import Any

from .document import Document


def document_schema() -> dict[str, Any]:
    """JSON Schema (2020-12) of version 1, as it is taken in."""
    schema = untitled(Document.model_json_schema(mode="validation"))
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        **schema,
        "title": "TouchpointDocument",
    }


def untitled(schema: Any) -> Any:
    """A schema without Pydantic's titles: those of properties are their names, and models are named by their
    keys.
    """
    if isinstance(schema, list):
        return [untitled(one) for one in schema]
    if not isinstance(schema, dict):
        return schema
    return {
        key: untitled(value)
        for key, value in schema.items()
        if not (key == "title" and isinstance(value, str))
    }
