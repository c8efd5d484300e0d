"""A week as people write it."""

import re
from datetime import time

import pytest
from hypothesis import given
from hypothesis import strategies as st

from intavo.core.hours import DAYS, read_hours, read_what_can_be

WORK = "mon tue wed thu fri"


def week(**days: str) -> list[tuple[str, str, str]]:
    """Stretches from days="09:00-17:00 20:00-00:30"."""
    stretches = [(day, one.split("-")) for day in DAYS for one in days.get(day, "").split()]
    return [(day, start, end) for day, (start, end) in stretches]


def read(text: str, language: str = "en") -> list[tuple[str, str, str]]:
    """What was read, as day, from, to."""
    return [(one.day, one.from_, one.to) for one in read_hours(text, language)]


def on(days: str, times: str, **more: str) -> list[tuple[str, str, str]]:
    """The same times on several days."""
    return week(**(dict.fromkeys(days.split(), times) | more))


ALL = " ".join(DAYS)
READ = [
    ("Mon–Fri 9-17:30, Sat 8-19", on(WORK, "09:00-17:30", sat="08:00-19:00")),
    ("Mon–Fri 9am–5.30pm; Sat 8–19", on(WORK, "09:00-17:30", sat="08:00-19:00")),
    ("9-17:30, fri also 20-00:30", on(ALL, "09:00-17:30", fri="09:00-17:30 20:00-00:30")),
    ("9-17, closed Sunday", on("mon tue wed thu fri sat", "09:00-17:00")),
    ("9-17; Sunday closed", on("mon tue wed thu fri sat", "09:00-17:00")),
    ("Mon-Fri 9-17, weekend closed", on(WORK, "09:00-17:00")),
    ("24h", on(ALL, "00:00-24:00")), ("24/7", on(ALL, "00:00-24:00")), ("Sat 24 hours", on("sat", "00:00-24:00")),
    ("daily 10–18", on(ALL, "10:00-18:00")), ("Weekdays 8:30 to 17", on(WORK, "08:30-17:00")),
    ("every day from 9 until 5pm", on(ALL, "09:00-17:00")),
    ("Mon, Wed and Fri 9–12, 14–18", on("mon wed fri", "09:00-12:00 14:00-18:00")),
    ("Mon 9-12 Tue 14-18", week(mon="09:00-12:00", tue="14:00-18:00")),
    ("Mon 9-12, Mon 14-18", week(mon="09:00-12:00 14:00-18:00")),
    ("mon-sun 9-17, sat 10-14", on(ALL, "09:00-17:00", sat="10:00-14:00")),
    ("Sat–Mon 10-16", on("sat sun mon", "10:00-16:00")),
    ("Tues & Thurs: 9.30 – 17.00 Uhr", on("tue thu", "09:30-17:00")),
    ("Mondays 9 a.m. - 5 p.m.", week(mon="09:00-17:00")),
    ("mon 9-5", week(mon="09:00-17:00")), ("mon 9-12", week(mon="09:00-12:00")), ("mon 20-2", week(mon="20:00-02:00")),
    ("fri 6pm—1am", week(fri="18:00-01:00")), ("fri 18:00-midnight", week(fri="18:00-24:00")),
    ("fri noon−00:00", week(fri="12:00-24:00")), ("sat 0900-1730", week(sat="09:00-17:30")),
    ("Mon\u00a09\u201317\nTue 10\u201216", week(mon="09:00-17:00", tue="10:00-16:00")),
    ("closed", []), ("Mon–Fri 9–17\nSat closed\nSun closed", on(WORK, "09:00-17:00")),
    ("Mon 9h30-17h", week(mon="09:30-17:00")),
]  # fmt: skip


@pytest.mark.parametrize(("text", "found"), READ)
def test_a_week_is_read_as_people_write_it(text: str, found: list[tuple[str, str, str]]) -> None:
    assert read(text) == found


