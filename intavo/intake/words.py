"""Words made from what a visitor sent."""

from intavo.core.touchpoint import Checked, Document, FieldPart


def excerpt(document: Document, checked: Checked) -> str:
    """What the list shows of it: the longest thing they wrote besides how to reach them."""
    reach = {"email", "phone"}
    written = [
        checked.values[part.name]
        for part in document.parts()
        if isinstance(part, FieldPart)
        and part.input not in reach
        and part.name != "name"
        and part.name in checked.values
    ]
    if written:
        return " ".join(max(written, key=len).split())
    return "Joined the list" if document.purpose == "sign-up" else "Asked to be contacted"


def thank_you_text(name: str, text: str, said: str, business: str) -> str:
    """The text of the thank-you mail: a greeting, the owner's words, the promise, and who it is from."""
    hello = f"Hello {name}," if name else "Hello,"
    return "\n\n".join(part for part in (hello, text.strip(), said, business) if part) + "\n"
