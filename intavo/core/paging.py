"""Where a page of a list ends: the time and the id of its last row, as one text in an address."""

import re
from datetime import datetime

ROW_ID = re.compile(r"[0-9]{1,18}")


def read_key(text: str) -> tuple[datetime | None, int]:
    """The time (aware, or None where the row has none) and the id; ValueError for what is no such text."""
    time, _, last = text.partition("|")
    at = datetime.fromisoformat(time) if time else None
    if not ROW_ID.fullmatch(last) or (at is not None and at.tzinfo is None):
        raise ValueError("This is not where a page ends.")
    return at, int(last)
