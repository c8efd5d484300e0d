"""Parts that are there to be clicked."""

from collections.abc import Iterator
from typing import Any, ClassVar, Literal

from pydantic import Field, field_validator

from ...addresses import refuse_scripts
from ..after import After
from ..base import Model
from ..finding import Known
from ..look import FullValues
from .does import LIGHT_ACTIONS, Does
from .part import Lacks, Offered, Part_, TextOn


def _button(shown: str, label: str, action: str, **more: Any) -> Offered:
    return Offered("To click", shown, {"kind": "button", "label": label, "does": {"action": action}, **more})


class Button(Part_):
    """A button."""

    CALLED: ClassVar = "Button"
    VALUES: ClassVar = {"style": "how it looks"}
    OFFERED: ClassVar = (
        _button("Button that sends", "Send", "send"),
        _button("Button to a page", "Read more", "page"),
        _button("Button to another step", "Go on", "step"),
        _button("Button that closes", "No, thank you", "close", style="plain"),
    )

    kind: Literal["button"]
    label: str = Field("", max_length=200)
    does: Does
    style: Literal["main", "plain"] = "main"

    def clicks(self) -> Iterator[Does]:
        yield self.does

    def lacks(self, known: Known, after: After) -> Iterator[Lacks]:
        if not self.label.strip():
            yield "stops", "A button has no words."

    def texts(self, look: FullValues) -> Iterator[TextOn]:
        if self.style == "main" and self.does.action != "close":
            yield TextOn("Button", "button_text", look.colours.button_text, "button")
        else:
            yield TextOn("Plain button on {on}", "text", look.colours.text)

    def loads_alone(self) -> bool:
        return self.does.action in LIGHT_ACTIONS


class LinkItem(Model):
    """One line of a links menu."""

    label: str = Field("", max_length=120)
    does: Does


class Links(Part_):
    """A menu of links."""

    CALLED: ClassVar = "Links"
    ON_CARD: ClassVar = "Links"
    TALL: ClassVar = True
    VALUES: ClassVar = {"items": "links", "columns": "columns"}
    OFFERED: ClassVar = (
        Offered(
            "To click", "Links", {"kind": "links", "items": [{"label": "A page", "does": {"action": "page"}}]}
        ),
    )

    kind: Literal["links"]
    items: tuple[LinkItem, ...] = Field((), max_length=20)
    columns: Literal[1, 2] = 1

    def clicks(self) -> Iterator[Does]:
        return (item.does for item in self.items)


class Share(Part_):
    """The browser's own share sheet, and copying the link; no address means this page's own."""

    CALLED: ClassVar = "Share"
    ON_CARD: ClassVar = "Share"
    TELLS: ClassVar = True
    VALUES: ClassVar = {"address": "what is shared", "words": "its words"}
    OFFERED: ClassVar = (Offered("To click", "Share", {"kind": "share"}),)

    kind: Literal["share"]
    label: str = Field("Share this", max_length=120)
    address: str = Field("", max_length=2000)
    words: str = Field("", max_length=300)

    @field_validator("address")
    @classmethod
    def _no_scripts(cls, value: str) -> str:
        return refuse_scripts(value)
