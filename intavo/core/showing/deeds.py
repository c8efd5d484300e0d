"""What a visitor does, as data: pages, scrolling, clicks, closing, answering, leaving and coming back."""

from typing import Annotated, Literal

from pydantic import Field

from ..touchpoint.base import Model
from .visit import Short, Url

Seconds = Annotated[float, Field(ge=0, le=400 * 86400)]


class _Deed(Model):
    """`at` counts in seconds from the beginning."""

    at: Seconds = 0


class OpenPage(_Deed):
    """Opens a page. `screens` is its length in screens; `soft`: a single-page site goes on to it without
    loading.

    `notice`: an element of the site's own that goes first stands on it.
    """

    do: Literal["page"] = "page"
    url: Url
    screens: float = Field(3, gt=0, le=200)
    referrer: Url = ""
    kinds: tuple[Short, ...] = ()
    signed_in: bool = False
    soft: bool = False
    notice: bool = False


class Scroll(_Deed):
    """Scrolls to this share of the way down, in percent: 0 is the top, 100 the foot."""

    do: Literal["scroll"] = "scroll"
    to: float = Field(ge=0, le=100)


class Click(_Deed):
    """Clicks on the page, perhaps on an element that a moment names."""

    do: Literal["click"] = "click"
    on: str = Field("", max_length=300)


class See(_Deed):
    """An element comes into view."""

    do: Literal["see"] = "see"
    on: str = Field(min_length=1, max_length=300)


class Plain(_Deed):
    """Moves the pointer; heads for the exit; closes what stands; answers it; settles the notice; leaves the
    site.
    """

    do: Literal["move", "exit", "close", "answer", "settle", "gone"]


class Open(_Deed):
    """Opens a touchpoint by a click of their own."""

    do: Literal["open"] = "open"
    touchpoint: str = Field(min_length=1, max_length=100)


class OtherTab(_Deed):
    """Opens a touchpoint in another tab of the same browser, on the same page."""

    do: Literal["tab"] = "tab"
    touchpoint: str = Field(min_length=1, max_length=100)


Deed = Annotated[OpenPage | Scroll | Click | See | Plain | Open | OtherTab, Field(discriminator="do")]
