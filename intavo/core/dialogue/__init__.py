"""Conversations by a script: what is said, what is offered or asked, and what comes of an answer."""

from .offering import offered
from .playing import Address, Effect, Goal, HandOver, Offer, Series, Tagged, Turn, begin, take
from .script import STRAIGHT, Choice, Script, ScriptTurn, straight, with_address_first

__all__ = [
    "STRAIGHT",
    "Address",
    "Choice",
    "Effect",
    "Goal",
    "HandOver",
    "Offer",
    "Script",
    "ScriptTurn",
    "Series",
    "Tagged",
    "Turn",
    "begin",
    "offered",
    "straight",
    "take",
    "with_address_first",
]
