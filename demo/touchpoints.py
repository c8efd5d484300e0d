"""What stands on the demo business's site: one touchpoint of every stance."""

from typing import Any

from intavo.core.touchpoint.starters.build import (
    button,
    close,
    consent,
    email,
    field,
    first_name,
    head,
    mail,
    numbered,
    option,
    phone,
    send,
    show,
    slot,
    step,
    text,
)

Document = dict[str, Any]


def _pages(*patterns: tuple[str, str]) -> list[dict[str, str]]:
    return [{"kind": kind, "path": path} for kind, path in patterns]


def _thanks(headline: str, *more: dict[str, Any]) -> dict[str, Any]:
    return step("thanks", head(headline), {"kind": "reply"}, *more, close(), name="Thanks")


def tide_table(picture: str, file: str) -> Document:
    """The tide table: a sign-up with double opt-in and a file."""
    art = {"kind": "picture", "asset": picture, "place": "beside", "focus_x": 40, "focus_y": 70,
           "description": "Two kayaks on the estuary on a still morning"}  # fmt: skip
    return numbered(
        {
            "purpose": "sign-up",
            "steps": [
                step(
                    "ask",
                    art,
                    head(
                        "The month’s safe paddling hours, on one page",
                        known=[{"slot": "first_name"}, ", your safe hours on one page"],
                    ),
                    text("Tides, sunrise and slack water for the Otterwick estuary. Sent on the 1st."),
                    email(),
                    first_name(hidden=True),
                    consent("Send me the monthly tide table."),
                    send("Send me the tide table"),
                    name="Ask",
                ),
                step(
                    "thanks",
                    head("Look in your mail"),
                    text("Press the button behind the link, and the table is yours."),
                    close(),
                    name="Thanks",
                ),
            ],
            "look": {"width": 620},
            "show": show(
                {"after": 12},
                {"read": 40},
                pages=_pages(("below", "/trips"), ("exact", "/lessons"), ("below", "/blog")),
            ),
            "after": {
                "tags": ["tides"],
                "file": {"asset": file, "label": "This month’s tide table"},
                "confirm": {
                    "on": True,
                    "subject": "Please confirm: the tide table",
                    "button": "Send me the tide table",
                    "text": ["You asked for our monthly tide table. One more click and it is yours."],
                },
                "thank_you": mail(
                    "Your tide table",
                    "Here is this month’s page: ",
                    slot("file"),
                    "\n\nThe next one comes on the 1st.",
                ),
            },
        }
    )


GROUPS: Document = numbered(
    {
        "purpose": "inquiry",
        "stance": "bar",
        "steps": [
            step(
                "ask",
                head("Coming as a group?", size="medium", row="r1", share=22),
                field("text", "question", "How many of you, and when?", required=True, row="r1", share=32),
                email(row="r1", share=26),
                send("Ask for a plan", row="r1", share=20),
                first_name(hidden=True),
                name="Ask",
            ),
            _thanks("We have it"),
        ],
        "show": show({"after": 4}, days=None, pages=_pages(("exact", "/groups"), ("exact", "/trips"))),
        "after": {
            "follow_up": True,
            "promise_minutes": 8 * 60,
            "thank_you": mail(
                "Your group on the water", "Thank you for asking. We put a plan and a price together."
            ),
        },
    }
)

QUESTION: Document = numbered(
    {
        "purpose": "inquiry",
        "steps": [
            step(
                "ask",
                head("Something you want to know?"),
                text("One of us reads this and writes back."),
                field("long", "question", "Your question", required=True),
                email(),
                first_name(label="Your name"),
                phone(label="Phone"),
                send("Send my question"),
                name="Ask",
            ),
            _thanks("We have it"),
        ],
        "look": {"width": 460},
        "show": show(
            {"after": 20}, {"read": 70}, days=2, pages=_pages(("exact", "/hire"), ("exact", "/contact"))
        ),
        "after": {"follow_up": True, "thank_you": mail("We have your question", "Thank you for asking.")},
    }
)

