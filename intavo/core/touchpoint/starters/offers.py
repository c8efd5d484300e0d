"""Starters that offer something or say something."""

from .build import (
    Starter,
    button,
    close,
    head,
    picture,
    show,
    small,
    step,
    text,
)

OFFERS = (
    Starter(
        "price", "An offer with its price", "What it costs now, what it cost before, and where to get it.", "click",
        {
            "purpose": "offer",
            "steps": [
                step(
                    "ask",
                    picture("market", "above", description="A market stall under a striped roof", follows=True),
                    head("The whole day for the price of the morning"),
                    text("On weekdays, as long as there is room."),
                    {"kind": "price", "now": "32.00", "old": "48.00", "unit": "a day"},
                    button("See the days", "page", address="/", goal=True),
                    close("Not now"),
                    name="Offer",
                )
            ],
            "show": show({"after": 10}, {"read": 30}, days=14),
        },
    ),
    Starter(
        "countdown", "An offer that ends", "A bar along the foot with the time that is left.", "click",
        {
            "purpose": "offer",
            "stance": "bar",
            "steps": [
                step(
                    "ask",
                    small("ribbon", description="A ribbon"),
                    head("Book this week, bring a friend for free", size="medium", row="r1", share=40),
                    {"kind": "countdown", "minutes": 60 * 24 * 3, "again_after": 60 * 24 * 30, "label": "Still",
                     "row": "r1", "share": 28},
                    button("Book now", "page", address="/", goal=True) | {"row": "r1", "share": 22},
                    name="Offer",
                )
            ],
            "look": {"place": "bottom", "colours": {"card": "#3b2240", "text": "#ffffff", "button": "#ffd166", "button_text": "#2a1630"}},
            "show": show({"after": 2}, days=None),
        },
    ),
    Starter(
        "parting", "A parting card", "One more word to those who are about to leave.", "click",
        {
            "purpose": "offer",
            "stance": "card",
            "leaving": {"outside": False},
            "steps": [
                step(
                    "ask",
                    picture("path", description="A path that leads back over a hill"),
                    head("Before you go"),
                    text("The first hour is on us if you come in this month. Keep this code for it."),
                    {"kind": "code", "label": "Your code"},
                    button("How to find us", "page", address="/", goal=True),
                    close("No, thank you"),
                    name="Card",
                )
            ],
            "show": show({"leave": True}, days=30, devices=["desktop", "tablet"]),
            "after": {"code": {"kind": "shared", "shared": "FIRSTHOUR"}},
        },
    ),
    Starter(
        "announcement", "An announcement", "A picture, a headline, a few words and one button: something to tell.", "click",
        {
            "purpose": "notice",
            "steps": [
                step(
                    "ask",
                    picture("flags", description="A line of small flags between two poles"),
                    head("Come and see what is new"),
                    text("From Saturday on, all day, and nobody has to book."),
                    button("What is on", "page", address="/", goal=True),
                    close("Not now"),
                    name="Announcement",
                )
            ],
            "show": show({"after": 10}, {"read": 30}, days=14),
        },
    ),
    Starter(
        "welcome", "A welcome", "The whole page for a moment: who you are, and where to go first.", "click",
        {
            "purpose": "notice",
            "stance": "full-page",
            "steps": [
                step(
                    "ask",
                    picture("hills", "behind", description="Hills in the morning, one behind the other",
                            wash=65, wash_colour="#0b1c22"),
                    head("Good to see you here", align="middle", known=[{"slot": "first_name"}, ", good to see you again"]),
                    text("A small family business since longer than we like to count.", align="middle"),
                    button("Show me around", "close", goal=True),
                    name="Welcome",
                )
            ],
            "look": {"colours": {"card": "#0b1c22", "text": "#ffffff", "button": "#ffffff", "button_text": "#0b1c22"}},
            "show": show({"after": 1}, days=90),
        },
    ),
    Starter(
        "notice", "A notice bar", "One line at the top of every page.", "nothing",
        {
            "purpose": "notice",
            "stance": "bar",
            "steps": [
                step(
                    "ask",
                    small("signpost", description="A signpost"),
                    text("<strong>We are moving.</strong> From next month you find us two doors further on.", row="r1", share=70),
                    button("Where is that?", "page", "plain", address="/", goal=True) | {"row": "r1", "share": 20},
                    name="Notice",
                )
            ],
            "show": show({"after": 0}, days=None),
        },
    ),
    Starter(
        "hours", "Opening hours", "Whether you are open now, and the week, wherever you put it.", "nothing",
        {
            "purpose": "notice",
            "stance": "in-page",
            "steps": [
                step(
                    "ask",
                    picture("door", "beside", description="A shop door with a sign in it"),
                    head("When we are here"),
                    {"kind": "hours"},
                    name="Hours",
                )
            ],
            "spot": {"selector": "main", "where": "inside"},
            "show": show({"after": 0}, days=None, answered=False),
        },
    ),
    Starter(
        "terms", "A text to read", "Terms, house rules or directions, in a panel beside the page.", "nothing",
        {
            "purpose": "notice",
            "stance": "side-panel",
            "steps": [
                step(
                    "ask",
                    head("Our house rules"),
                    text(
                        "<strong>Coming.</strong> Please be here ten minutes before we begin.",
                        "<strong>Cancelling.</strong> Up to two days before, for nothing; after that, half the price.",
                        "<strong>Weather.</strong> If we call it off, you choose a new day or your money back.",
                        "<strong>Children.</strong> Welcome from eight years on, with somebody who looks after them.",
                    ),
                    {"kind": "line"},
                    button("I have read it", "close", goal=True),
                    picture("path", description="A path that leads back over a hill"),
                    name="Text",
                )
            ],
            "look": {"width": 480},
            "show": {"sentences": [{"moments": []}], "how_often": {"every": "page"}, "until": {"answered": False}},
        },
    ),
)  # fmt: skip
