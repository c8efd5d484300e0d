"""What every part has: an id, where it shows, and its share of a row."""

from pydantic import Field

from .base import Device, Id, Model


class Part_(Model):  # noqa: N801  # "Part" is the union of all kinds
    """Consecutive parts with the same `row` stand side by side, each with its `share` of the width in percent."""

    id: Id
    on: tuple[Device, ...] = ("desktop", "phone")
    hidden: bool = False
    row: Id | None = None
    share: int = Field(100, ge=10, le=100)
