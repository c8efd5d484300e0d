"""Ways to reach a business: what owners paste, templates from one example, and the links that visitors get."""

import re
from datetime import UTC, datetime
from typing import Any
from urllib.parse import unquote

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from intavo.core.links import Channel, ChannelPerson, first_reachable, href, reachable, read, template_from

from .hours_examples import ALWAYS, BOATHOUSE, NEVER

WHERRY = "https://wherry.localhost:8403/to/{handle}{?text}"


def channel(kind: str = "phone", handle: str = "07700 900123", **more: Any) -> Channel:
    """A channel of a kind."""
    return Channel.model_validate({"kind": kind, "label": "Reach us", "handle": handle} | more)


@pytest.mark.parametrize(
    ("text", "kind", "handle"),
    [
        ("07700 900123", "phone", "07700 900123"), ("+44 7700 900123", "phone", "+44 7700 900123"),
        ("(01632) 960 000 ext 12", "phone", "(01632) 960 000 ext 12"), ("tel:+447700900123", "phone", "+447700900123"),
        ("tel:+441632960000;ext=12", "phone", "+441632960000 ext 12"), ("sms:+447700900123?body=Hi", "text", "+447700900123"),
        ("boathouse@otterwick.example", "mail", "boathouse@otterwick.example"),
        ("mailto:boathouse@otterwick.example?subject=Hi", "mail", "boathouse@otterwick.example"),
        ("xmpp:jory@otterwick.example?message", "xmpp", "jory@otterwick.example"), ("sip:desk@otterwick.example", "sip", "desk@otterwick.example"),
        ("@jory:otterwick.example", "matrix", "@jory:otterwick.example"), ("matrix:u/jory:otterwick.example?action=chat", "matrix", "@jory:otterwick.example"),
        ("matrix:r/tides:otterwick.example", "matrix", "#tides:otterwick.example"),
        ("50.2660, -5.0527", "map", "50.2660,-5.0527"), ("geo:50.266,-5.0527;u=35", "map", "50.266,-5.0527"),
        ("50.266° N 5.0527° W", "map", "50.266,-5.0527"), ("3 Harbour Road, Otterwick", "map", "3 Harbour Road, Otterwick"),
        ("otterwick.example/hire", "page", "https://otterwick.example/hire"), ("https://otterwick.example/", "page", "https://otterwick.example/"),
        ("boats.otterwick.example:8080/#hire", "page", "https://boats.otterwick.example:8080/#hire"),
        ("@otterwick", "message-link", "otterwick"),
        ("https://wherry.localhost:8403/to/otterwick?text=hello%20there", "message-link", "otterwick"),
        ("wherry://chat/otterwick", "message-link", "otterwick"),
    ],
)  # fmt: skip
def test_what_an_owner_pastes_is_understood_and_said(text: str, kind: str, handle: str) -> None:
    found = read(text, "GB")
    assert (found.kind, found.handle) == (kind, handle)
    assert found.words


@pytest.mark.parametrize(
    "text",
    ["", "  ", "12", "+44 1", "07700 900123 900123 900", "soon", "javascript:alert(1)", "JaVaScRiPt:alert(1)", "java\tscript:alert(1)",
     "\u200bjavascript:alert(1)", "data:text/html,x", "vbscript:x", "file:///etc/passwd", "mailto:nobody", "geo:91,0", "geo:here",
     "matrix:x/y", "x" * 600, "wherry:", "١٢٣٤٥٦٧"],
)  # fmt: skip
def test_what_reaches_nobody_is_refused_in_words(text: str) -> None:
    with pytest.raises(ValueError, match=r"\w+ \w+"):
        read(text, "GB")


@pytest.mark.parametrize(
    ("example", "template", "handle", "takes"),
    [
        ("https://wherry.localhost:8403/to/otterwick?text=hello%20there", WHERRY, "otterwick", True),
        ("https://wherry.localhost:8403/to/otterwick?text=hello+there", WHERRY, "otterwick", True),
        ("https://wherry.localhost:8403/to/otterwick?text=hello there", WHERRY, "otterwick", True),
        ("https://chat.example/write?number=447700900123&text=Hello%20There", "https://chat.example/write?number={handle}{&text}", "447700900123", True),
        ("https://chat.example/m?body=hello%20there&to=jory", "https://chat.example/m?to={handle}&body={text}", "jory", True),
        ("https://chat.example/otterwick/hello%20there", "https://chat.example/{handle}/{text}", "otterwick", True),
        ("https://chat.example/@otterwick", "https://chat.example/@{handle}", "otterwick", False),
        ("https://chat.example/u/otter%20wick", "https://chat.example/u/{handle}", "otter wick", False),
        ("wherry://send?to=otterwick&text=hello%20there", "wherry://send?to={handle}{&text}", "otterwick", True),
        ("https://chat.example/to/{handle}?x=1", "https://chat.example/to/{handle}?x=1", "", False),
        ("https://chat.example/to/otter?v=%7B1%7D", "https://chat.example/to/{handle}?v=%7B1%7D", "otter", False),
    ],
)  # fmt: skip
def test_one_example_link_gives_the_template(example: str, template: str, handle: str, takes: bool) -> None:
    made = template_from(example)
    assert (made.template, made.handle, made.takes_text) == (template, handle, takes)
    if handle:
        back = href(channel("message-link", handle, template=template), words="hello there" if takes else "")
        assert unquote(back.replace("+", " ")).casefold().replace(" ", "") == (
            unquote(back).casefold().replace(" ", "")
        )
        assert template_from(back) == made


