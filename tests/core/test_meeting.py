"""How a channel is met: in every situation, hidden or said, with who is there, and until when."""

from datetime import UTC, datetime, timedelta
from typing import Any

import pytest

from intavo.core.hours import OpeningHours
from intavo.core.links import Channel, given, meet, reached
from intavo.core.presence import Away, Presence
from intavo.core.replies import Cell, Reply, ReplySlotRun, Situation

WEEK = [{"day": day, "from": "09:00", "to": "17:30"} for day in ("mon", "tue", "wed", "thu", "fri")]
MAIN = OpeningHours.model_validate({"timezone": "Europe/London", "week": WEEK})
NIGHT = OpeningHours.model_validate(
    {"timezone": "Europe/London", "week": [{"day": "fri", "from": "20:00", "to": "00:30"}]}
)
SETS = {None: MAIN, 1: MAIN, 2: NIGHT}
NOON, EVENING = datetime(2026, 11, 24, 12, tzinfo=UTC), datetime(2026, 11, 24, 20, tzinfo=UTC)
AWAY = Presence(7, Away(NOON + timedelta(hours=1), NOON + timedelta(hours=1)))
TABLE = {
    Cell(Situation.AFTER_HOURS): Reply(title=("Shut",)),
    Cell(Situation.AFTER_HOURS, "ch_1"): Reply(
        button="Leave a line", text=("Back ", ReplySlotRun(slot="next_opening"))
    ),
    Cell(Situation.OPEN, "ch_1"): Reply(text=("Somebody is here.",)),
    Cell(Situation.HOLIDAY, "ch_1"): Reply(hidden=True),
}


def channel(**more: Any) -> Channel:
    return Channel.model_validate({"kind": "phone", "label": "Call us", "handle": "01632 960123", **more})


@pytest.mark.parametrize(
    ("more", "at", "members", "situation", "hidden", "button", "says"),
    [({}, NOON, (), "open", False, "", ("", "Somebody is here.")),
     ({}, EVENING, (), "after-hours", False, "Leave a line", ("", "Back tomorrow at 09:00")),
     ({"while_closed": "hide"}, EVENING, (), "after-hours", True, "Leave a line", None),
     ({"while_closed": "show"}, EVENING, (), "after-hours", False, "Leave a line", None),
     ({}, NOON, (AWAY,), "nobody-free", False, "", ("Thank you", "We are away from the counter just now. We answer as soon as we can.")),
     ({"kind": "map", "handle": "50.1, -4.2"}, EVENING, (AWAY,), "open", False, "", ("", "Somebody is here.")),
     ({"hours": [1, 2]}, datetime(2026, 11, 27, 21, tzinfo=UTC), (), "open", False, "", ("", "Somebody is here."))],
)  # fmt: skip
def test_it_is_said_or_hidden_by_the_table(
    more: dict[str, Any],
    at: datetime,
    members: tuple[Presence, ...],
    situation: str,
    hidden: bool,
    button: str,
    says: tuple[str, str] | None,
) -> None:
    met = meet(channel(**more), "ch_1", SETS, at, members, table=TABLE)
    assert (met.situation.value, met.hidden, met.button, met.says) == (situation, hidden, button, says)


def test_nobody_behind_it_means_nobody_free_and_the_next_change_is_known() -> None:
    people = [{"name": "Jory", "member": 7}, {"name": "Sable", "hours": [2]}]
    met = meet(channel(people=people), "ch_9", SETS, NOON, (AWAY, Presence(8)))
    assert met.situation is Situation.NOBODY_FREE
    assert [can for _, can in met.people] == [False, False]
    assert met.until == NOON + timedelta(hours=1)
    assert meet(channel(), "ch_9", SETS, NOON).until == datetime(2026, 11, 24, 17, 30, tzinfo=UTC)


def test_today_is_a_line_of_when_anybody_is_reached() -> None:
    start = datetime(2026, 11, 27, tzinfo=UTC)
    spans = reached(channel(hours=[1, 2]), SETS, start, start + timedelta(days=1))
    assert [(a.hour, b.hour, b.minute) for a, b in spans] == [(9, 17, 30), (20, 0, 0)]
    lone = channel(people=[{"name": "Sable", "hours": [2]}])
    assert reached(lone, SETS, start, start + timedelta(days=1)) == []


def test_what_visitors_get_names_each_touchpoint_and_asks_for_words_first() -> None:
    link = channel(
        kind="message-link",
        template="https://w.example/{handle}{?text}",
        handle="otter",
        opens="ask-first",
        text=["Hello ", {"slot": "short_code"}],
        people=[{"name": "Jory", "handle": "jory"}],
        pick="first-reachable",
    )
    met = meet(link, "ch_1", SETS, NOON)
    found = given(link, met, "phone", "GB", {}, {"tp_1": "k7f2"})
    assert found["by"] == {"tp_1": "https://w.example/jory?text=Hello%20%23k7f2"}
    assert found["people"][0]["by"]["tp_1"] == "https://w.example/jory?text=Hello%20%23k7f2"
    assert found["asks"] == "https://w.example/otter?text=intavo-words"
    assert given(channel(devices=["phone"]), met, "desktop", "GB", {}, {})["hidden"]
