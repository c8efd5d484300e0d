"""What JSON holds that is taken in or handed on as it is, for those who are told by a schema alone."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from pydantic import GetJsonSchemaHandler, TypeAdapter
from pydantic.json_schema import GenerateJsonSchema, JsonSchemaMode, JsonSchemaValue
from pydantic_core import CoreSchema

from .touchpoint.schema import untitled

_HOLDS = "x-holds"


@dataclass(frozen=True, slots=True)
class Holds:
    """Marks an object that another reader takes in: what it holds is of this type.

    The reader stands elsewhere, and refuses with the place named; here nothing is asked of it. `way`: as it
    is read, where fields may be left out, or as it is written, with every field.
    """

    type_: Any
    way: JsonSchemaMode = "serialization"

    def __get_pydantic_json_schema__(
        self, core: CoreSchema, handler: GetJsonSchemaHandler
    ) -> JsonSchemaValue:
        """A mark in its place, which `with_types` follows."""
        name = repr(self.type_)
        _TYPES[name] = self
        return {_HOLDS: name}


_TYPES: dict[str, Holds] = {}


def with_types(
    description: dict[str, Any], how: type[GenerateJsonSchema] = GenerateJsonSchema
) -> dict[str, Any]:
    """An OpenAPI description in which what is held is told by its type: everywhere in the one form that it is
    held in.

    `how` the rest of the description was written.
    """
    asked = [(name, one.way, TypeAdapter(one.type_)) for name, one in sorted(_TYPES.items())]
    told, definitions = TypeAdapter.json_schemas(
        asked, ref_template="#/components/schemas/{model}", schema_generator=how
    )
    by_name = {name: schema for (name, _), schema in told.items()}
    description["components"]["schemas"] |= untitled(definitions["$defs"])
    named: dict[str, Any] = _named(description, by_name)
    return named


def _named(schema: Any, by_name: Mapping[str, JsonSchemaValue]) -> Any:
    if isinstance(schema, list):
        return [_named(one, by_name) for one in schema]
    if not isinstance(schema, dict):
        return schema
    beside = {key: _named(value, by_name) for key, value in schema.items() if key != _HOLDS}
    return {**by_name[schema[_HOLDS]], **beside} if _HOLDS in schema else beside
