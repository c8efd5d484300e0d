"""The demo business: who they are, when they are open, and what stands on their site."""

import hashlib
from dataclasses import dataclass
from functools import cached_property
from typing import Any

SITE_KEY = "0tterwick0demo01"
SITE_SLUG = "otterwick"
OWNER = "Morwenna Hale"
STAFF = ("Jory Tregenza", "Sable Okonjo")
PASSWORD = "paddle-demo"  # noqa: S105  # printed by the demo, and nowhere else of use
NAME = "Otterwick Paddle Hire"
TIMEZONE, REGION = "Europe/London", "GB"
# The made-up messaging service's way in and out; they open nothing but the demo's own stand-in.
WHERRY_KEY, WHERRY_BEARER = "0tterwickwherry1", "wherry-demo"
WHERRY_SECRET = "whsec_b3R0ZXJ3aWNrIHdoZXJyeSBkZW1vIQ=="  # noqa: S105


@dataclass(frozen=True)
class Names:
    """What must differ between two demo businesses on one Intavo: keys, hosts and sign-ins. `label` is made of
    small letters, digits and hyphens; the business without one is the one of `make demo`.
    """

    label: str = ""

    @property
    def slug(self) -> str:
        """The site's short name in addresses."""
        return f"{SITE_SLUG}-{self.label}" if self.label else SITE_SLUG

    @property
    def local_host(self) -> str:
        """The host that its site has on this machine."""
        return f"{self.slug}.localhost"

    @property
    def host(self) -> str:
        """The host that its site would have in earnest; its mail addresses end in it."""
        return f"{self.slug}.example"

    @cached_property
    def site_key(self) -> str:
        """The key in the site's snippet: sixteen letters and digits."""
        return self._key("site") or SITE_KEY

    @cached_property
    def wherry_key(self) -> str:
        """The key under which the messaging service hands messages over."""
        return self._key("wherry") or WHERRY_KEY

    def _key(self, of: str) -> str:
        return hashlib.sha256(f"{of} {self.label}".encode()).hexdigest()[:16] if self.label else ""

    def email(self, person: str) -> str:
        """The address of somebody there, by the first word of their name: "Jory Tregenza" is jory@…"""
        return f"{person.split()[0].lower()}@{self.host}"

    def here(self, text: str) -> str:
        """A text with the hosts of this business in place of those of the one without a label."""
        return text.replace("otterwick.example", self.host)


DEMO = Names()

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

# What is said in Welsh, in two cells; the rest falls back.
REPLIES_CY: dict[str, dict[str, Any]] = {
    "open": {"title": ["Diolch"], "text": ["Byddwn yn ateb ", {"slot": "promise"}, "."]},
    "after-hours": {
        "title": ["Mae’r cwt cychod ar gau"], "text": ["Byddwn yn agor eto ", {"slot": "next_opening"}, "."], "tone": "quiet",
    },
}  # fmt: skip

# Ways to reach the boathouse, and what is said of some while they are closed. Hours and people by name.
CHANNELS: tuple[dict[str, Any], ...] = (
    {"kind": "phone", "label": "Call us", "handle": "01632 960123", "hours": ["Phone line"], "while_closed": "say",
     "goal": True},
    {"kind": "message-link", "label": "Harbour chat", "template": "{wherry}/to/{handle}{?text}",
     "handle": "otterwick", "text": ["Hello, I am looking at ", {"slot": "page_title"}, ". ", {"slot": "short_code"}],
     "hours": ["Boathouse", "Night paddles"], "while_closed": "say", "goal": True, "pick": "visitor",
     "people": [{"name": "Jory", "words": "trips and tides", "handle": "jory", "member": "Jory Tregenza"},
                {"name": "Sable", "words": "lessons", "handle": "sable", "hours": ["Phone line"], "member": "Sable Okonjo"}]},
    {"kind": "text", "label": "Text us", "handle": "07700 900123", "devices": ["phone"],
     "text": ["Hello, a question about ", {"slot": "page_title"}, ": "], "while_closed": "show"},
    {"kind": "mail", "label": "Write to us", "handle": "hello@otterwick.example", "subject": ["From the page ", {"slot": "page_title"}],
     "while_closed": "show"},
    {"kind": "map", "label": "Find the boathouse", "handle": "50.3412, -4.1234",
     "template": "https://maps.example/otterwick-quay", "while_closed": "show"},
    {"kind": "page", "label": "Tide station", "handle": "https://tides.example/otterwick", "icon": "visit",
     "while_closed": "show"},
)  # fmt: skip
CHANNEL_REPLIES: tuple[tuple[str, str, dict[str, Any]], ...] = (
    ("Call us", "after-hours", {"hidden": True}), ("Call us", "holiday", {"hidden": True}),
    ("Call us", "nobody-free", {"title": ["Out on the water"], "text": ["Ask for a call back instead: we are back ",
                                {"slot": "back_at"}, "."], "button": "Call anyway"}),
    ("Harbour chat", "open", {"button": "Chat with us", "text": ["Somebody is at the counter: ask away."]}),
    ("Harbour chat", "after-hours", {"button": "Leave a message", "text": ["We are ashore. We answer ", {"slot": "promise"}, "."]}),
)  # fmt: skip

