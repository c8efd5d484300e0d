"""Reads on people."""

import re
from dataclasses import dataclass
from datetime import timedelta
from typing import Any

from django.db import connection
from django.db.models import Count, DateTimeField, ExpressionWrapper, F, Q, QuerySet, Value, Window

from intavo.accounts.actor import Actor
from intavo.accounts.quotas import counts
from intavo.core import people as rules
from intavo.core.quotas import QuotaKind
from intavo.lately import Lately

from .effects import Searching, words_sought
from .models import Address, NotOne, Person, TimelineEvent
from .seeking import sought as sought


@counts(QuotaKind.PEOPLE)
def people_of(business_id: int) -> int:
    """How many cards there are."""
    return Person.objects.filter(business_id=business_id).count()


_domains: Lately[int, dict[str, int]] = Lately(1000, seconds=30)


def usual_domains(business_id: int) -> dict[str, int]:
    """Domains that three or more people of the business use, with how many; at most 30 s old."""
    return _domains.get(business_id, lambda: _count_domains(business_id))


def _count_domains(business_id: int) -> dict[str, int]:
    counted = (
        Address.objects.filter(business_id=business_id, kind=Address.EMAIL)
        .values_list("domain")
        .annotate(people=Count("person", distinct=True))
        .filter(people__gte=rules.USUAL_FROM)
    )
    return dict(counted.values_list("domain", "people"))


def slip_offered(business_id: int, address: rules.Address) -> str | None:
    """The address with its domain mended, where the domain looks like a slip of a usual one."""
    mended = rules.likely_slip(address.domain, usual_domains(business_id))
    return None if mended is None else f"{address.shown.rpartition('@')[0]}@{mended}"


def first_page(rows: QuerySet[Person], most: int) -> tuple[list[int], int]:
    """The ids of the newest of some people, and how many there are of them: whoever is sought is looked for
    once.
    """
    # All are counted: an index in their order would promise the planner an early end that does not come.
    added = ExpressionWrapper(F("created_at") + Value(timedelta(0)), output_field=DateTimeField())
    newest = rows.annotate(all=Window(Count("*"))).order_by(added.desc(), "-pk")
    counted = list(newest.values_list("pk", "all")[:most])
    return [one for one, _ in counted], counted[0][1] if counted else 0


def timeline(actor: Actor, person_id: int) -> QuerySet[TimelineEvent]:
    """Everything that happened with a person, oldest first."""
    return (
        TimelineEvent.objects.filter(business_id=actor.business_id, person_id=person_id)
        .select_related("member__user")
        .order_by("at", "id")
    )


def same_phone(actor: Actor, person: Person) -> list[Person]:
    """People who share a phone with this one, less those of whom somebody said no: perhaps the same."""
    phones = [address.key for address in person.addresses.all() if address.kind == Address.PHONE]
    if not phones:
        return []
    sharing = Q(addresses__kind=Address.PHONE, addresses__key__in=phones)
    said_no = NotOne.objects.filter(Q(one=person) | Q(other=person)).values_list("one_id", "other_id")
    apart = {person.pk, *(each for pair in said_no for each in pair)}
    found = Person.objects.filter(sharing, business_id=actor.business_id, erasing=False).exclude(pk__in=apart)
    return list(found.distinct().order_by("pk")[:3])


MARK, UNMARK = "\ue000", "\ue001"
_MOST_HITS = 300


@dataclass(frozen=True, slots=True)
class Hit:
    """Somebody who was found: where the words stand, and the text around them, marked by MARK and UNMARK.

    What was said is empty until `with_words_around` has looked it up.
    """

    person: Person
    where: str
    text: str


