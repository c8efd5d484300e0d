"""Who sees a touchpoint, and why not; and the plan for one page view made from it."""

from .around import Around, campaign_tags
from .compiled import Compiled, TouchpointState, in_language, with_groups, without_languages
from .decide import Check, Verdict, decide, shows
from .edits import rules_together
from .hiding import Hides, hidden_cells
from .mapping import OnPages, on_pages, taking_turns
from .plan import PlannedEntry, plan
from .predicates import page_matches
from .rehearse import rehearse
from .siterules import PageGroup, SiteRules
from .tracks import Rehearsal
from .visit import Memory, Page, Visit, Visitor

__all__ = [
    "Around",
    "Check",
    "Compiled",
    "Hides",
    "Memory",
    "OnPages",
    "Page",
    "PageGroup",
    "PlannedEntry",
    "Rehearsal",
    "SiteRules",
    "TouchpointState",
    "Verdict",
    "Visit",
    "Visitor",
    "campaign_tags",
    "decide",
    "hidden_cells",
    "in_language",
    "on_pages",
    "page_matches",
    "plan",
    "rehearse",
    "rules_together",
    "shows",
    "taking_turns",
    "with_groups",
    "without_languages",
]
