"""Takes back what an import added, where nothing was done with it since."""

from typing import Any

from django.db import transaction
from django.db.models import Exists, OuterRef

from intavo.people.models import Address, Consent, Person, PersonTag, TimelineEvent

from .files import forget
from .models import Import, ImportedRow
from .rows import AT_ONCE


def undo_now(import_id: int) -> None:
    """Take back what an import added, some hundred rows at a time; again it goes on where it was."""
    while True:
        with transaction.atomic():
            row = Import.objects.select_for_update().filter(pk=import_id, state=Import.UNDOING).first()
            if row is None:
                return
            rows = list(row.rows.filter(refused="").order_by("-number")[:AT_ONCE])
            if not rows:
                row.state = Import.UNDONE
                row.save(update_fields=["state"])
                # Of one that stopped it is still here.
                forget(row)
                return
            row.left += _take_back(row.business_id, rows)
            row.save(update_fields=["left"])


def _take_back(business_id: int, rows: list[ImportedRow]) -> int:
    """Undo some rows; says how many people stay since something was done with them.

    What was added is written down by its id, and may have come with a copy: it is looked for in the business.
    """
    joined = [one for one in rows if not one.new]
    addresses = [pk for one in joined for pk in one.added.get("addresses", [])]
    tags = [pk for one in joined for pk in one.added.get("tags", [])]
    Address.objects.filter(business_id=business_id, pk__in=addresses).delete()
    PersonTag.objects.filter(business_id=business_id, pk__in=tags).delete()
    mine, consents = _ids(rows, "event"), _ids(rows, "consent")
    TimelineEvent.objects.filter(business_id=business_id, pk__in=mine).delete()
    Consent.objects.filter(business_id=business_id, pk__in=consents).delete()
    for one in joined:
        if one.added.get("name") and one.person_id is not None:
            Person.objects.filter(pk=one.person_id, name=one.added["name"]).update(name="")
    new = [one.person_id for one in rows if one.new and one.person_id is not None]
    ImportedRow.objects.filter(pk__in=[one.pk for one in rows]).delete()
    people = Person.objects.filter(business_id=business_id, pk__in=new)
    for relation in Person._meta.related_objects:
        model: Any = relation.related_model
        theirs = model._default_manager.filter(**{relation.field.name: OuterRef("pk")})
        name = {Address: "addresses", PersonTag: "tags"}.get(model)
        if name is not None:
            theirs = theirs.exclude(pk__in=[pk for one in rows if one.new for pk in one.added.get(name, [])])
        people = people.exclude(Exists(theirs))
    untouched = list(people.values_list("pk", flat=True))
    Person.objects.filter(pk__in=untouched).delete()
    return len(set(new)) - len(untouched)


def _ids(rows: list[ImportedRow], name: str) -> list[int]:
    """What was added of a kind; rows of before write one under its name, those of now several."""
    several = [pk for one in rows for pk in one.added.get(f"{name}s", [])]
    return several + [one.added[name] for one in rows if name in one.added]