@pytest.mark.parametrize(
    ("text", "language", "found"),
    [("Mo–Fr 9–17 Uhr, Sa 8–12", "de", on(WORK, "09:00-17:00", sat="08:00-12:00")),
     ("lundi-vendredi 9h-18h", "fr", on(WORK, "09:00-18:00")), ("lun. 9-14", "es", week(mon="09:00-14:00")),
     ("Mon 9-14", "cy-GB", week(mon="09:00-14:00")), ("Dienstag und Donnerstag 10 bis 16", "de", on("tue thu", "10:00-16:00")),
     ("Mon 9-14", "no-such-tongue", week(mon="09:00-14:00")),
     ("Täglich von 9 bis 17 Uhr, Montag Ruhetag", "de", on("tue wed thu fri sat sun", "09:00-17:00")),
     ("Werktags von 9 bis 17 Uhr, Wochenende geschlossen", "de-AT", on(WORK, "09:00-17:00")),
     ("Mo, Di ab 9 bis Mitternacht", "de", on("mon tue", "09:00-24:00")), ("Rund um die Uhr", "de", on(ALL, "00:00-24:00")),
     ("tous les jours de 9h à 18h, fermé le lundi", "fr", on("tue wed thu fri sat sun", "09:00-18:00")),
     ("en semaine de 9h30 à midi et de 14h à 18h", "fr", on(WORK, "09:30-12:00 14:00-18:00")),
     ("de lunes a viernes de 9 a 17, sábado y domingo cerrado", "es", on(WORK, "09:00-17:00")),
     ("Todos los días desde las 10 a.m. hasta las 8 p.m.", "es", on(ALL, "10:00-20:00")),
     ("dal lunedì al venerdì dalle 9 alle 18, domenica chiuso", "it", on(WORK, "09:00-18:00")),
     ("doordeweeks van 9 tot 17 uur, zondag gesloten", "nl", on(WORK, "09:00-17:00")),
     ("codziennie od 9 do 17, niedziela nieczynne", "pl", on("mon tue wed thu fri sat", "09:00-17:00")),
     ("dias úteis das 9 às 18, fim de semana fechado", "pt", on(WORK, "09:00-18:00")),
     ("يوميا من 9 إلى 17", "ar", on(ALL, "09:00-17:00"))],
)  # fmt: skip
def test_days_are_called_as_in_the_language_of_the_business_or_in_english(
    text: str, language: str, found: list[tuple[str, str, str]]
) -> None:
    assert read(text, language) == found


@pytest.mark.parametrize(
    ("text", "quoted"),
    [("", "says no hours"), ("  ", "says no hours"), ("Mon", "“mon” says no times"), ("Mon 9", "“9” says no end"),
     ("Mon-Fri 9-25", "“25”"), ("Moonday 9-17", "“moonday”"), ("Mon 9-9", "“9–9”"), ("Mon 9-17 §3", "“§3”"),
     ("Mon 9-17 by appointment", "“by”"), ("9-17-20", "cannot be read"), ("also", "says no times"), ("x" * 1001, "too long"),
     ("Mon ٩-١٧", "“٩-١٧”"), ("-", "cannot be read"), ("Mon-Fri 9:75-17", "“9:75”"), ("13pm-14", "“13pm”")],
)  # fmt: skip
def test_what_cannot_be_read_is_quoted(text: str, quoted: str) -> None:
    with pytest.raises(ValueError, match=re.escape(quoted)):
        read_hours(text)


stretches = st.tuples(st.sampled_from(DAYS), st.times(), st.times()).filter(
    lambda one: one[1].strftime("%H:%M") != one[2].strftime("%H:%M")
)


@given(st.lists(stretches, min_size=1, max_size=10))
def test_a_week_that_is_written_out_comes_back(week_of: list[tuple[str, time, time]]) -> None:
    written = "; ".join(f"{day} {start:%H:%M}–{end:%H:%M}" for day, start, end in week_of)
    wanted = {(day, f"{start:%H:%M}", f"{end:%H:%M}") for day, start, end in week_of}
    afternoon = {(day, start, end) for day, start, end in wanted if end < start}
    found = set(read(written))
    assert {one for one in wanted - afternoon if one[2] != "00:00"} <= found
    assert len(found) == len(wanted)


@given(st.text(max_size=60))
def test_any_text_is_read_or_refused_in_words(text: str) -> None:
    try:
        found = read_hours(text)
    except ValueError as refused:
        found, words = (), str(refused)
        assert re.search("“.*”", words, re.DOTALL)  # either holds
    assert all(one.from_ != one.to for one in found)


@pytest.mark.parametrize(
    ("text", "week", "unread"),
    [
        (
            "Mon-Fri 9-17, sat by appointment",
            "mon 9-17 tue 9-17 wed 9-17 thu 9-17 fri 9-17",
            ["sat by appointment"],
        ),
        ("Mon, Tue 9-12; whenever; Sun 10-12", "mon 9-12 tue 9-12 sun 10-12", ["whenever"]),
        ("By the tide, Mon 9-12", "mon 9-12", ["By the tide"]),
        ("Mon 9-12", "mon 9-12", []),
    ],
)
def test_what_can_be_read_is_read_and_the_rest_is_named(text: str, week: str, unread: list[str]) -> None:
    known, left = read_what_can_be(text)
    assert (known, list(left)) == (read_hours(week), unread)


@pytest.mark.parametrize("text", ["by appointment", "", "Mon 9-17 by appointment", "x" * 5000])
def test_where_nothing_can_be_read_it_is_refused_as_ever(text: str) -> None:
    with pytest.raises(ValueError, match="“") as whole:
        read_hours(text)
    with pytest.raises(ValueError, match="“") as part:
        read_what_can_be(text)
    assert str(part.value) == str(whole.value)
