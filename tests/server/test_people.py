"""People: sought by a filter, made one and two again, erased, and what of theirs goes out."""

import csv
import io
import json
from datetime import UTC, date, datetime, timedelta
from typing import Any
from zoneinfo import ZoneInfo

import pytest
import vobject
from django.db import connection
from django.test import Client
from hypothesis import HealthCheck, example, given, settings
from hypothesis import strategies as st

from intavo.accounts.actor import Actor
from intavo.core import people as rules
from intavo.followup.models import FollowUp
from intavo.people.erasing import erase_now
from intavo.people.models import Address, Consent, Person, PersonTag, TimelineEvent
from intavo.people.seeking import sought

from .conftest import Visitor, World, sending
from .test_inquiries import ask, question

AT, ZONE = datetime(2026, 11, 24, 14, 5, tzinfo=UTC), ZoneInfo("Europe/London")
KINDS = ["signed up", "asked", "message", "answered", "note"]
PAGES = ["https://otterwick.example/trips?x=1", "/trips/", "https://otterwick.example", "/hire#a?b", ""]
TAGS, TOUCHPOINTS, NAMES = (
    ["school", "Harbour"],
    ["Tide table", "Group booking"],
    ["Ève Lindqvist", "nia", "", "EVE"],
)

moments = st.integers(0, 60 * 24 * 60).map(lambda minutes: AT - timedelta(minutes=minutes))
events = st.builds(
    rules.SeenEvent,
    st.sampled_from(KINDS),
    moments,
    st.sampled_from([*TOUCHPOINTS, ""]),
    st.sampled_from(PAGES),
)
seen = st.builds(
    rules.Seen,
    st.sampled_from(NAMES),
    moments,
    st.frozensets(st.sampled_from([("email", "eve@post.example"), ("phone", "+441632960741")])),
    st.frozensets(st.sampled_from(TAGS)),
    st.lists(st.tuples(st.sampled_from(["news", "offers"]), st.booleans()), max_size=3).map(tuple),
    st.lists(events, max_size=5).map(tuple),
)
maybe = st.none() | st.integers(1, 60)
days = st.none() | st.integers(0, 60).map(lambda back: date(2026, 11, 24) - timedelta(days=back))
conditions = st.one_of(
    st.builds(
        rules.Did,
        no=st.booleans(),
        deed=st.sampled_from(["anything", "signed up", "asked"]),
        days=maybe,
        since=days,
        touchpoint=st.none() | st.sampled_from(TOUCHPOINTS),
        page=st.none() | st.sampled_from(["/trips", "/", "/hire/"]),
        least=st.integers(1, 3),
    ),
    st.builds(rules.Heard, no=st.booleans(), days=st.integers(1, 60)),
    st.builds(rules.Added, no=st.booleans(), since=days, until=days),
    st.builds(rules.HasTag, no=st.booleans(), tag=st.sampled_from(TAGS)),
    st.builds(
        rules.Agreed,
        no=st.booleans(),
        name=st.none() | st.sampled_from(["news", "offers"]),
        withdrawn=st.booleans(),
    ),
    st.builds(rules.Reached, no=st.booleans(), kind=st.sampled_from(["email", "phone"])),
    st.builds(rules.Worded, no=st.booleans(), text=st.sampled_from(["eve", "Ève", "NIA", "@post", "1632"])),
)
filters = st.builds(rules.Filter, conditions=st.lists(conditions, max_size=4).map(tuple), any=st.booleans())


def kept(actor: Actor, one: rules.Seen, number: int = 0) -> Person:
    """A person in the database as a value has them."""
    person = Person.objects.create(business_id=actor.business_id, name=one.name, created_at=one.added_at)
    about = {"business_id": actor.business_id, "person": person}
    for kind, key in one.addresses:
        unique = f"{number}{key}" if kind == "email" else key
        Address.objects.create(kind=kind, key=unique, shown=unique, **about)
    for tag in one.tags:
        PersonTag.objects.create(tag=tag, given_at=AT, **about)
    for name, gone in one.consents:
        Consent.objects.create(
            name=name,
            wording="w",
            touchpoint="t",
            revision=1,
            page="/",
            given_at=AT,
            proof=f"{number}{name}",
            withdrawn_at=AT if gone else None,
            **about,
        )
    for event in one.events:
        data = {"touchpoint": event.touchpoint, "page": event.page}
        TimelineEvent.objects.create(kind=event.kind, at=event.at, data=data, **about)
    return person


TWICE_AND_TAGGED = rules.Filter(
    conditions=(rules.HasTag(tag="school"), rules.Did(deed="signed up", least=2)),
)
TWICE = rules.SeenEvent("signed up", AT, "", "")


