"""The JSON Schema of a touchpoint's document, from which the browser's types are made."""

from typing import Any, Literal

from .document import Document
from .look import FullLook


def document_schema(mode: Literal["validation", "serialization"] = "validation") -> dict[str, Any]:
    """JSON Schema (2020-12) of version 1: of what is taken in, or ("serialization") of what is given out."""
    schema = _untitled(Document.model_json_schema(mode=mode))
    if mode == "serialization":
        # What visitors get has its look resolved; the browser's types need that too.
        full = _untitled(FullLook.model_json_schema(mode=mode))
        schema["$defs"] |= {**full.pop("$defs"), "FullLook": full}
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema, "title": "TouchpointDocument"}


def _untitled(schema: Any) -> Any:
    """Pydantic titles every property by its name, which says nothing; models keep their names as keys."""
    if isinstance(schema, list):
        return [_untitled(one) for one in schema]
    if not isinstance(schema, dict):
        return schema
    return {key: _untitled(value) for key, value in schema.items() if not (key == "title" and isinstance(value, str))}
