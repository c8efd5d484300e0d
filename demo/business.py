"""The demo business: who they are, when they are open, and what stands on their site."""

from typing import Any

SITE_KEY = "0tterwick0demo01"
SITE_SLUG = "otterwick"
OWNER = ("Morwenna Hale", "morwenna@otterwick.example")
STAFF = (("Jory Tregenza", "jory@otterwick.example"), ("Sable Okonjo", "sable@otterwick.example"))
PASSWORD = "paddle-demo"  # noqa: S105  # printed by the demo, and nowhere else of use
NAME = "Otterwick Paddle Hire"
MAIL_ADDRESS = "hello@otterwick.example"
TIMEZONE, REGION = "Europe/London", "GB"
HOSTS = ["otterwick.localhost", "otterwick.example"]

_WEEKDAYS = ("mon", "tue", "wed", "thu", "fri")


def _week(start: str, end: str) -> list[dict[str, str]]:
    return [{"day": day, "from": start, "to": end} for day in _WEEKDAYS]


def boathouse(year: int, odd_sunday: str, early_day: str) -> dict[str, Any]:
    """The main hours, with the exceptions of the winter that begins in `year`."""
    return {
        "timezone": TIMEZONE,
        "week": [*_week("09:00", "17:30"), {"day": "sat", "from": "08:00", "to": "19:00"}],
        "exceptions": [
            {"first": odd_sunday, "last": odd_sunday, "label": "Winter race", "holiday": False,
             "stretches": [{"from": "07:30", "to": "12:00"}]},
            {"first": early_day, "last": early_day, "label": "Boat lift", "holiday": False,
             "stretches": [{"from": "09:00", "to": "13:00"}]},
            {"first": f"{year}-12-24", "last": f"{year}-12-26", "label": "Christmas", "holiday": True, "stretches": []},
            {"first": f"{year + 1}-01-01", "last": f"{year + 1}-01-01", "label": "New Year", "holiday": True,
             "stretches": []},
        ],
    }  # fmt: skip


OTHER_HOURS = {
    "Phone line": {"timezone": TIMEZONE, "week": _week("10:00", "16:00"), "exceptions": []},
    "Night paddles": {
        "timezone": TIMEZONE, "week": [{"day": "fri", "from": "20:00", "to": "00:30"}], "exceptions": []
    },
}  # fmt: skip

REPLIES: dict[str, dict[str, Any]] = {
    "open": {"title": ["Thank you"], "text": ["We answer ", {"slot": "promise"}, "."]},
    "nobody-free": {
        "title": ["Thank you"],
        "text": ["We’re out on the water just now. We answer ", {"slot": "promise"}, "."],
    },
    "after-hours": {
        "title": ["The boathouse is shut"],
        "text": ["We open again ", {"slot": "next_opening"}, " and answer ", {"slot": "promise"}, "."],
        "tone": "quiet",
    },
    "holiday": {
        "title": ["Closed for ", {"slot": "day_name"}],
        "text": ["We are back ", {"slot": "next_opening"}, " and answer ", {"slot": "promise"}, "."],
        "tone": "quiet",
    },
}

_COLOURS = {"card": "#fffaf0", "text": "#3b2a1a", "button": "#a83a1f", "button_text": "#ffffff"}


def _thanks(headline: str) -> dict[str, Any]:
    return {
        "id": "thanks",
        "parts": [
            {"id": "p20", "kind": "headline", "text": headline},
            {"id": "p21", "kind": "reply"},
            {"id": "p22", "kind": "button", "label": "Back to the page", "does": {"action": "close"}},
        ],
    }


def _pages(*patterns: tuple[str, str]) -> list[dict[str, str]]:
    return [{"kind": kind, "path": path} for kind, path in patterns]


def _moments(seconds: int, read: int) -> list[list[dict[str, int]]]:
    return [[{"after": seconds}], [{"read": read}]]


TIDE_TABLE: dict[str, Any] = {
    "purpose": "sign-up",
    "steps": [
        {
            "id": "ask",
            "parts": [
                {"id": "p1", "kind": "headline", "text": "The month’s safe paddling hours, on one page"},
                {"id": "p2", "kind": "text", "html": "<p>Tides, sunrise and slack water for the Otterwick estuary. "
                 "Sent on the 1st.</p>"},
                {"id": "p3", "kind": "field", "input": "email", "name": "email", "label": "Your email",
                 "required": True},
                {"id": "p4", "kind": "field", "input": "text", "name": "name", "label": "First name", "hidden": True},
                {"id": "p5", "kind": "consent", "name": "news", "text": "Send me the monthly tide table.",
                 "required": True},
                {"id": "p6", "kind": "button", "label": "Send me the tide table",
                 "does": {"action": "send", "next": "thanks"}},
            ],
        },
        _thanks("You are on the list"),
    ],
    "look": {"width": 520, "colours": _COLOURS, "phone": {"place": "bottom"}},
    "show": {
        "sentences": [
            {"pages": _pages(("below", "/trips"), ("exact", "/lessons"), ("below", "/blog")),
             "moments": _moments(12, 40)}
        ]
    },
    "after": {
        "thank_you": {"send": True, "subject": "Your tide table comes on the 1st",
                      "text": "Thank you for joining. The next page of safe hours comes on the 1st of the month."}
    },
}  # fmt: skip


def _inquiry(headline: str, text: str, question: str, button: str, **more: Any) -> dict[str, Any]:
    return {
        "purpose": "inquiry",
        "steps": [
            {
                "id": "ask",
                "parts": [
                    {"id": "p1", "kind": "headline", "text": headline},
                    {"id": "p2", "kind": "text", "html": f"<p>{text}</p>"},
                    {"id": "p3", "kind": "field", "input": "long", "name": "question", "label": question,
                     "required": True},
                    {"id": "p4", "kind": "field", "input": "email", "name": "email", "label": "Your email",
                     "required": True},
                    {"id": "p5", "kind": "field", "input": "text", "name": "name", "label": "Your name"},
                    {"id": "p6", "kind": "field", "input": "phone", "name": "phone", "label": "Phone"},
                    {"id": "p7", "kind": "button", "label": button, "does": {"action": "send", "next": "thanks"}},
                ],
            },
            _thanks("We have it"),
        ],
        "look": {"width": 460, "colours": _COLOURS},
        **more,
    }  # fmt: skip


GROUPS = _inquiry(
    "How many of you, and when?", "We plan trips for groups of eight to forty. Tell us the rough idea.",
    "What do you have in mind?", "Ask for a plan",
    show={"sentences": [{"pages": _pages(("exact", "/groups")), "moments": _moments(15, 60)}]},
    after={
        "follow_up": True, "promise_minutes": 8 * 60,
        "thank_you": {"send": True, "subject": "Your group on the water",
                      "text": "Thank you for asking. We put a plan and a price together."},
    },
)  # fmt: skip

QUESTION = _inquiry(
    "Something you want to know?", "One of us reads this and writes back.", "Your question", "Send my question",
    show={
        "sentences": [{"pages": _pages(("exact", "/hire"), ("exact", "/contact")), "moments": _moments(20, 70)}],
        "how_often": {"once_in_days": 2},
    },
    after={
        "follow_up": True,
        "thank_you": {"send": True, "subject": "We have your question", "text": "Thank you for asking."},
    },
)  # fmt: skip
