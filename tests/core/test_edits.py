"""Two changes of one thing put together: nothing of either is lost unless both changed the same."""

from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from intavo.core.edits import lists_together, put_together
from intavo.core.giving import GiveRule, giving_together
from intavo.core.hours import OpeningHours, hours_together
from intavo.core.links import Channel, channels_together
from intavo.core.showing import SiteRules, rules_together
from intavo.core.touchpoint import HouseStyle, houses_together

NAMES = st.sampled_from("abcd")
PARTS = st.dictionaries(NAMES, st.integers(0, 2))


@given(PARTS, PARTS, PARTS)
def test_each_part_is_of_whoever_changed_it(
    base: dict[str, int], ours: dict[str, int], theirs: dict[str, int]
) -> None:
    both = put_together(base, ours, theirs)
    for name in "abcd":
        was, mine, other, now = (one.get(name) for one in (base, ours, theirs, both.parts))
        assert now == (other if mine == was else mine)
        assert (name in both.clashes) == (mine != was and other != was and mine != other)
    assert put_together(base, ours, base).parts == ours
    assert put_together(base, base, theirs).parts == theirs
    # Whoever comes second, the same comes of it, but for what both changed.
    if not both.clashes:
        assert put_together(base, theirs, ours).parts == both.parts


def week(**days: str) -> list[dict[str, str]]:
    return [{"day": day, "from": said.split("-")[0], "to": said.split("-")[1]} for day, said in days.items()]


def odd(first: str, last: str = "", **more: Any) -> dict[str, Any]:
    return {"first": first, "last": last or first, **more}


def hours(days: dict[str, str], *exceptions: dict[str, Any], timezone: str = "Europe/London") -> OpeningHours:
    return OpeningHours.model_validate(
        {"timezone": timezone, "week": week(**days), "exceptions": list(exceptions)}
    )


BASE = hours({"mon": "09:00-17:00", "tue": "09:00-17:00"}, odd("2026-12-24"))


def test_a_saturday_and_a_holiday_are_both_kept() -> None:
    ours = hours({"mon": "09:00-17:00", "tue": "09:00-17:00", "sat": "10:00-12:00"}, odd("2026-12-24"))
    theirs = hours(
        {"mon": "09:00-13:00", "tue": "09:00-17:00"}, odd("2026-12-24"), odd("2026-12-31", "2027-01-01")
    )
    both, clashes = hours_together(BASE, ours, theirs)
    assert clashes == ()
    assert [(one.day, one.to) for one in both.week] == [("mon", "13:00"), ("tue", "17:00"), ("sat", "12:00")]
    assert [f"{one.first}" for one in both.exceptions] == ["2026-12-24", "2026-12-31"]


def test_what_is_taken_out_by_one_goes_and_what_both_changed_is_named() -> None:
    ours = hours({"mon": "08:00-17:00"}, timezone="Europe/Berlin")
    theirs = hours({"mon": "10:00-17:00", "tue": "09:00-17:00"}, odd("2026-12-24", label="Eve"))
    both, clashes = hours_together(BASE, ours, theirs)
    assert clashes == ("Monday (10:00–17:00)", "2026-12-24 (Eve closed)")
    assert (both.timezone, [one.from_ for one in both.week], both.exceptions) == (
        "Europe/Berlin",
        ["08:00"],
        (),
    )


def test_odd_days_of_both_on_one_date_are_such_a_change() -> None:
    ours = hours({"mon": "09:00-17:00", "tue": "09:00-17:00"}, odd("2026-12-24"), odd("2026-12-28"))
    theirs = hours(
        {"mon": "09:00-17:00", "tue": "09:00-17:00"}, odd("2026-12-24"), odd("2026-12-26", "2026-12-29")
    )
    both, clashes = hours_together(BASE, ours, theirs)
    assert clashes == ("2026-12-26 – 2026-12-29 (closed)",)
    assert both.exceptions == ours.exceptions


def test_what_nobody_else_changed_is_as_it_was_typed() -> None:
    ours = hours({"tue": "09:00-17:00", "mon": "09:00-17:00"}, odd("2026-12-31"), odd("2026-12-24"))
    assert hours_together(BASE, ours, BASE) == (ours, ())
    assert hours_together(BASE, BASE, ours) == (ours, ())