@pytest.mark.parametrize(
    "example",
    ["https://chat.example/", "https://chat.example", "https://chat.example/send", "otterwick", "javascript:go('otterwick')",
     "java\nscript:go", "https://{handle", "{handle}://x", "https:{handle}", "https://chat.example/{handle}/{+text}",
     "https://chat.example/{handle}/{name}", "data:{handle}", "https://chat.example/to/jo ry", "https://[chat/x"],
)  # fmt: skip
def test_a_link_without_a_place_for_the_handle_is_refused(example: str) -> None:
    with pytest.raises(ValueError, match=r"\w+ \w+"):
        template_from(example)


@pytest.mark.parametrize(
    ("one", "link"),
    [
        (channel(), "tel:+447700900123"), (channel(handle="01632 960000 ext. 12"), "tel:+441632960000;ext=12"),
        (channel("text", text=["Hello, ", {"slot": "first_name"}]), "sms:+447700900123?body=Hello%2C%20Ife"),
        (channel("mail", "boat@otterwick.example", subject="A & B", text="One\nTwo"),
         "mailto:boat@otterwick.example?subject=A%20%26%20B&body=One%0D%0ATwo"),
        (channel("mail", "boat@otterwick.example"), "mailto:boat@otterwick.example"),
        (channel("xmpp", "jory@otterwick.example", text="Hi there"), "xmpp:jory@otterwick.example?message;body=Hi%20there"),
        (channel("sip", "desk@otterwick.example"), "sip:desk@otterwick.example"),
        (channel("matrix", "@jory:otterwick.example"), "matrix:u/jory:otterwick.example?action=chat"),
        (channel("matrix", "#tides:otterwick.example"), "matrix:r/tides:otterwick.example"),
        (channel("map", "50.266,-5.0527"), "geo:50.266,-5.0527"), (channel("page", "otterwick.example/hire"), "https://otterwick.example/hire"),
        (channel("message-link", "@otterwick", template=WHERRY, text=["I am looking at ", {"slot": "page_title"}, " & more #k7f2"]),
         "https://wherry.localhost:8403/to/otterwick?text=I%20am%20looking%20at%20Trips%20%26%20more%20%23k7f2"),
        (channel("message-link", "otter/wick?x", template=WHERRY), "https://wherry.localhost:8403/to/otter%2Fwick%3Fx"),
    ],
)  # fmt: skip
def test_links_are_written_as_their_standards_say(one: Channel, link: str) -> None:
    assert href(one, slots={"first_name": "Ife", "page_title": "Trips"}) == link


def test_a_map_opens_as_a_place_on_a_phone_and_as_the_owners_map_on_a_desktop() -> None:
    one = channel("map", "50.266,-5.0527", template="https://maps.example/otterwick")
    assert href(one, device="phone") == "geo:50.266,-5.0527"
    assert href(one, device="desktop") == "https://maps.example/otterwick"
    street = channel("map", "3 Harbour Road, Otterwick", template="https://maps.example/find/{handle}")
    assert href(street, device="phone") == "https://maps.example/find/3%20Harbour%20Road%2C%20Otterwick"
    with pytest.raises(ValueError, match="coordinates"):
        href(channel("map", "3 Harbour Road, Otterwick"))


def test_a_person_has_a_handle_of_their_own_and_a_visitor_their_own_words() -> None:
    one = channel("message-link", "otterwick", template=WHERRY, text="Hello")
    jory = ChannelPerson(name="Jory", handle="jory")
    assert (
        href(one, person=jory, words="Is it calm?")
        == "https://wherry.localhost:8403/to/jory?text=Is%20it%20calm%3F"
    )
    assert href(one, person={"name": "Ivy"}) == "https://wherry.localhost:8403/to/otterwick?text=Hello"


