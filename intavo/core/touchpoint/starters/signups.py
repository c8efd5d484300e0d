"""Starters that ask for an address."""

from .build import (
    Starter,
    close,
    consent,
    email,
    first_name,
    head,
    mail,
    picture,
    send,
    show,
    slot,
    step,
    text,
    thanks,
)

_AFTER_A_WHILE = ({"after": 12}, {"read": 40})

SIGN_UPS = (
    Starter(
        "news", "News by email", "Visitors leave an address and agree to hear from you.", "address",
        {
            "purpose": "sign-up",
            "steps": [
                step(
                    "ask",
                    head("News worth opening, once a month"),
                    text("What is on, what is new, and the dates to keep. Nothing else."),
                    email(),
                    first_name(),
                    consent("Send me the monthly news by email."),
                    send("Keep me posted"),
                    picture("hills", description="Hills in the morning, one behind the other"),
                    name="Ask",
                ),
                thanks("Thank you", text("You are on the list. The next news comes at the start of the month.")),
            ],
            "show": show(*_AFTER_A_WHILE),
            "after": {
                "thank_you": mail(
                    "Thank you for joining us", "You are on the list. The next news comes at the start of the month."
                )
            },
        },
    ),
    Starter(
        "file", "News with a file to keep", "A guide, a plan or a price list in return for an address, confirmed by mail.",
        "address",
        {
            "purpose": "sign-up",
            "steps": [
                step(
                    "ask",
                    picture("pages", "beside", description="A few printed pages, fanned out"),
                    head("The one page our regulars keep on the fridge"),
                    text("Leave your address and it comes by mail, with our news once a month."),
                    email(),
                    consent("Send me the page, and your news once a month."),
                    send("Send me the page"),
                    name="Ask",
                ),
                step(
                    "thanks",
                    head("Look in your mail"),
                    text("There is a link in it to confirm that it was you. The page comes right after."),
                    close(),
                    name="Thanks",
                ),
            ],
            "look": {"width": 620},
            "show": show(*_AFTER_A_WHILE, days=14),
            "after": {
                "confirm": {
                    "on": True, "subject": "Please confirm your address",
                    "text": ["You asked for our page. Press the button behind this link and it is yours."],
                },
                "file": {"label": "The page"},
                "thank_you": mail("Here is your page", "Thank you for confirming. Here it is: ", slot("file")),
            },
        },
    ),
    Starter(
        "code", "News with a code", "A small thank-you in return for an address: one code for everybody, or one each.",
        "address",
        {
            "purpose": "sign-up",
            "steps": [
                step(
                    "ask",
                    picture("ribbon", description="A ribbon tied around a small parcel"),
                    head("Ten per cent off the first time"),
                    text("For your address. We write once a month, and never more."),
                    email(),
                    consent("Send me the code, and your news once a month."),
                    send("Get my code"),
                    name="Ask",
                ),
                step(
                    "thanks", head("Here it is"), {"kind": "code", "label": "Your code"},
                    text("It is in your mail as well. Show it or type it in when you pay."), close("Good, thank you"),
                    name="Thanks",
                ),
            ],
            "show": show({"after": 15}, {"read": 50}),
            "after": {
                "code": {"kind": "shared", "shared": "WELCOME10"},
                "thank_you": mail("Your code", "Thank you for joining us. Your code is ", slot("code"), "."),
            },
        },
    ),
    Starter(
        "join", "A place in the next group", "For a course, a class or a tasting: an address, and you write to them.",
        "several",
        {
            "purpose": "sign-up",
            "stance": "side-panel",
            "steps": [
                step(
                    "ask",
                    picture("chairs", description="A half circle of empty chairs"),
                    head("The next group starts soon"),
                    text("Leave your name and address. We hold a place for two days and write to you with the dates."),
                    first_name(required=True, label="Your first name"),
                    email(),
                    consent("Write to me about this group."),
                    send("Hold a place for me"),
                    name="Ask",
                ),
                thanks("A place is yours for two days"),
            ],
            "show": show({"read": 60}, days=3),
            "after": {"follow_up": True, "thank_you": mail("We hold a place for you", slot("promise"))},
        },
    ),
)  # fmt: skip
