"""The one way in which an action finds a row by its id: among those of its actor's business,
or not at all.
"""

from typing import TypeVar

from django.db.models import Model, QuerySet

from .actor import Actor

Row = TypeVar("Row", bound=Model)


def held(rows: QuerySet[Row]) -> Row | None:
    """The first of some rows, held fast until the transaction ends, with what is read beside it; None where
    there is none.

    It is held first, and read after that: one statement that does both waits for the row and looks at it
    anew, but what it joins to it is still that of before the wait, and gone where the row leads elsewhere by
    now.
    """
    pk = rows.select_related(None).select_for_update(of=("self",)).values_list("pk", flat=True).first()
    return None if pk is None else rows.get(pk=pk)


def own(actor: Actor, rows: type[Row] | QuerySet[Row], pk: int, *, locked: bool = False) -> Row:
    """The row of the actor's business with this id, held fast until the transaction ends if `locked`.

    Of `rows`, a model or some of its rows. Raises DoesNotExist for what is not there, or not theirs.
    """
    found = rows if isinstance(rows, QuerySet) else rows._default_manager.all()
    found = found.filter(business_id=actor.business_id, pk=pk)
    row = held(found) if locked else None
    return found.get() if row is None else row