# What the site's own pages look like; every touchpoint follows it.
HOUSE: dict[str, Any] = {
    "font": {"source": "site", "name": "Georgia, 'Times New Roman', serif"},
    "head_font": {"source": "site", "name": "Georgia, 'Times New Roman', serif"}, "corners": 4,
    "colours": {"card": "#fffaf0", "text": "#3b2a1a", "headline": "#3b2a1a", "button": "#a83a1f",
                "button_text": "#ffffff"},
}  # fmt: skip

# Pages as the script has seen them: path, title, kinds, views.
PAGES: tuple[tuple[str, str, tuple[str, ...], int], ...] = (
    ("/", "Otterwick Paddle Hire", ("home",), 4812), ("/trips", "Trips", ("section",), 2140),
    ("/trips/sunrise", "Sunrise trip", ("trip",), 1320), ("/trips/after-dark", "After dark", ("trip",), 655),
    ("/lessons", "Lessons", ("section",), 980), ("/hire", "Hire", ("section",), 1704),
    ("/groups", "Groups", ("section",), 402), ("/blog", "Journal", ("section",), 310),
    ("/blog/reading-a-tide-table", "Reading a tide table", ("article",), 1166),
    ("/blog/what-to-wear-in-march", "What to wear in March", ("article",), 288), ("/contact", "Contact", (), 1520),
)  # fmt: skip
SITE_RULES: dict[str, Any] = {
    "search": ["findit.example"], "social": ["chatter.example"], "search_media": ["cpc", "organic"],
    "social_media": ["social"], "most_interruptions": 3,
    "groups": [{"name": "Quiet water", "pages": [{"kind": "exact", "path": "/lessons"}, {"kind": "exact", "path": "/trips/sunrise"}]}],
}  # fmt: skip

# Where visits came from.
SOURCES: dict[tuple[str, str], int] = {
    ("host", "findit.example"): 412, ("host", "chatter.example"): 96, ("host", "coastwalks.example"): 38,
    ("host", "lookabout.example"): 21, ("medium", "cpc"): 57, ("medium", "newsletter"): 33,
}  # fmt: skip

# Seen on an ordinary day, and how often that reaches the goal.
SEEN_A_DAY: dict[str, tuple[int, float]] = {
    "ask": (140, 0.031), "tide": (63, 0.064), "groups": (19, 0.04), "parting": (38, 0.014), "hire": (12, 0.092),
    "question": (22, 0.05), "call-back": (9, 0.07),
}  # fmt: skip

QUESTIONS: tuple[tuple[str, str, str], ...] = (
    ("Hire", "Do I have to know how to paddle?", "<p>No. We show you on the slip, and the first bend is quiet water.</p>"),
    ("Hire", "What do children need?", "<p>A grown-up in the boat. We have jackets from age 4 and wetsuits from age 8.</p>"),
    ("Hire", "May the dog come?", "<p>In a double, yes, with a jacket of ours. Not on boards.</p>"),
    ("Trips", "What happens if the wind gets up?",
     "<p>We decide the evening before and write to you. You choose <strong>another day or your money back</strong>.</p>"),
    ("Trips", "What should I bring?", "<p>Shoes that may get wet, something warm, and a towel. The rest is here.</p>"),
    ("Lessons", "How long until I can go out alone?", "<p>Most people after three lessons of an hour.</p>"),
)  # fmt: skip
