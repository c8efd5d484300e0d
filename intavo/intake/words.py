"""Words made from what a visitor sent."""

from collections.abc import Iterable

from django.conf import settings

from intavo.accounts.telling import foot
from intavo.core.tongues import Phrase, Tongue, say
from intavo.core.touchpoint import Checked, Document, Score


def excerpt(document: Document, checked: Checked) -> str:
    """What the list shows of it: the longest thing they wrote besides how to reach them."""
    reach = {"email", "phone", "name", "slot", "hidden"}
    written = [
        checked.values[field.name]
        for field in document.fields()
        if field.input not in reach and field.name != "name" and field.name in checked.values
    ]
    score = next((p for p in document.parts() if isinstance(p, Score) and p.name in checked.values), None)
    begin = f"{checked.values[score.name]} of {score.most}" if score else ""
    words = " ".join(max(written, key=len, default="").split())
    told = ": ".join(part for part in (begin, words) if part)
    return told or _WITHOUT.get(document.purpose, "Asked to be contacted")


CALL_ALONE = "Asked for a call"
_WITHOUT = {"sign-up": "Joined the list", "call": CALL_ALONE, "feedback": "Gave a score"}

_HELLO, _HELLO_YOU = Phrase("Hello,"), Phrase("Hello {name},")


def letter(name: str, text: str, more: Iterable[str], business: str, tongue: Tongue) -> str:
    """The text of a mail to a visitor: a greeting, the owner's words, what belongs to it,
    and who it is from.
    """
    hello = say(_HELLO_YOU, tongue, name=name) if name else say(_HELLO, tongue)
    return "\n\n".join(part for part in (hello, text.strip(), *more, business) if part) + "\n"


def told(touchpoint: str, typed: list[list[str]], page: str, followup: int | None) -> str:
    """The text of a mail to a member about something that came in."""
    lines = [f"{asked}: {said}" for asked, said in typed]
    where = f"{settings.BASE_URL}/follow-up/{followup}" if followup else f"{settings.BASE_URL}/follow-up"
    return (
        "\n".join([f"Through “{touchpoint}”, on {page}", "", *lines, "", f"Open it: {where}"]) + "\n" + foot()
    )