@settings(max_examples=120, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@example(
    people=[
        rules.Seen("Nia", AT, frozenset(), frozenset({"school"}), (), (TWICE,) * times) for times in (1, 2)
    ],
    wanted=TWICE_AND_TAGGED,
)
@given(people=st.lists(seen, min_size=1, max_size=5), wanted=filters)
def test_a_filter_seeks_in_the_database_whom_it_seeks_in_python(
    otterwick: World, other: World, people: list[rules.Seen], wanted: rules.Filter
) -> None:
    Person.objects.all().delete()
    rows = [kept(otterwick.owner, one, number) for number, one in enumerate(people)]
    kept(other.owner, people[0], 99)
    held = [row.pk for row, one in zip(rows, people, strict=True) if rules.holds(wanted, one, AT, ZONE)]
    found = sought(otterwick.owner.business_id, wanted, AT, ZONE).order_by("pk").values_list("pk", flat=True)
    assert list(found) == held
    assert rules.filter_sentence(wanted)
    assert rules.Filter.model_validate_json(wanted.model_dump_json()) == wanted


@pytest.mark.parametrize(
    ("conditions", "said"),
    [
        ([], "everybody"),
        (
            [{"what": "did", "deed": "signed up", "touchpoint": "Tide table", "days": 30}, {"what": "tagged", "tag": "x"}],
            "people who signed up through “Tide table” in the last 30 days and are tagged “x”",
        ),
        ([{"what": "agreed", "no": True}], "people who never agreed"),
        ([{"what": "reached", "kind": "phone", "no": True}], "people who left no phone number"),
    ],
)  # fmt: skip
def test_a_filter_is_said_in_a_sentence(conditions: list[dict[str, object]], said: str) -> None:
    assert rules.filter_sentence(rules.Filter.model_validate({"conditions": conditions})) == said


def post(client: Client, address: str, **body: Any) -> Any:
    return client.post(f"/api/{address}", body, content_type="application/json")


def dump() -> str:
    """Every row of every table, as text."""
    with connection.cursor() as cursor:
        cursor.execute(
            "SELECT quote_ident(table_name) FROM information_schema.tables WHERE table_schema = 'public'"
        )
        found = []
        for (table,) in cursor.fetchall():
            cursor.execute(f"SELECT t::text FROM {table} t")  # noqa: S608  # names of our own tables
            found += [row[0] for row in cursor.fetchall()]
    return "\n".join(found)


@pytest.fixture
def two(visitor: Visitor, otterwick: World) -> tuple[Person, Person]:
    """Two cards of one person: the same phone on two emails, each with an open question."""
    row = question(otterwick)
    ask(
        visitor,
        row,
        1,
        email="eve@post.example",
        name="Ève Lindqvist",
        question="Suits?",
        phone="01632 960741",
    )
    ask(visitor, row, 2, email="eva@post.example", name="Eve L.", question="And boots?", phone="01632 960741")
    one, other = Person.objects.order_by("pk")
    PersonTag.objects.create(business=one.business, person=one, tag="school", given_at=AT)
    PersonTag.objects.create(business=one.business, person=other, tag="school", given_by="tp", given_at=AT)
    PersonTag.objects.create(business=one.business, person=other, tag="spring", given_at=AT)
    return one, other


def everything(*tables: str) -> list[Any]:
    """Rows of tables as they are, but for when they were touched last."""
    found: list[Any] = []
    with connection.cursor() as cursor:
        for table in tables:
            cursor.execute(f"SELECT to_jsonb(t) - 'touched_at' - 'words' FROM {table} t ORDER BY id")  # noqa: S608
            found += [row[0] for row in cursor.fetchall()]
    return found


OURS = (
    "people_person", "people_address", "people_persontag", "people_consent", "people_timelineevent",
    "followup_followup", "intake_submission",
)  # fmt: skip


def test_two_cards_are_suggested_joined_and_parted_as_they_were(
    two: tuple[Person, Person], otterwick: World
) -> None:
    client, (one, other) = otterwick.console(), two
    [pair] = client.get("/api/people-suggested").json()
    ids = {pair["one"]["id"], pair["other"]["id"]}
    for this in ids:
        there = client.get(f"/api/people/{this}").json()
        assert [each["id"] for each in there["perhaps_same"]] == [each for each in ids if each != this]
        page = client.get(f"/api/people/{this}/export?form=page").content.decode()
        assert ("What Otterwick" in page, "[[" in page, "followup" in page) == (True, False, False)
    assert ({pair["one"]["id"], pair["other"]["id"]}, pair["why"]) == (
        {one.pk, other.pk},
        "the same phone number",
    )
    said = post(client, f"people/{one.pk}/join-preview", gone_id=other.pk).json()
    assert (said["name"], said["names_clash"], said["gone_name"]) == ("Ève Lindqvist", True, "Eve L.")
    assert (said["joins"][:2], said["doubles"]) == (
        ["eva@post.example", "the tag “spring”"],
        ["01632 960741", "the tag “school”"],
    )
    before = everything(*OURS)
    assert post(client, f"people/{one.pk}/join-preview", gone_id=one.pk).status_code == 422
    joined = post(client, f"people/{one.pk}/join", gone_id=other.pk).json()
    card = client.get(f"/api/people/{other.pk}").json()
    assert (card["id"], sorted(a["shown"] for a in card["addresses"])) == (
        one.pk,
        ["01632 960741", "eva@post.example", "eve@post.example"],
    )
    asked = [event["data"]["typed"] for event in card["timeline"] if event["kind"] == "asked"]
    assert len(asked) == 2
    assert [row.state for row in FollowUp.objects.order_by("pk")] == ["for-us", "finished"]
    assert client.get("/api/people-suggested").json() == []
    assert post(client, f"merges/{joined['merge']}/undo").json()["id"] == other.pk
    assert everything(*OURS) == before
    post(client, f"people/{one.pk}/not-one", other_id=other.pk)
    assert client.get("/api/people-suggested").json() == []
    assert [client.get(f"/api/people/{this}").json()["perhaps_same"] for this in ids] == [[], []]


def test_what_came_after_joining_stays_with_the_kept_card(
    two: tuple[Person, Person], otterwick: World
) -> None:
    client, (one, other) = otterwick.console(), two
    joined = post(client, f"people/{one.pk}/join", gone_id=other.pk, name="gone").json()
    assert Person.objects.get().name == "Eve L."
    post(client, f"people/{one.pk}/note", text="Rang about boots.")
    assert (
        client.put(f"/api/people/{one.pk}/name", {"name": "Eve"}, content_type="application/json").status_code
        == 200
    )
    post(client, f"merges/{joined['merge']}/undo")
    one.refresh_from_db()
    assert (one.name, other.events.filter(kind="noted").count(), one.events.filter(kind="noted").count()) == (
        "Eve",
        0,
        1,
    )


def test_whoever_is_erased_is_found_nowhere_but_for_the_proof(
    two: tuple[Person, Person], otterwick: World, visitor: Visitor
) -> None:
    client, (one, other) = otterwick.console(), two
    visitor.post(
        "intake", sending(otterwick.touchpoint, 9, answers={"email": "eve@post.example", "name": "Ève"})
    )
    proofs = list(Consent.objects.filter(person=one).values_list("proof", flat=True))
    assert proofs
    post(client, f"people/{one.pk}/note", text="Lives at Heron Quay.")
    answer = FollowUp.objects.filter(person=one).first()
    assert answer is not None
    post(client, f"follow-ups/{answer.pk}/answer", text="We have suits.", key="k1")
    post(client, f"people/{one.pk}/join", gone_id=other.pk)
    said = client.get(f"/api/people/{one.pk}/goes").json()
    assert "follow-ups" in " ".join(said["goes"])
    assert otterwick.staff().delete(f"/api/people/{one.pk}").status_code == 403
    assert client.delete(f"/api/people/{one.pk}").status_code == 202
    assert client.get("/api/people").json()["count"] == 0
    erase_now(one.pk)
    erase_now(one.pk)
    left = dump()
    for typed in (
        "eve@post",
        "eva@post",
        "Lindqvist",
        "Eve L.",
        "960741",
        "Suits?",
        "boots",
        "Heron Quay",
        "We have suits",
    ):
        assert typed not in left, typed
    assert all(proof in left for proof in proofs)


@pytest.mark.parametrize("form", ["csv", "vcf", "jsonl"])
def test_people_go_out_in_three_formats(
    two: tuple[Person, Person], otterwick: World, other: World, form: str
) -> None:
    Person.objects.create(business_id=other.owner.business_id, name="Not ours", created_at=AT)
    one = two[0]
    Person.objects.filter(pk=one.pk).update(name="=HYPERLINK(1);\nÈve")
    answer = otterwick.console().get("/api/people-export", {"form": form})
    text = b"".join(answer).decode()
    assert "attachment" in answer["Content-Disposition"]
    assert "Not ours" not in text
    assert "eva@post.example" in text
    if form == "csv":
        rows = list(csv.reader(io.StringIO(text)))
        assert (len(rows), rows[1][1], rows[1][2]) == (3, "'=HYPERLINK(1);\nÈve", "eve@post.example")
    elif form == "vcf":
        [first, _] = vobject.readComponents(text)
        assert (first.fn.value, first.email.value, first.categories.value) == (
            "=HYPERLINK(1);\nÈve",
            "eve@post.example",
            ["school"],
        )
    else:
        assert json.loads(text.splitlines()[0])["emails"] == ["eve@post.example"]
    tagged = {"form": form, "wanted": json.dumps({"conditions": [{"what": "tagged", "tag": "spring"}]})}
    fewer = b"".join(otterwick.console().get("/api/people-export", tagged)).decode()
    assert ("eva@post.example" in fewer, "eve@post.example" in fewer) == (True, False)
    log = otterwick.console().get("/api/audit").json()["entries"][0]["words"]
    assert log == f"took people who are tagged “spring” out as {form}"


def test_people_are_listed_in_pages_and_groups(otterwick: World) -> None:
    client, business = otterwick.console(), otterwick.owner.business_id
    Person.objects.bulk_create(
        Person(business_id=business, name=f"Person {n}", created_at=AT - timedelta(minutes=n // 3))
        for n in range(120)
    )
    seen: list[int] = []
    after: str | None = ""
    while after is not None:
        page = client.get("/api/people", {"after": after}).json()
        seen += [one["id"] for one in page["people"]]
        after = page["after"]
    assert (page["count"], len(seen), len(set(seen))) == (120, 120, 120)
    assert [one["name"] for one in client.get("/api/people", {"q": "PERSON 117"}).json()["people"]] == [
        "Person 117"
    ]
    wanted = {"conditions": [{"what": "worded", "text": "person 11"}]}
    group = post(client, "groups", name="Elevens", wanted=wanted, for_all=True).json()
    assert group["sentence"] == "people who have “person 11” in their name or address"
    assert [one["name"] for one in otterwick.staff().get("/api/groups").json()] == ["Elevens"]
    assert client.get("/api/people", {"wanted": json.dumps(group["wanted"])}).json()["count"] == 11
    assert client.delete(f"/api/groups/{group['id']}").status_code == 204
    for odd in (
        "{",
        '{"conditions":[{"what":"x"}]}',
        "[" * 5000,
        '{"conditions":[{"what":"did","days":0}]}',
        "7",
    ):
        assert client.get("/api/people", {"wanted": odd}).status_code == 422, odd
    assert client.get("/api/people", {"after": "x|y"}).status_code == 422


def test_a_card_is_made_and_changed_by_hand(otterwick: World, other: World) -> None:
    client = otterwick.console()
    made = post(client, "people", name="Maris Quay", email="maris@post.example", phone="01632 960555")
    person = made.json()["id"]
    assert (made.status_code, made.json()["new"]) == (201, True)
    assert post(client, "people", name="", email="MARIS@post.example", phone="").json() == {
        "id": person,
        "new": False,
    }
    assert post(client, "people", name="", email="", phone="").json()["errors"][0]["field"] == "name"
    assert post(client, "people", name="", email="nobody", phone="").json()["errors"][0]["field"] == "email"
    card = post(client, f"people/{person}/addresses", text="m.quay@post.example").json()
    assert len(card["addresses"]) == 3
    taken = post(client, "people", name="Ash", email="ash@post.example", phone="").json()["id"]
    refused = post(client, f"people/{taken}/addresses", text="maris@post.example")
    assert "Maris Quay has this address" in refused.json()["errors"][0]["message"]
    card = client.delete(f"/api/people/{person}/addresses/{card['addresses'][0]['id']}").json()
    assert [one["data"]["text"] for one in card["timeline"] if one["kind"] == "changed"] == [
        "Added m.quay@post.example",
        "Removed maris@post.example",
    ]
    post(client, f"people/{person}/tag", tag="school")
    post(client, f"people/{taken}/tag", tag="schools")
    rename = {"tag": "schools", "name": "school"}
    assert client.put("/api/people-tags", rename, content_type="application/json").json() == {"people": 1}
    assert client.get("/api/people-tags").json() == [{"tag": "school", "people": 2}]
    assert client.delete("/api/people-tags?tag=school").json() == {"people": 2}
    for route in ("", "/goes", "/export", "/export?form=page"):
        assert client.get(f"/api/people/{person}{route}").status_code == 200
        assert other.console().get(f"/api/people/{person}{route}").status_code == 404


def test_a_card_of_another_business_is_never_joined(
    two: tuple[Person, Person], otterwick: World, other: World
) -> None:
    theirs = Person.objects.create(business_id=other.owner.business_id, name="Heron", created_at=AT)
    for kept, gone in ((two[0].pk, theirs.pk), (theirs.pk, two[0].pk)):
        for route in ("join", "join-preview"):
            assert post(otterwick.console(), f"people/{kept}/{route}", gone_id=gone).status_code == 404
    assert post(otterwick.console(), f"people/{two[0].pk}/not-one", other_id=theirs.pk).status_code == 404
    assert Person.objects.count() == 3
