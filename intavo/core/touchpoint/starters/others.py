"""Starters that ask for a choice or a score, lead somewhere, or pass something on."""

from .build import (
    Starter,
    button,
    close,
    email,
    field,
    head,
    option,
    picture,
    send,
    show,
    step,
    text,
    thanks,
)

OTHERS = (
    Starter(
        "either-or", "Either / or", "One question in the page; each answer goes its own way.", "click",
        {
            "purpose": "question",
            "stance": "in-page",
            "steps": [
                step(
                    "ask",
                    picture("signpost", "beside", description="A signpost with two arms"),
                    {"kind": "question", "name": "choice", "text": "Your first time, or have you done this before?",
                     "options": [option("first", "The first time", "first"), option("before", "Done it before", "before")]},
                    name="Question",
                ),
                step(
                    "first", head("Then start with an hour beside us", size="medium"),
                    text("One of us is with you the whole time. Nothing to bring, nothing to know."),
                    button("The first hour", "page", address="/", goal=True), button("Back", "back", "plain"),
                    name="First time",
                ),
                step(
                    "before", head("Then just take it out", size="medium"),
                    text("By the hour or the day. Tell us your height and we have it ready."),
                    button("Hire by the day", "page", address="/", goal=True), button("Back", "back", "plain"),
                    name="Done it before",
                ),
            ],
            "spot": {"selector": "main", "where": "inside"},
            "show": show({"after": 0}, days=None, answered=False),
        },
    ),
    Starter(
        "score", "A score, and what comes of it", "From 0 to 10; a low score opens a follow-up, a high one says thank you.",
        "click",
        {
            "purpose": "feedback",
            "stance": "card",
            "leaving": {"outside": False},
            "steps": [
                step(
                    "ask",
                    {"kind": "score", "name": "score", "text": "How likely are you to come again?",
                     "least_label": "not at all", "most_label": "tomorrow",
                     "bands": [{"least": 0, "most": 6, "next": "sorry"}, {"least": 7, "most": 8, "next": "more"},
                               {"least": 9, "most": 10, "next": "glad"}]},
                    picture("chairs", description="A half circle of empty chairs"),
                    name="Score",
                ),
                step(
                    "sorry", head("What went wrong?", size="medium"),
                    text("Tell us, and somebody writes back."),
                    field("long", "wrong", "What should we know?"), email(required=False, name="email", label="Your email, if we may answer"),
                    send("Tell them"), name="Low",
                ),
                step(
                    "more", head("What would make it better?", size="medium"),
                    field("long", "better", "One thing is enough"), send("Tell them"), name="Middling",
                ),
                step(
                    "glad", head("That makes our day", size="medium"),
                    text("Would you tell a friend?"), {"kind": "share", "label": "Tell a friend", "words": "I liked it here."},
                    send("Done"), name="High",
                ),
                thanks("Thank you"),
            ],
            "show": show({"read": 80}, {"after": 60}, days=90),
        },
    ),
    Starter(
        "links", "A menu of links", "A short list of the pages that people look for.", "click",
        {
            "purpose": "notice",
            "stance": "button",
            "steps": [
                step(
                    "ask",
                    picture("signpost", height=110, description="A signpost with three arms"),
                    head("Where to?"),
                    {"kind": "links", "items": [
                        {"label": "Prices", "does": {"action": "page", "address": "/"}},
                        {"label": "How to find us", "does": {"action": "page", "address": "/"}},
                        {"label": "To the top of the page", "does": {"action": "spot", "spot": "top"}},
                    ]},
                    name="Links",
                )
            ],
            "face": {"label": "Where to?", "sign": "none"},
            "look": {"place": "bottom-left"},
            "show": show({"after": 0}, days=None, answered=False),
        },
    ),
    Starter(
        "follow", "Follow us elsewhere", "Links to the places where you post, in your own words.", "click",
        {
            "purpose": "message",
            "stance": "card",
            "leaving": {"outside": False},
            "steps": [
                step(
                    "ask",
                    picture("flags", description="A line of small flags between two poles"),
                    head("More pictures, more often"),
                    text("We post a few times a week. Put the addresses of your own pages here."),
                    {"kind": "links", "columns": 2, "items": [
                        {"label": "Our pictures", "does": {"action": "page", "address": "https://", "tab": "new", "goal": True}},
                        {"label": "Our films", "does": {"action": "page", "address": "https://", "tab": "new", "goal": True}},
                    ]},
                    close("Another time"),
                    name="Links",
                )
            ],
            "show": show({"read": 70}, days=30),
        },
    ),
    Starter(
        "share", "Pass it on", "The visitor’s own way of sharing, and a link to copy.", "click",
        {
            "purpose": "message",
            "stance": "in-page",
            "steps": [
                step(
                    "ask",
                    head("Somebody should read this", size="medium"),
                    {"kind": "share", "label": "Share this page", "words": "I thought of you when I read this."},
                    picture("market", "beside", description="A market stall under a striped roof"),
                    name="Share",
                )
            ],
            "spot": {"selector": "main", "where": "inside"},
            "show": show({"after": 0}, days=None, answered=False),
        },
    ),
    Starter(
        "empty", "Start empty", "A headline and nothing else; add what you like.", "nothing",
        {
            "purpose": "notice",
            "steps": [step("ask", head("Your words here"), name="Ask")],
            "show": show({"after": 12}, {"read": 40}),
        },
    ),
)  # fmt: skip
