"""A touchpoint's document: steps of parts, look, rules and what comes after."""

from .answers import AnswerErrors, Checked, check_answers
from .document import After, Document, Leaving, Look, Step, ThankYou, for_visitors
from .parts import Button, Consent, FieldPart, Headline, Part, ReplyPart, Text
from .readiness import Finding, ready_check
from .rules import HowOften, Moment, PagePattern, Sentence, Show, Until
from .schema import document_schema
from .starters import STARTERS, Starter

__all__ = [
    "STARTERS",
    "After",
    "AnswerErrors",
    "Button",
    "Checked",
    "Consent",
    "Document",
    "FieldPart",
    "Finding",
    "Headline",
    "HowOften",
    "Leaving",
    "Look",
    "Moment",
    "PagePattern",
    "Part",
    "ReplyPart",
    "Sentence",
    "Show",
    "Starter",
    "Step",
    "Text",
    "ThankYou",
    "Until",
    "check_answers",
    "document_schema",
    "for_visitors",
    "ready_check",
]
