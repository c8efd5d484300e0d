"""Starters: whole documents with words worth keeping, to begin a touchpoint from."""

from dataclasses import dataclass

from .document import After, Document, Look, Step, ThankYou
from .parts import Button, Consent, Does, FieldPart, Headline, ReplyPart, Text
from .rules import HowOften, Moment, Sentence, Show


@dataclass(frozen=True, slots=True)
class Starter:
    """A starter: its key, its name for people, what it is for, and its document."""

    key: str
    name: str
    about: str
    document: Document


_THANKS = Step(
    id="thanks",
    parts=(
        Headline(id="p8", kind="headline", text="Thank you"),
        ReplyPart(id="p9", kind="reply"),
        Button(id="p10", kind="button", label="Back to the page", does=Does(action="close")),
    ),
)

_SIGN_UP = Document(
    purpose="sign-up",
    steps=(
        Step(
            id="ask",
            parts=(
                Headline(id="p1", kind="headline", text="News worth opening, once a month"),
                Text(id="p2", kind="text", html="<p>What is on, what is new, and the dates to keep. Nothing else.</p>"),
                FieldPart(id="p3", kind="field", input="email", name="email", label="Your email", required=True),
                FieldPart(id="p4", kind="field", input="text", name="name", label="First name"),
                Consent(id="p5", kind="consent", name="news", text="Send me the monthly news by email.", required=True),
                Button(id="p6", kind="button", label="Keep me posted", does=Does(action="send", next="thanks")),
            ),
        ),
        _THANKS,
    ),
    show=Show(sentences=(Sentence(moments=((Moment(after=12),), (Moment(read=40),))),), how_often=HowOften()),
    after=After(
        thank_you=ThankYou(
            send=True,
            subject="Thank you for joining us",
            text="You are on the list. The next news comes at the start of the month.",
        )
    ),
)

_INQUIRY = Document(
    purpose="inquiry",
    steps=(
        Step(
            id="ask",
            parts=(
                Headline(id="p1", kind="headline", text="Ask us anything"),
                Text(id="p2", kind="text", html="<p>A person reads this and writes back.</p>"),
                FieldPart(
                    id="p3",
                    kind="field",
                    input="long",
                    name="question",
                    label="What would you like to know?",
                    required=True,
                ),
                FieldPart(id="p4", kind="field", input="email", name="email", label="Your email", required=True),
                FieldPart(id="p5", kind="field", input="text", name="name", label="Your name"),
                Button(id="p6", kind="button", label="Send my question", does=Does(action="send", next="thanks")),
            ),
        ),
        _THANKS,
    ),
    look=Look(width=440),
    show=Show(sentences=(Sentence(moments=((Moment(after=20),), (Moment(read=60),))),)),
    after=After(
        follow_up=True,
        thank_you=ThankYou(send=True, subject="We have your question", text="Thank you for asking. We read every one."),
    ),
)

STARTERS: tuple[Starter, ...] = (
    Starter("news", "News by email", "Visitors leave an address and agree to hear from you.", _SIGN_UP),
    Starter("question", "A question to us", "Visitors ask something; it goes on the follow-up list.", _INQUIRY),
)