# Those whose name, address or tag holds the text; and those who wrote the words, or were written them, the
# last first: of some of them with the words around it, which takes the database long.
_LIKE = """
SELECT person_id, 'name', name FROM (
    SELECT id AS person_id, name FROM people_person
    WHERE business_id = %(business)s AND intavo_plain(name) LIKE intavo_plain(%(like)s)
    LIMIT %(most)s) AS named
UNION ALL SELECT person_id, 'address', shown FROM (
    SELECT person_id, shown FROM people_address
    WHERE business_id = %(business)s
        AND (lower(key) LIKE %(key)s OR (%(digits)s <> '' AND lower(key) LIKE %(digits)s))
    LIMIT %(most)s) AS addressed
UNION ALL SELECT person_id, 'tag', tag FROM (
    SELECT person_id, tag FROM people_persontag
    WHERE business_id = %(business)s AND intavo_plain(tag) LIKE intavo_plain(%(like)s)
    LIMIT %(most)s) AS tagged
"""
_WORDS = """
SELECT DISTINCT ON (person_id) person_id, kind,
       CASE WHEN %(whom)s::bigint[] IS NULL THEN '' ELSE ts_headline(
           'intavo_words', intavo_said(kind, data), to_tsquery('intavo_words', %(query)s), %(how)s) END
FROM (SELECT id, person_id, kind, data FROM people_timelineevent
      WHERE business_id = %(business)s AND words @@ to_tsquery('intavo_words', %(query)s)
            AND (%(whom)s::bigint[] IS NULL OR person_id = ANY(%(whom)s::bigint[]))
      LIMIT %(most)s) AS said
ORDER BY person_id, id DESC
"""


def _escaped(text: str) -> str:
    return re.sub(r"([\\%_])", r"\\\1", text)


def search(actor: Actor, text: str, limit: int = 8) -> list[Hit]:
    """People whose name, address or tag holds the text, or with whom its words were exchanged, without
    accents.

    Who is called so comes first, then who was last written with.
    """
    wanted = _wanted(text)
    if not wanted:
        return []
    digits = re.sub(r"\D", "", wanted).lstrip("0") if re.fullmatch(r"[+0-9\s()./-]{5,}", wanted) else ""
    asked: dict[str, Any] = {
        "business": actor.business_id, "most": _MOST_HITS, "like": f"%{_escaped(wanted)}%",
        "key": f"%{_escaped(wanted.casefold())}%", "digits": f"%{digits}%" if digits else "",
    }  # fmt: skip
    with connection.cursor() as cursor:
        cursor.execute(_LIKE, asked)
        rows = cursor.fetchall() + _said(actor, _words(wanted))
    found: dict[int, tuple[str, str]] = {}
    for person, where, around in rows:
        found.setdefault(person, (where, around))
    shown = list(found)[:limit] if limit else list(found)
    people = Person.objects.filter(business_id=actor.business_id, erasing=False)
    known = people.prefetch_related("addresses").in_bulk(shown)
    return [Hit(known[one], *found[one]) for one in shown if one in known]


def marked(text: str, wanted: str) -> str:
    """A text with what was sought marked in it, where it stands there letter by letter."""
    at = text.casefold().find(wanted.casefold()) if len(text.casefold()) == len(text) else -1
    if at < 0:
        return text
    end = at + len(wanted)
    return f"{text[:at]}{MARK}{text[at:end]}{UNMARK}{text[end:]}"


def _wanted(text: str) -> str:
    return " ".join(text.split())[:200]


def _words(wanted: str) -> list[str]:
    return re.findall(r"[^\W_]+", wanted)[:12]


def _said(actor: Actor, words: list[str], whom: list[int] | None = None) -> list[tuple[int, str, str]]:
    """With whom words were exchanged, and where; of those that are named, with what stands around them."""
    if not words:
        return []
    asked: dict[str, Any] = {
        "business": actor.business_id, "most": _MOST_HITS, "whom": whom,
        "query": " & ".join(f"'{word}':*" for word in words),
        "how": f"StartSel={MARK}, StopSel={UNMARK}, MaxWords=16, MinWords=6, MaxFragments=1",
    }  # fmt: skip
    with connection.cursor() as cursor:
        cursor.execute(_WORDS, asked)
        rows: list[tuple[int, str, str]] = cursor.fetchall()
    elsewhere = Searching(asked)
    words_sought.tell(elsewhere)
    return rows + elsewhere.found


def with_words_around(actor: Actor, text: str, hits: list[Hit]) -> list[Hit]:
    """Those who were found by what was said, with the words around it."""
    bare = [hit.person.pk for hit in hits if not hit.text]
    if not bare:
        return hits
    said: dict[int, tuple[str, str]] = {}
    for person, where, around in _said(actor, _words(_wanted(text)), bare):
        said.setdefault(person, (where, around))
    return [hit if hit.text else Hit(hit.person, *said.get(hit.person.pk, (hit.where, ""))) for hit in hits]
