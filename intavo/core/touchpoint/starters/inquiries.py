"""Starters that bring a question, a booking or a call."""

from .build import (
    Starter,
    button,
    close,
    email,
    field,
    first_name,
    head,
    mail,
    option,
    phone,
    picture,
    send,
    show,
    slot,
    step,
    text,
    thanks,
)

INQUIRIES = (
    Starter(
        "question", "A question to us", "Visitors ask something; it goes on the follow-up list.", "several",
        {
            "purpose": "inquiry",
            "steps": [
                step(
                    "ask",
                    head("Ask us anything"),
                    text("A person reads this and writes back."),
                    field("long", "question", "What would you like to know?", required=True),
                    email(),
                    first_name(label="Your name"),
                    send("Send my question"),
                    picture("door", description="A shop door with a sign in it"),
                    name="Ask",
                ),
                thanks("We have your question"),
            ],
            "look": {"width": 440},
            "show": show({"after": 20}, {"read": 60}),
            "after": {
                "follow_up": True,
                "thank_you": mail("We have your question", "Thank you for asking. We answer ", slot("promise"), "."),
            },
        },
    ),
    Starter(
        "contact", "Contact us", "A button in the corner that opens hours, answers, and a way to write.", "several",
        {
            "purpose": "inquiry",
            "stance": "button",
            "steps": [
                step(
                    "ask",
                    picture("door", height=110, description="A shop door with a sign in it"),
                    head("How can we help?"),
                    {"kind": "hours", "week": False},
                    {"kind": "questions"},
                    button("Write to us", "step", next="write"),
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
                thanks("We have it"),
            ],
            "face": {"label": "Ask us", "sign": "question"},
            "show": show({"after": 0}, days=None, answered=False),
            "after": {"follow_up": True, "thank_you": mail("We have your message", "We answer ", slot("promise"), ".")},
        },
    ),
    Starter(
        "group", "A booking for a group", "Two short steps: what and when, then how to reach them.", "several",
        {
            "purpose": "inquiry",
            "stance": "side-panel",
            "steps": [
                step(
                    "ask",
                    picture("table", description="A long table laid for many"),
                    head("Coming as a group?"),
                    text("Tell us roughly what you have in mind, and we put a plan and a price together."),
                    field("number", "people", "How many of you?", required=True, least=2, most=500, row="r1", share=50),
                    field("date", "day", "Which day?", row="r1", share=50),
                    field("choice", "occasion", "What is the occasion?",
                          options=[option("family", "Family"), option("work", "Work"), option("school", "School or club"),
                                   option("other", "Something else")]),
                    button("Go on", "step", next="reach"),
                    name="What",
                ),
                step(
                    "reach",
                    head("How do we reach you?", size="medium"),
                    first_name(label="Your name", required=True),
                    email(),
                    phone(),
                    field("long", "wishes", "Anything we should know?"),
                    send("Ask for a plan"),
                    button("Back", "back", "plain"),
                    name="Reach",
                ),
                thanks("We have it"),
            ],
            "show": show({"after": 20}, {"read": 60}, days=3),
            "after": {
                "follow_up": True, "promise_minutes": 480,
                "thank_you": mail("Your group", "Thank you for asking. You hear from us ", slot("promise"), "."),
            },
        },
    ),
    Starter(
        "call-back", "Call me back", "They choose a time in your opening hours; it is due on your list then.", "several",
        {
            "purpose": "call",
            "stance": "card",
            "leaving": {"outside": False},
            "steps": [
                step(
                    "ask",
                    head("Shall we call you?"),
                    text("Choose a time that suits you. We call, you ask."),
                    field("slot", "time", "When?", required=True, minutes=30, notice=60),
                    phone(required=True),
                    first_name(label="Your name"),
                    send("Call me then"),
                    picture("flags", description="A line of small flags between two poles"),
                    name="Ask",
                ),
                thanks("We call you"),
            ],
            "show": show({"after": 30}, days=7),
            "after": {"follow_up": True},
        },
    ),
    Starter(
        "reach", "Every way to reach us", "A button that opens all your channels, with what is said while you are closed.", "click",
        {
            "purpose": "message",
            "stance": "button",
            "steps": [
                step(
                    "ask",
                    picture("door", height=90, description="A shop door with a sign in it"),
                    head("How would you like to reach us?", size="medium"),
                    {"kind": "hours", "week": False},
                    {"kind": "channels", "channels": "all", "as": "rows"},
                    name="Ways",
                )
            ],
            "look": {"width": 360},
            "face": {"label": "Reach us", "sign": "message"},
            "show": show({"after": 0}, days=None, answered=False),
        },
    ),
    Starter(
        "talk", "A conversation in the page", "They write in the page; a script helps, then one of you answers.", "several",
        {
            "purpose": "message",
            "stance": "button",
            "steps": [
                step(
                    "ask",
                    head("Write to us", size="medium"),
                    {
                        "kind": "talk",
                        "script": {
                            "start": "hello",
                            "turns": [
                                {
                                    "id": "hello",
                                    "says": [["Hello. What is it about?"]],
                                    "choices": [
                                        {"id": "c1", "label": "A question", "next": "what"},
                                        {"id": "c2", "label": "A booking", "tags": ["booking"], "next": "what"},
                                        {"id": "c3", "label": "Your hours", "says": [[slot("open_now"), "."]]},
                                    ],
                                },
                                {"id": "what", "says": [["Tell us a little more."]], "asks": "text", "next": "mail"},
                                {"id": "mail", "says": [["Where can we reach you, should you leave?"]], "asks": "email",
                                 "may_skip": True, "next": "hand"},
                                {"id": "hand", "says": [["Thank you. One of us answers ", slot("promise"), "."]],
                                 "hands_over": True},
                            ],
                        },
                    },
                    name="Talk",
                )
            ],
            "look": {"width": 380},
            "face": {"label": "Write to us", "sign": "message"},
            "show": show({"after": 0}, days=None, answered=False),
            "after": {"follow_up": True},
        },
    ),
    Starter(
        "message-link", "Message us", "A button that opens one of your message links.", "click",
        {
            "purpose": "message",
            "stance": "button",
            "steps": [step("ask", head("Message us"), close(), name="Message")],
            "face": {"label": "Message us", "sign": "message", "does": {"action": "channel", "goal": True}},
            "show": show({"after": 0}, days=None, answered=False),
        },
    ),
    Starter(
        "find", "Find us", "Where you are, when you are open, and the way there.", "click",
        {
            "purpose": "message",
            "stance": "card",
            "leaving": {"outside": False},
            "steps": [
                step(
                    "ask",
                    picture("flags", description="A line of small flags between two poles"),
                    head("Here is where you find us"),
                    text("Write the way from the station or the car park here, in a sentence or two."),
                    {"kind": "hours"},
                    {"kind": "channels", "channels": "all", "as": "signs"},
                    name="Find",
                )
            ],
            "show": show({"read": 70}, days=7),
        },
    ),
    Starter(
        "call", "A button to call", "One tap on a phone, and it rings at your counter.", "click",
        {
            "purpose": "call",
            "stance": "button",
            "steps": [step("ask", head("Call us"), {"kind": "hours", "week": False}, close(), name="Call")],
            "face": {"label": "Call us", "sign": "phone", "does": {"action": "phone", "address": "01632 960000", "goal": True}},
            "show": show({"after": 0}, days=None, answered=False),
        },
    ),
)  # fmt: skip
