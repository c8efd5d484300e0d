"""The one place that reads the time; INTAVO_NOW fixes it for server, worker and browsers."""

import os
from datetime import UTC, datetime


def fixed() -> datetime | None:
    """The time that INTAVO_NOW fixes (ISO 8601 with an offset), or None; ValueError if it has no offset."""
    text = os.environ.get("INTAVO_NOW", "")
    if not text:
        return None
    at = datetime.fromisoformat(text)
    if at.tzinfo is None:
        raise ValueError("INTAVO_NOW needs an offset, like 2026-11-24T14:05:00+00:00")
    return at.astimezone(UTC)


def now() -> datetime:
    """The time now, aware, in UTC."""
    return fixed() or datetime.now(UTC)