PARTING: Document = numbered(
    {
        "purpose": "offer",
        "stance": "card",
        "leaving": {"outside": False},
        "steps": [
            step(
                "ask",
                head("Before you go"),
                text("A pound off every hour, if you come this month. Your own code:"),
                {"kind": "code", "label": "Your code"},
                button("How to find us", "page", address="/contact", goal=True),
                close("No, thank you"),
                name="Card",
            )
        ],
        "look": {"place": "bottom-left"},
        "show": show({"leave": True}, days=30, devices=["desktop", "tablet"]),
        "after": {"code": {"kind": "each"}},
    }
)

HIRE: Document = numbered(
    {
        "purpose": "question",
        "stance": "in-page",
        "steps": [
            step(
                "ask",
                {
                    "kind": "question",
                    "name": "choice",
                    "text": "Calm water or a bit of a challenge?",
                    "options": [
                        option("calm", "Calm water", "calm"),
                        option("challenge", "A bit of a challenge", "challenge"),
                    ],
                },
                name="Question",
            ),
            step(
                "calm",
                head("Then take a double, upstream", size="medium"),
                text("Two hours there and back with the tide, and a bank of reeds to rest at."),
                {"kind": "price", "now": "36", "unit": "for two hours"},
                button("Ask us for a time", "touchpoint", touchpoint="call-me-back"),
                button("Back", "back", "plain"),
                name="Calm",
            ),
            step(
                "challenge",
                head("Then a single, round the island", size="medium"),
                text("Half a day, one crossing. We want to have seen you paddle first."),
                {"kind": "price", "now": "46", "unit": "a day"},
                button("A lesson first", "page", address="/lessons", goal=True),
                button("Back", "back", "plain"),
                name="Challenge",
            ),
        ],
        "spot": {"selector": "main h2", "where": "before"},
        "look": {"width": 1040},
        "show": show({"after": 0}, days=None, answered=False, pages=_pages(("exact", "/hire"))),
    }
)


def winter(picture: str, first: str) -> Document:
    """The winter offer: the whole page, with a price and a countdown."""
    art = {"kind": "picture", "asset": picture, "place": "behind", "wash": 35, "wash_colour": "#0b1526", "focus_x": 70,
           "description": "The moon over the estuary"}  # fmt: skip
    return numbered(
        {
            "purpose": "offer",
            "stance": "full-page",
            "steps": [
                step(
                    "ask",
                    art,
                    head("The boat is yours all winter", align="middle"),
                    text(
                        "From the first frost to the last, whenever the tide allows. One price for as often as you like.",
                        align="middle",
                    ),
                    {
                        "kind": "price",
                        "now": "120",
                        "old": "180",
                        "unit": "for the winter",
                        "align": "middle",
                    },
                    {
                        "kind": "countdown",
                        "minutes": 3 * 24 * 60,
                        "again_after": 30 * 24 * 60,
                        "label": "At this price for",
                        "align": "middle",
                    },
                    button("Tell me more", "touchpoint", touchpoint="boathouse-question", goal=True),
                    close("Not this winter"),
                    name="Offer",
                )
            ],
            "look": {
                "colours": {"card": "#0b1526", "text": "#ffffff", "headline": "#ffffff", "cross": "#ffffff"}
            },
            "show": show(
                {"after": 6},
                days=14,
                pages=_pages(("exact", "/trips/after-dark"), ("exact", "/hire")),
                during={"first": first},
            ),
        }
    )


CALL_BACK: Document = numbered(
    {
        "purpose": "call",
        "stance": "side-panel",
        "steps": [
            step(
                "ask",
                head("Shall we call you?"),
                text("Choose a time when the boathouse is open. We call, you ask."),
                field("slot", "time", "When?", required=True, minutes=30, notice=60),
                phone(required=True),
                first_name(label="Your name", required=True),
                field("long", "about", "What is it about?"),
                send("Call me then"),
                name="Ask",
            ),
            _thanks("We call you"),
        ],
        "show": {
            "sentences": [{"moments": []}],
            "how_often": {"every": "page"},
            "until": {"answered": False},
        },
        "after": {"follow_up": True},
    }
)

