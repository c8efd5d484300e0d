"""What the visitor's browser says of a page view: the page, the device, and what it remembers."""

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from ..times import Moment

Url = Annotated[str, StringConstraints(max_length=4000)]
Short = Annotated[str, StringConstraints(max_length=300)]


class _Said(BaseModel):
    # Fields may be added by a newer script: what is not known is passed over.
    model_config = ConfigDict(frozen=True, extra="ignore")


class Page(_Said):
    """A page as it says of itself."""

    url: Url
    title: str = Field("", max_length=1000)
    referrer: Url = ""
    kinds: tuple[Short, ...] = Field((), max_length=50)
    signed_in: bool = False


class Began(_Said):
    """Where the visit began."""

    url: Url = ""
    referrer: Url = ""


class Visitor(_Said):
    """The visitor as their browser remembers; `utc_offset` in minutes, east positive.

    `interruptions` counts what has come by itself over the page in this visit.
    """

    id: Short | None = None
    language: str = Field("en", max_length=35)
    utc_offset: int = Field(0, ge=-24 * 60, le=24 * 60)
    visits: int = Field(1, ge=0)
    visit_started: Moment | None = None
    pages_ever: int = Field(1, ge=0)
    pages_this_visit: int = Field(1, ge=0)
    first_page: Url = ""
    arrival: Began = Began()
    on_list: bool = False
    tags: tuple[Short, ...] = Field((), max_length=200)
    interruptions: int = Field(0, ge=0)


class Memory(_Said):
    """What is remembered of one touchpoint, in the server's time."""

    generation: int = 1
    shown: int = Field(0, ge=0)
    last_shown: Moment | None = None
    last_closed: Moment | None = None
    answered: Moment | None = None


class Visit(_Said):
    """One page view. `storage` is false where the browser refuses to remember; `open` is a short name clicked
    on.

    `slots` are the short names that the page has places for. `rehearsal` is the signed text of a link that a
    member opened: the visitor is then the one it stands for.
    """

    page: Page
    device: Literal["desktop", "tablet", "phone"]
    visitor: Visitor = Visitor()
    memory: dict[str, Memory] = Field(default_factory=dict, max_length=1000)
    storage: bool = True
    rehearsal: Annotated[str, StringConstraints(max_length=2000)] | None = None
    open: Annotated[str, StringConstraints(max_length=100)] | None = None
    slots: list[Annotated[str, StringConstraints(max_length=100)]] = Field(
        default_factory=list, max_length=50
    )
