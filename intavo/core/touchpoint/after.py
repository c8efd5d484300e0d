"""What comes after a visitor has sent it, and how they leave it."""

from typing import Annotated, Literal

from pydantic import AfterValidator, Field, StringConstraints, field_validator

from ..addresses import refuse_scripts
from ..people import email_address
from ..tongues import Phrase
from .base import AssetId, Id, Model, Words

Tag = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60)]

YES_ME = Phrase("Yes, that was me")


def _email(value: str) -> str:
    return email_address(value).shown if value.strip() else ""


Email = Annotated[str, Field(max_length=254), AfterValidator(_email)]


class Leaving(Model):
    """How the visitor gets rid of it: `cross` is the seconds until the close sign comes, None for none.

    `after`: it goes by itself after so many seconds; `video_end`: at the end of its video. `hold_scroll`:
    the page behind does not scroll meanwhile.
    """

    cross: int | None = Field(0, ge=0, le=60)
    outside: bool = True
    escape: bool = True
    after: int | None = Field(None, ge=2, le=3600)
    video_end: bool = False
    hold_scroll: bool = True


class ThankYou(Model):
    """A mail to the visitor straight after they sent it; `reply_to` empty: the business's own address."""

    send: bool = True
    subject: str = Field("", max_length=200)
    text: Words = ()
    reply_to: Email = ""


class Confirm(Model):
    """Double opt-in: nothing is given before the button behind the mail's link is pressed.

    `next`: the step whose words stand on that page once it was pressed; None: the usual ones.
    """

    on: bool = False
    next: Id | None = None
    subject: str = Field("", max_length=200)
    text: Words = ()
    button: str = Field("Yes, that was me", min_length=1, max_length=60)


class GivenCode(Model):
    """A code: one for everybody (`shared`), or one each from the touchpoint's list."""

    kind: Literal["none", "shared", "each"] = "none"
    shared: str = Field("", max_length=80)
    show: bool = True
    mail: bool = True


class GivenFile(Model):
    """A file by a signed link."""

    asset: AssetId | None = None
    label: str = Field("", max_length=120)


class After(Model):
    """What follows: whether somebody answers, how soon (open minutes; None: the business's promise), mail.

    `hours`: the id of the hours that the promise is counted in (None: the site's main hours); `also_hours`
    are open as well: it is open when any of them is. `page`: where they go instead of a thanks step. `tell`:
    members' ids who are told by mail.
    """

    follow_up: bool = False
    promise_minutes: int | None = Field(None, ge=1, le=60 * 24 * 30)
    hours: int | None = Field(None, ge=1)
    also_hours: tuple[Annotated[int, Field(ge=1)], ...] = Field((), max_length=8)
    thank_you: ThankYou = ThankYou(send=False)
    page: str = Field("", max_length=2000)
    tags: tuple[Tag, ...] = Field((), max_length=20)
    confirm: Confirm = Confirm()
    code: GivenCode = GivenCode()
    file: GivenFile = GivenFile()
    tell: tuple[int, ...] = Field((), max_length=50)
    daily_csv: bool = False

    @field_validator("page")
    @classmethod
    def _no_scripts(cls, value: str) -> str:
        return refuse_scripts(value)

    @property
    def follows(self) -> tuple[int | None, ...]:
        """Every set of hours that it follows, None the site's main ones; the first tells the zone."""
        return tuple(dict.fromkeys((self.hours, *self.also_hours)))


class Guard(Model):
    """What is asked of a sender against spam: a hidden trap, a least time, and perhaps a piece of work.

    The least time is short by default: it stops programs, and nobody whose browser fills in what it knows.
    """

    trap: bool = True
    least_seconds: float = Field(0.2, ge=0, le=60)
    work: bool = False
