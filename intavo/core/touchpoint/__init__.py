"""A touchpoint's document: steps of parts, look, rules and what comes after."""

from .adding import Addable, addable
from .after import After, Guard, Leaving, ThankYou
from .answers import AnswerErrors, Checked, asked_fields, check_answers, low_score, said_answers, way_to
from .base import AssetId, Words, filled, sanitised
from .changes import Change, changes
from .document import (
    Document,
    Face,
    Purpose,
    SeenDocument,
    Spot,
    Step,
    clicks_of,
    for_visitors,
    href,
    speech_of,
)
from .edits import houses_together
from .finding import Finding, Known
from .legible import readings
from .loading import needs_more
from .look import INTERRUPTING, PLACES, FullLook, HouseStyle, Look, Stance, departures, queue_of, resolved
from .openfile import BadFile, read, written
from .parts import (
    Asked,
    Button,
    Consent,
    FieldPart,
    Headline,
    Part,
    Question,
    ReplyPart,
    Score,
    Text,
    offered,
)
from .readiness import ready_check
from .rules import HowOften, Moment, PagePattern, Sentence, Show, Until, Watched
from .schema import document_schema
from .sentence import ShowWords, show_words
from .starters import STARTERS, Starter
from .turning import with_confirmation, with_purpose, with_stance

__all__ = [
    "INTERRUPTING",
    "PLACES",
    "STARTERS",
    "Addable",
    "After",
    "AnswerErrors",
    "Asked",
    "AssetId",
    "BadFile",
    "Button",
    "Change",
    "Checked",
    "Consent",
    "Document",
    "Face",
    "FieldPart",
    "Finding",
    "FullLook",
    "Guard",
    "Headline",
    "HouseStyle",
    "HowOften",
    "Known",
    "Leaving",
    "Look",
    "Moment",
    "PagePattern",
    "Part",
    "Purpose",
    "Question",
    "ReplyPart",
    "Score",
    "SeenDocument",
    "Sentence",
    "Show",
    "ShowWords",
    "Spot",
    "Stance",
    "Starter",
    "Step",
    "Text",
    "ThankYou",
    "Until",
    "Watched",
    "Words",
    "addable",
    "asked_fields",
    "changes",
    "check_answers",
    "clicks_of",
    "departures",
    "document_schema",
    "filled",
    "for_visitors",
    "houses_together",
    "href",
    "low_score",
    "needs_more",
    "offered",
    "queue_of",
    "read",
    "readings",
    "ready_check",
    "resolved",
    "said_answers",
    "sanitised",
    "show_words",
    "speech_of",
    "way_to",
    "with_confirmation",
    "with_purpose",
    "with_stance",
    "written",
]
