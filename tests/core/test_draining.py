"""Codes that go oddly fast."""

from datetime import UTC, datetime, timedelta

import pytest

from intavo.core.touchpoint.draining import drains_oddly

AT = datetime(2026, 11, 24, 14, 5, tzinfo=UTC)


def went(*ago: tuple[float, int]) -> list[datetime]:
    """Instants: so many codes, so many hours ago."""
    return [AT - timedelta(hours=hours) for hours, count in ago for _ in range(count)]


@pytest.mark.parametrize(
    ("given", "words"),
    [
        ([], None),
        (went((0.5, 19)), None),
        (went((0.5, 20)), "20 codes went within the last hour; none went in the weeks before."),
        (went((0, 21), (30, 4)), "21 codes went within the last hour; the most in an hour before was 4."),
        (went((0.2, 20), (30, 4)), None),
        # What lies further back, or in the hour before the last one, or ahead, is no part of the last hour.
        (went((0.2, 21), (30 * 24, 9)), "21 codes went within the last hour; none went in the weeks before."),
        (went((0.9, 10), (1.1, 30)), None),
        (went((-0.5, 50)), None),
    ],
)
def test_codes_that_go_oddly_fast_are_told(given: list[datetime], words: str | None) -> None:
    found = drains_oddly(given, AT)
    assert (found.words if found else None) == words