@pytest.mark.parametrize(
    ("kind", "handle"),
    [("phone", "12"), ("text", "soon"), ("mail", "nobody"), ("xmpp", "x"), ("sip", "x"), ("matrix", "jory"), ("matrix", "@:x"),
     ("page", "/hire"), ("page", "javascript:x"), ("message-link", "")],
)  # fmt: skip
def test_a_handle_that_is_none_of_its_kind_is_refused(kind: str, handle: str) -> None:
    more = {"template": WHERRY} if kind == "message-link" else {}
    with pytest.raises(ValueError, match=r"\w+ \w+"):
        href(channel(kind, handle, **more))


@pytest.mark.parametrize(
    "document",
    [{"kind": "message-link"}, {"kind": "message-link", "template": "https://chat.example/"}, {"kind": "page", "template": "javascript:{handle}"},
     {"kind": "message-link", "template": "java\tscript:{handle}"}, {"kind": "smoke"}, {"devices": []}, {"label": ""}, {"unknown": 1},
     {"text": ["x" * 1001]}, {"text": [{"slot": "promise"}]}, {"icon": "bird"}, {"kind": []}, {"kind": {}}],
)  # fmt: skip
def test_a_channel_without_a_way_or_with_a_script_is_refused(document: dict[str, Any]) -> None:
    with pytest.raises(ValidationError):
        Channel.model_validate({"kind": "phone", "label": "Reach us", "handle": "07700 900123"} | document)


@given(
    st.text(max_size=1500), st.text(max_size=200), st.sampled_from(["text", "mail", "xmpp", "message-link"])
)
def test_no_text_and_no_handle_changes_where_a_link_leads(text: str, handle: str, kind: str) -> None:
    own = {"text": "07700 900123", "mail": "boat@otterwick.example", "xmpp": "boat@otterwick.example"}.get(
        kind, handle.strip()
    )
    one = channel(kind, own[:300], template=WHERRY if kind == "message-link" else None)
    try:
        link = href(one, words=text)
    except ValueError:
        assert not re.sub(r"[@\s\x00-\x1f\x7f-\x9f\u2028\u2029\ud800-\udfff]", "", own) or not one.handle
        return
    starts = {"text": "sms:+447700900123", "mail": "mailto:boat@otterwick.example", "xmpp": "xmpp:boat@otterwick.example",
              "message-link": "https://wherry.localhost:8403/to/"}  # fmt: skip
    assert link.startswith(starts[kind])
    assert re.fullmatch(r"[!-~]+", link)
    assert "\r" not in unquote(link).replace("\r\n", "")


@settings(deadline=None)
@given(st.text(max_size=80))
@example("a:\x1b")
def test_any_paste_is_read_or_refused_and_never_becomes_a_script(text: str) -> None:
    try:
        found = read(text, "GB")
    except ValueError:
        return
    if found.kind == "message-link" and found.template is None:
        return
    try:
        link = href(channel(found.kind, found.handle, template=found.template))
    except ValueError:
        assert found.kind in {"map", "matrix"}
        return
    assert not re.match(r"(?i)\s*(javascript|data|vbscript|file|blob)", link)


SETS = {None: BOATHOUSE, 3: ALWAYS, 4: NEVER}
NOON, NIGHT = datetime(2026, 11, 24, 12, tzinfo=UTC), datetime(2026, 11, 24, 23, tzinfo=UTC)


@pytest.mark.parametrize(
    ("hours", "person", "at", "away", "found"),
    [((), None, NOON, set(), True), ((), None, NIGHT, set(), False), ((3,), None, NIGHT, set(), True), ((4,), None, NOON, set(), False),
     ((4, 3), None, NIGHT, set(), True), ((9,), None, NOON, set(), False), ((3,), {"hours": [4]}, NOON, set(), False),
     ((3,), {}, NIGHT, set(), True), ((4,), {"hours": [3]}, NOON, set(), False), ((3,), {"member": 7}, NOON, {7}, False),
     ((3,), {"member": 7}, NOON, {8}, True)],
)  # fmt: skip
def test_somebody_is_reachable_in_their_hours_within_the_channels(
    hours: tuple[int, ...], person: dict[str, Any] | None, at: datetime, away: set[int], found: bool
) -> None:
    who = None if person is None else ChannelPerson.model_validate({"name": "Jory"} | person)
    assert reachable(channel(hours=hours), who, SETS, at, away) is found


def test_the_first_in_the_owners_order_who_can_be_reached_answers() -> None:
    people = [{"name": "Jory", "hours": [4]}, {"name": "Ivy", "member": 2}, {"name": "Wren"}]
    one = channel(hours=(3,), people=people)
    names = [
        who and who.name for who in (first_reachable(one, SETS, NOON), first_reachable(one, SETS, NOON, {2}))
    ]
    assert names == ["Ivy", "Wren"]
    assert first_reachable(channel(hours=(4,), people=people), SETS, NOON) is None