def channel(**said: Any) -> Channel:
    return Channel.model_validate({"kind": "phone", "label": "Call us", "handle": "020 7946 0018"} | said)


def test_a_channel_leads_to_one_of_both_and_never_to_a_mix() -> None:
    base = channel(kind="message-link", handle="boats", template="https://one.example/{handle}")
    ours = channel(kind="message-link", handle="canoes", template="https://one.example/{handle}", goal=True)
    theirs = channel(
        kind="message-link", handle="boats", template="https://two.example/{handle}", label="Write"
    )
    document, clashes = channels_together(base, ours, theirs)
    assert clashes == ("where it leads",)
    both = Channel.model_validate(document)
    assert (both.handle, both.template, both.goal, both.label) == (
        "canoes",
        "https://one.example/{handle}",
        True,
        "Write",
    )


LISTS = st.lists(NAMES, unique=True)


@given(LISTS, LISTS, LISTS)
def test_of_a_list_what_either_put_in_is_in_and_what_either_took_out_is_out(
    base: list[str], ours: list[str], theirs: list[str]
) -> None:
    both = lists_together(base, ours, theirs)
    assert len(set(both)) == len(both)
    for name in "abcd":
        if name in base:
            assert (name in both) == (name in ours and name in theirs)
        else:
            assert (name in both) == (name in ours or name in theirs)
    # In the order that this change gave it.
    assert [one for one in both if one in ours] == [one for one in ours if one in both]


def test_what_holds_for_a_site_is_put_together_by_what_is_said_in_it() -> None:
    def rules(*search: str, **groups: str) -> dict[str, Any]:
        pages = {name: [{"kind": "exact", "path": path}] for name, path in groups.items()}
        return {"search": search, "groups": [{"name": name, "pages": own} for name, own in pages.items()]}

    base = SiteRules.model_validate(rules("findit.example", Trips="/trips", Hire="/hire"))
    ours = SiteRules.model_validate(rules("findit.example", "seek.example", Trips="/trips/all"))
    theirs = SiteRules.model_validate(
        rules("lookup.example", Trips="/trips", Hire="/hire", Shop="/shop") | {"most_interruptions": 2}
    )
    both, clashes = rules_together(base, ours, theirs)
    assert (set(both.search), both.most_interruptions, clashes) == ({"seek.example", "lookup.example"}, 2, ())
    assert [(one.name, one.pages[0].path) for one in both.groups] == [
        ("Trips", "/trips/all"),
        ("Shop", "/shop"),
    ]
    other = SiteRules.model_validate(rules("findit.example", trips="/journeys", Hire="/hire"))
    both, clashes = rules_together(base, ours, other)
    assert clashes == ("the group “trips”",)
    assert both.by_name()["trips"][0].path == "/trips/all"


def test_a_house_style_is_put_together_colour_by_colour() -> None:
    def house(corners: int | None = None, **colours: str) -> HouseStyle:
        return HouseStyle.model_validate({"corners": corners, "colours": colours})

    base = house(4, card="#ffffff", text="#111111")
    both, clashes = houses_together(base, house(8, card="#ffffff", text="#111111"), house(4, text="#222222"))
    assert (both, clashes) == (house(8, text="#222222"), ())
    both, clashes = houses_together(
        base, house(4, text="#333333"), house(None, card="#ffffff", text="#222222")
    )
    assert (both, clashes) == (house(None, text="#333333"), ("Text",))


def test_rules_whose_order_decides_are_never_put_among_each_other() -> None:
    base, jory, sable = (GiveRule(),), (GiveRule(), GiveRule(member=1)), (GiveRule(tag="fleet"),)
    assert giving_together(base, jory, base) == (jory, ())
    assert giving_together(base, base, sable) == (sable, ())
    assert giving_together(base, sable, sable) == (sable, ())
    assert giving_together(base, jory, sable) == (jory, ("whose new work is",))
    assert giving_together((), jory, ()) == (jory, ())
