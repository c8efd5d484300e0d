"""Two changes of one reply put together, by what is said in it."""

from ..edits import put_together
from .said import Reply

_WORDS = {
    "button": "what the button says", "title": "the title", "text": "the text", "tone": "how it looks",
    "hidden": "whether anything is said",
}  # fmt: skip


def replies_together(base: Reply, ours: Reply, theirs: Reply) -> tuple[Reply, tuple[str, ...]]:
    """The reply with what both changed since `base`, and in words what both changed differently: of that,
    ours.
    """
    both = put_together(dict(base), dict(ours), dict(theirs))
    return Reply(**both.parts), tuple(_WORDS[name] for name in both.clashes)
