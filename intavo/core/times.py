"""Times that come in: aware, and near enough to be meant; and how they go out to visitors."""

from datetime import UTC, datetime
from typing import Annotated

from pydantic import AfterValidator, AwareDatetime

# What every zone can hold, and nobody means to pass; no table holds another.
FIRST, LAST = datetime(1970, 1, 1, tzinfo=UTC), datetime(2200, 1, 1, tzinfo=UTC)


def _near(at: datetime) -> datetime:
    try:
        held = FIRST <= at.astimezone(UTC) <= LAST
    except OverflowError:
        held = False
    if not held:
        raise ValueError("This is too far off.")
    return at


Moment = Annotated[AwareDatetime, AfterValidator(_near)]


def iso(at: datetime) -> str:
    """A time as the visitor's protocol writes it: UTC with a Z, to the millisecond."""
    text = at.astimezone(UTC).isoformat(timespec="milliseconds").replace("+00:00", "Z")
    return text.replace(".000Z", "Z")
