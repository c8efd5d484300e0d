"""Erasing somebody: everything that is theirs, in every app, but a proof of what they agreed to that names
nobody.
"""

from collections import Counter
from dataclasses import dataclass

from django.db import transaction
from procrastinate.contrib.django import app

from intavo import clock
from intavo.accounts.actor import Actor
from intavo.accounts.scope import own
from intavo.core.rights import Right

from .effects import Erasing, person_erased
from .merging import card_of
from .models import Consent, ErasedProof, Person

_WORDS = {
    "people.TimelineEvent": ("entry of the timeline", "entries of the timeline"),
    "people.Consent": ("consent, of which a proof stays", "consents, of which a proof stays"),
    "followup.FollowUp": ("follow-up", "follow-ups"),
    "intake.Submission": ("thing they sent", "things they sent"),
    "talks.Talk": ("conversation", "conversations"),
    "mailin.IncomingMail": ("mail from them", "mails from them"),
}  # fmt: skip
_ELSE = ("thing that belongs to these", "things that belong to these")


@dataclass(frozen=True, slots=True)
class Goes:
    """What is erased with somebody, in words and numbers, and what stays."""

    goes: list[str]
    stays: str


def what_goes(actor: Actor, *, person_id: int) -> Goes:
    """What an erasing takes, before it is done."""
    actor.needs(Right.FOLLOW_UP)
    card = card_of(own(actor, Person, person_id))
    counted = Counter(label for label, _ in card.rows)
    found = [_number(count, *_WORDS[label]) for label, count in sorted(counted.items()) if label in _WORDS]
    found += [_number(len(card.addresses), "address", "addresses")] if card.addresses else []
    found += [_number(len(card.tags), "tag", "tags")] if card.tags else []
    other = sum(count for label, count in counted.items() if label not in _WORDS)
    found += [_number(other, *_ELSE)] if other else []
    agreed = counted["people.Consent"]
    proofs = _number(agreed, "proof", "proofs")
    stays = f"{proofs} that somebody agreed, and when, which names nobody." if agreed else "nothing."
    return Goes([*found, "their mails in the queue, and every mail that was sent to them"], stays)


def _number(count: int, single: str, many: str) -> str:
    return f"{count} {single if count == 1 else many}"


def erase(actor: Actor, *, person_id: int) -> None:
    """Have somebody erased by a job; from now on their card is on no list."""
    actor.needs(Right.BUSINESS)
    with transaction.atomic():
        person = own(actor, Person, person_id, locked=True)
        Person.objects.filter(pk=person.pk).update(erasing=True)
        actor.noted("somebody erased")
        app.configure_task("erase_person").defer(person_id=person.pk)


def erase_now(person_id: int) -> None:
    """Erase somebody; again it changes nothing."""
    with transaction.atomic():
        person = Person.objects.select_for_update().filter(pk=person_id).first()
        if person is None:
            return
        for one in Consent.objects.filter(person=person):
            ErasedProof.objects.create(
                business_id=one.business_id,
                proof=one.proof,
                given_at=one.given_at,
                withdrawn_at=one.withdrawn_at,
                erased_at=clock.now(),
            )
        addresses = person.addresses.values_list("shown", "key")
        spellings = {text for pair in addresses for text in pair if len(text) > 4}
        person_erased.tell(Erasing(person.business_id, person.pk, tuple(sorted(spellings))))
        person.delete()


def erase_the_rest() -> None:
    """Erase everybody who is still to be erased: that is owed to them, however often it failed. Raises what
    went wrong once all were tried.
    """
    wrong: list[Exception] = []
    for person_id in Person.objects.filter(erasing=True).order_by("pk").values_list("pk", flat=True):
        try:
            erase_now(person_id)
        except Exception as error:  # One who cannot be erased keeps nobody else here
            wrong.append(error)
    if wrong:
        raise wrong[0]