ASK: Document = numbered(
    {
        "purpose": "inquiry",
        "stance": "button",
        "steps": [
            step(
                "ask",
                {
                    "kind": "picture",
                    "asset": "house-logo",
                    "height": 44,
                    "whole": True,
                    "focus_x": 0,
                    "description": "Our logo",
                },
                head("How can we help?"),
                {"kind": "hours", "week": False},
                {"kind": "questions"},
                button("Write to us", "step", next="write"),
                button("Have us call you", "touchpoint", "plain", touchpoint="call-me-back"),
                name="Help",
            ),
            step(
                "write",
                head("Write to us"),
                field("long", "question", "Your message", required=True),
                email(),
                first_name(label="Your name"),
                send("Send it"),
                button("Back", "back", "plain"),
                name="Write",
            ),
            _thanks("We have it"),
        ],
        "face": {"label": "Ask the boathouse", "sign": "question"},
        "show": show({"after": 0}, days=None, answered=False),
        "after": {
            "follow_up": True,
            "thank_you": mail("We have your message", "We answer ", slot("promise"), "."),
        },
    }
)

REACH: Document = numbered(
    {
        "purpose": "message",
        "stance": "button",
        "steps": [
            step(
                "ask",
                head("Ways to the boathouse", size="medium"),
                {"kind": "hours", "week": False},
                {"kind": "channels", "channels": "all", "as": "rows"},
                name="Ways",
            )
        ],
        "look": {"place": "bottom-left", "width": 380},
        "face": {"label": "Reach us", "sign": "message"},
        "show": show(
            {"after": 0}, days=None, answered=False, pages=_pages(("exact", "/contact"), ("exact", "/groups"))
        ),
    }
)

TALK: Document = numbered(
    {
        "purpose": "message",
        "stance": "button",
        "steps": [
            step(
                "ask",
                head("Talk to the boathouse", size="medium"),
                {
                    "kind": "talk",
                    "hint": "Write to us",
                    "files": True,
                    "script": {
                        "start": "hello",
                        "turns": [
                            {
                                "id": "hello",
                                "says": [["Hello, you have reached the boathouse. What is it about?"]],
                                "choices": [
                                    {
                                        "id": "c1",
                                        "label": "Change a booking",
                                        "tags": ["booking"],
                                        "next": "which",
                                    },
                                    {
                                        "id": "c2",
                                        "label": "Opening hours",
                                        "says": [[slot("open_now"), "."]],
                                    },
                                    {"id": "c3", "label": "Something else", "next": "hand"},
                                ],
                            },
                            {"id": "which", "says": [["Which day is it?"]], "asks": "text", "next": "mail"},
                            {
                                "id": "mail",
                                "says": [["Where can we reach you, should you leave the page?"]],
                                "asks": "email",
                                "next": "hand",
                                "may_skip": True,
                            },
                            {
                                "id": "hand",
                                "says": [["Thank you. One of us answers ", slot("promise"), "."]],
                                "hands_over": True,
                            },
                        ],
                    },
                },
                name="Talk",
            )
        ],
        "look": {"width": 380},
        "face": {"label": "Talk to us", "sign": "message"},
        "show": show({"after": 0}, days=None, answered=False, pages=_pages(("exact", "/lessons"))),
        "after": {"follow_up": True},
    }
)

CALL: Document = numbered(
    {
        "purpose": "call",
        "stance": "button",
        "steps": [step("ask", head("Call the boathouse"), {"kind": "hours", "week": False}, name="Call")],
        "face": {
            "label": "Call the boathouse",
            "sign": "phone",
            "does": {"action": "phone", "address": "01632 960417", "goal": True},
        },
        "look": {"place": "bottom-left"},
        "show": show({"after": 0}, days=None, answered=False),
    }
)
