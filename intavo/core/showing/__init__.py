"""Who sees a touchpoint, and why not; and the plan for one page view made from it."""

from .decide import Check, Compiled, State, Verdict, decide, shows
from .plan import PlannedEntry, plan
from .visit import Memory, Page, Visit, Visitor

__all__ = [
    "Check",
    "Compiled",
    "Memory",
    "Page",
    "PlannedEntry",
    "State",
    "Verdict",
    "Visit",
    "Visitor",
    "decide",
    "plan",
    "shows",
]
