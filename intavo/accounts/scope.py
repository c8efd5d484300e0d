"""The one way in which an action finds a row by its id: among those of its actor's business,
or not at all.
"""

from typing import TypeVar

from django.db.models import Model, QuerySet

from .actor import Actor

Row = TypeVar("Row", bound=Model)


def own(actor: Actor, rows: type[Row] | QuerySet[Row], pk: int, *, locked: bool = False) -> Row:
    """The row of the actor's business with this id, held fast until the transaction ends if `locked`.

    Of `rows`, a model or some of its rows. Raises DoesNotExist for what is not there, or not theirs.
    """
    found = rows if isinstance(rows, QuerySet) else rows._default_manager.all()
    found = found.select_for_update(of=("self",)) if locked else found
    return found.filter(business_id=actor.business_id).get(pk=pk)
