"""The whole of a touchpoint as one versioned document."""

from collections.abc import Iterator
from typing import Any, Literal, Self

from pydantic import Field, field_validator, model_validator
from pydantic_core import PydanticCustomError

from ..addresses import leads
from ..tongues import ENGLISH, Phrase, Tongue, say
from ..values import Language
from .after import After, Guard, Leaving
from .base import HOUSE_LOGO, AssetId, Id, Model
from .css import check_selector
from .look import INTERRUPTING, FullLook, HouseStyle, Look, Stance, resolved
from .parts import Asked, Button, Consent, Does, FieldPart, Headline, Part, ReplyPart, Talk
from .rules import Show
from .speech import Speech, speech

Purpose = Literal["sign-up", "inquiry", "call", "message", "offer", "question", "feedback", "notice"]
LATEST_CROSS = 5
# What stands in the field of a conversation where the owner has written nothing else.
WRITE_TO_US = Phrase("Write to us")


def _misplaced(place: str, words: str) -> PydanticCustomError:
    """An error of the whole that belongs to a place."""
    return PydanticCustomError("value_error", "{words}", {"place": place, "words": words})


class Step(Model):
    """What is shown at one time; `name` is how the owner calls it."""

    id: Id
    name: str = Field("", max_length=60)
    parts: tuple[Part, ...] = Field((), max_length=60)


class Greeting(Model):
    """Words beside the button, after so many seconds, once a visit; with a person's picture."""

    after: int = Field(5, ge=0, le=600)
    text: str = Field("", max_length=200)
    picture: AssetId | None = None


class Face(Model):
    """The button itself, where the stance is one: its words, its sign, and what a click does if it opens
    nothing.

    `opens`: the first step, or round signs of its channels above it. `size` is its height in CSS pixels, at
    most a quarter of the screen's short side. `strip`: on phones up to four channels stand along the foot
    instead. `nudge`: it moves a little after so many seconds on a page while nothing of it is open, twice a
    visit at most, and never where less motion is asked for.
    """

    label: str = Field("", max_length=60)
    sign: Literal["none", "question", "phone", "mail", "message", "gift"] = "question"
    does: Does | None = None
    opens: Literal["step", "signs"] = "step"
    shape: Literal["pill", "rounded", "round", "tab"] = "pill"
    size: int = Field(44, ge=44, le=160)
    picture: AssetId | None = None
    fills: bool = False
    strip: bool = False
    greeting: Greeting | None = None
    nudge: int | None = Field(None, ge=5, le=600)


class Spot(Model):
    """Where one that stands in the page goes by itself: before, after or inside the first element that
    matches.
    """

    selector: str = Field("", max_length=300)
    where: Literal["before", "after", "inside"] = "after"

    @field_validator("selector")
    @classmethod
    def _readable(cls, value: str) -> str:
        return check_selector(value.strip()) if value.strip() else ""


class Drawn(Model):
    """What is drawn of a touchpoint: of its document, and of what visitors get of that."""

    version: Literal[1] = 1
    purpose: Purpose
    stance: Stance = "pop-up"
    steps: tuple[Step, ...] = Field(min_length=1, max_length=20)
    leaving: Leaving = Leaving()
    face: Face = Face()
    spot: Spot = Spot()


class Then(Model):
    """What the visitor's script has to know of what comes after: where they go, and what is asked against
    spam.
    """

    page: str
    trap: bool
    work: bool


class SeenDocument(Drawn):
    """A document as visitors get it from `for_visitors`: its look resolved, with the words of ours that it
    needs.
    """

    look: FullLook
    speech: Speech
    then: Then


