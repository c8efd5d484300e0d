"""Two cards made one and two again, over values; cards written as vCards."""

from datetime import UTC, datetime, timedelta

import pytest
import vobject
from hypothesis import given
from hypothesis import strategies as st

from intavo.core.people import AddressValue, CardValue, TagValue, merged, split
from intavo.core.people.cards import WrittenCard, write_card

AT = datetime(2026, 11, 24, tzinfo=UTC)


def cards(first: int) -> st.SearchStrategy[CardValue]:
    """Cards whose rows have ids from `first` on, but whose addresses and tags may be those of others."""

    def made(name: str, back: int, keys: set[str], tags: set[str], rows: set[int]) -> CardValue:
        addresses = frozenset(
            AddressValue(first + n, "phone", key, key) for n, key in enumerate(sorted(keys))
        )
        tagged = frozenset(TagValue(first + n, tag) for n, tag in enumerate(sorted(tags)))
        return CardValue(
            first,
            name,
            AT - timedelta(days=back),
            addresses,
            tagged,
            frozenset(("event", first + n) for n in rows),
        )

    keys, tags = st.sets(st.sampled_from("abc")), st.sets(st.sampled_from("xyz"))
    return st.builds(
        made, st.sampled_from(["", "Eve", "Nia"]), st.integers(0, 9), keys, tags, st.sets(st.integers(0, 9))
    )


@given(cards(100), cards(200), st.sampled_from(["kept", "gone"]))
def test_two_are_as_they_were_after_being_one(kept: CardValue, gone: CardValue, name: str) -> None:
    made = merged(kept, gone, name)  # type: ignore[arg-type]
    assert split(made) == (kept, gone)
    assert {(one.kind, one.key) for one in made.card.addresses} == {
        (one.kind, one.key) for one in kept.addresses | gone.addresses
    }
    assert len(made.card.addresses) == len({one.key for one in made.card.addresses})
    assert {one.tag for one in made.card.tags} == {one.tag for one in kept.tags | gone.tags}
    assert made.card.rows == kept.rows | gone.rows
    assert bool(made.card.name) is bool(kept.name or gone.name)


@given(cards(100), cards(200))
def test_what_came_since_stays_and_what_went_since_is_gone(kept: CardValue, gone: CardValue) -> None:
    made = merged(kept, gone)
    now = CardValue(
        made.card.id,
        "Called anew",
        made.card.created_at,
        frozenset(),
        made.card.tags,
        made.card.rows | {("event", 999)},
    )
    ours, theirs = split(made, now)
    assert (ours.name, ("event", 999) in ours.rows, ("event", 999) in theirs.rows) == (
        "Called anew",
        True,
        False,
    )
    assert theirs.addresses == made.double_addresses


def test_one_card_cannot_be_joined_with_itself() -> None:
    card = CardValue(1, "Eve", AT)
    with pytest.raises(ValueError, match="one card already"):
        merged(card, card)


@given(st.text(), st.text(min_size=1), st.text())
def test_a_written_card_is_read_back_and_no_line_is_too_long(name: str, tag: str, note: str) -> None:
    def clean(text: str) -> str:
        return "".join(one for one in text if one.isprintable() or one == "\n").strip()

    given_name, given_tag = " ".join(clean(name).split()), clean(tag).replace("\n", " ")
    text = write_card(
        WrittenCard(
            "1",
            given_name,
            ("a@post.example",),
            ("01632 960741",),
            (given_tag or "x",),
            tuple(filter(None, [clean(note)])),
        )
    )
    assert all(len(line.encode()) <= 75 for line in text.split("\r\n"))
    [card] = vobject.readComponents(text)
    assert card.fn.value == (given_name or "a@post.example")
    assert card.categories.value == [given_tag or "x"]
    assert card.email.value == "a@post.example"
    assert [one.value for one in card.contents.get("note", [])] == ([clean(note)] if clean(note) else [])
