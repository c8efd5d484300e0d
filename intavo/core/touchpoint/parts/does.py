"""What a click does."""

from typing import Literal

from pydantic import Field, field_validator

from ...addresses import refuse_scripts
from ..base import AssetId, Id, Model

Action = Literal[
    "send", "step", "back", "page", "mail", "phone", "file", "touchpoint", "spot", "close", "channel"
]
# What the loader does without its second file.
LIGHT_ACTIONS = frozenset({"send", "close", "page", "mail", "phone", "file", "touchpoint"})


class Does(Model):
    """What a click does. `href` is filled only in what visitors get.

    send and step go on to `next`; page, mail and phone use `address`; file uses `asset`; touchpoint its
    short name; spot goes to "top", "bottom" or the id of an element of the page; channel goes to the channel
    with that id ("ch_…"). `goal`: reaches the goal.
    """

    action: Action
    next: Id | None = None
    address: str = Field("", max_length=2000)
    asset: AssetId | None = None
    touchpoint: str = Field("", max_length=60)
    spot: str = Field("", max_length=100)
    channel: str = Field("", max_length=40)
    tab: Literal["same", "new"] = "same"
    goal: bool = False
    href: str = Field("", max_length=2000)

    @field_validator("address")
    @classmethod
    def _no_scripts(cls, value: str) -> str:
        return refuse_scripts(value)


CLICK_VALUES = {
    "action": "what a click does", "next": "the step that comes next", "address": "where it leads",
    "asset": "which file", "touchpoint": "which touchpoint", "spot": "where on the page",
    "channel": "which channel", "tab": "which tab", "goal": "reaches the goal",
}  # fmt: skip
