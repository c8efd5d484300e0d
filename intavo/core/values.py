"""What documents of every kind are made of: ids, devices, colours, and texts as runs. It knows of no kind."""

from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, StringConstraints

Id = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9_-]{0,39}$")]
Device = Literal["desktop", "phone"]
Colour = Annotated[str, StringConstraints(pattern=r"^#[0-9a-fA-F]{6}$")]
# A language that a document is in (BCP 47, without a region); "" says none.
Language = Annotated[str, StringConstraints(pattern=r"^([a-z]{2})?$", to_lower=True, strip_whitespace=True)]
# Stands for the logo of the site's house style, whichever that is just then.
HOUSE_LOGO = "house-logo"
# "shipped-…" is one of the pictures that come with Intavo, "as_…" one of the business's own.
AssetId = Annotated[
    str, StringConstraints(pattern=r"^(as_[0-9a-f]{8,32}|shipped-[a-z0-9-]{1,40}|house-logo)$")
]


class Model(BaseModel):
    """Base of everything in a document: immutable, and an unknown field is refused by name."""

    model_config = ConfigDict(frozen=True, extra="forbid", json_schema_serialization_defaults_required=True)


def as_runs(value: Any) -> Any:
    """Plain words are one run."""
    return ([value] if value else []) if isinstance(value, str) else value