class Document(Drawn):
    """A touchpoint's document, version 1; `model_validate` raises a ValidationError that names the place."""

    look: Look = Look()
    show: Show = Show()
    after: After = After()
    guard: Guard = Guard()
    language: Language = ""

    @model_validator(mode="after")
    def _holds_together(self) -> Self:
        _all_different("steps", [step.id for step in self.steps])
        _all_different("parts", [part.id for step in self.steps for part in step.parts])
        _all_different("fields", [part.name for part in self.parts() if isinstance(part, Asked | Consent)])
        for part in self.parts():
            for following in part.leads_to():
                if self.step(following) is None:
                    raise _misplaced(
                        part.id, f"{part.id} leads to the step “{following}”, which is not there"
                    )
        confirmed = self.after.confirm.next
        if confirmed is not None and self.step(confirmed) is None:
            raise _misplaced("after", f"once confirmed, the step “{confirmed}” is shown, which is not there")
        self._can_be_closed()
        return self

    def _can_be_closed(self) -> None:
        if self.stance not in INTERRUPTING:
            return
        cross = self.leaving.cross is not None and self.leaving.cross <= LATEST_CROSS
        closing = any(
            isinstance(p, Button) and not p.hidden and p.does.action == "close" for p in self.steps[0].parts
        )
        if not cross and not closing:
            raise _misplaced("leaving", "a close sign within 5 seconds, or a button that closes, is needed")

    def parts(self) -> Iterator[Part]:
        """Every part of every step, in order."""
        for step in self.steps:
            yield from step.parts

    def step(self, id_: str) -> Step | None:
        """The step with this id."""
        return next((step for step in self.steps if step.id == id_), None)

    def consents(self) -> Iterator[Consent]:
        """Every consent that is asked for."""
        return (part for part in self.parts() if isinstance(part, Consent) and not part.hidden)

    def fields(self, *inputs: str) -> Iterator[FieldPart]:
        """Every field of these inputs (all without any), hidden ones too."""
        fields = (part for part in self.parts() if isinstance(part, FieldPart))
        return (part for part in fields if not inputs or part.input in inputs)

    def says_above_reply(self, title: str) -> bool:
        """Whether a headline on a step with the reply says these words already."""
        bare = title.strip(" .!").casefold()
        return bool(bare) and any(
            isinstance(part, Headline) and not part.hidden and part.text.strip(" .!").casefold() == bare
            for step in self.steps
            if any(isinstance(part, ReplyPart) and not part.hidden for part in step.parts)
            for part in step.parts
        )

    def does(self) -> Iterator[tuple[str, Does]]:
        """Everything that a click does, with the id of its part."""
        yield from ((part.id, does) for part in self.parts() for does in part.clicks())
        if self.face.does is not None:
            yield "face", self.face.does

    def channels(self) -> set[str]:
        """The ids of the channels that it offers, "all" for every one."""
        found = {one for part in self.parts() if not part.hidden for one in part.offers()}
        if self.face.does is not None and self.face.does.action == "channel":
            found.add(self.face.does.channel)
        return found - {""}

    @property
    def asks_for_answer(self) -> bool:
        """Whether somebody is to answer: an inquiry always, another if it says so."""
        return self.purpose == "inquiry" or self.after.follow_up or self.talk is not None

    @property
    def talk(self) -> Talk | None:
        """The conversation that stands in it, if one does."""
        return next((part for part in self.parts() if isinstance(part, Talk) and not part.hidden), None)

    def assets(self) -> set[AssetId]:
        """Every picture, video and file that it uses."""
        found: set[AssetId | None] = {self.after.file.asset, self.face.picture}
        found |= {self.face.greeting.picture} if self.face.greeting is not None else set()
        for values in (self.look, self.look.phone):
            found |= {values.background.asset if values.background else None}
            found |= {values.backdrop.asset if values.backdrop else None}
        found |= {asset for part in self.parts() for asset in part.assets()}
        found |= {does.asset for _, does in self.does()}
        return found - {None, HOUSE_LOGO}  # type: ignore[return-value]


def _all_different(what: str, names: list[str]) -> None:
    twice = next((name for name in names if names.count(name) > 1), None)
    if twice is not None:
        raise _misplaced("steps", f"{what}: “{twice}” stands twice")


def for_visitors(
    document: Document,
    house: HouseStyle | None = None,
    region: str = "GB",
    home: str = "",
    tongue: Tongue = ENGLISH,
) -> dict[str, Any]:
    """The document less what a visitor must not see: rules, what comes after, and hidden parts.

    The look is resolved with the site's house style; clicks get their addresses (numbers are read with
    `region`; `home` goes before pages of the site, as in `leads`), and words of ours are in the
    `tongue`. A file that is given for an answer has no address here.
    """
    seen = document.model_dump(mode="json", exclude={"show", "after", "look", "guard", "language"})
    seen["look"] = resolved(document.look, document.stance, house).model_dump(mode="json")
    guard = document.guard
    seen["then"] = {"page": leads(document.after.page, region, home), "trap": guard.trap, "work": guard.work}
    for step in seen["steps"]:
        step["parts"] = [part for part in step["parts"] if not part["hidden"] and _with_logo(part, house)]
        for part in step["parts"]:
            for does in clicks_of(part):
                does["href"] = href(Does.model_validate(does), region, home)
            if part["kind"] == "talk" and part["hint"] == WRITE_TO_US:
                part["hint"] = say(WRITE_TO_US, tongue)
            if part["kind"] == "share" and part["address"]:
                part["address"] = leads(part["address"], region, home)
    if document.face.does is not None:
        seen["face"]["does"]["href"] = href(document.face.does, region, home)
    seen["speech"] = speech_of(document, tongue)
    return seen


def speech_of(document: Document, tongue: Tongue) -> Speech:
    """The language that a document is drawn in, and the words of ours that this needs, in the tongue."""
    shown = [part for part in document.parts() if not part.hidden]
    ways = bool(document.channels()) or document.face.opens == "signs"
    said = speech(shown, len(document.steps), ways, document.face.greeting is not None, tongue)
    # Where nobody has said a language, it is read as the page around it is.
    return said if document.language or said["dir"] == "rtl" else {**said, "dir": ""}


def clicks_of(part: dict[str, Any]) -> list[dict[str, Any]]:
    """What clicks in a part do, in its data."""
    return [part["does"]] if part["kind"] == "button" else [one["does"] for one in part.get("items", ())]


def _with_logo(part: dict[str, Any], house: HouseStyle | None) -> bool:
    """Puts the house style's logo where a picture asks for it; false where there is none."""
    if part.get("asset") != HOUSE_LOGO:
        return True
    part["asset"] = house.logo if house else None
    return part["asset"] is not None


def href(does: Does, region: str, home: str = "") -> str:
    """The address that a click goes to; empty where it stays in the page,
    or where its address leads nowhere.
    """
    if does.action == "file" and does.asset:
        return f"/m/{does.asset}/file"
    if does.action not in {"page", "mail", "phone"} or not does.address:
        return ""
    found = leads(does.address, region, home)
    wanted = {"mail": ("mailto:",), "phone": ("tel:", "sms:")}.get(does.action, ("",))
    return found if found.startswith(wanted) else ""
