"""Writes on how touchpoints stand on their pages."""

from intavo.accounts.actor import Actor
from intavo.core.rights import Right

from ..models import LyingOver, Touchpoint

_MOST_PAGES = 20


def note_lying_over(actor: Actor, *, public_id: str, revision: int, page: str) -> None:
    """A bar could not move a page (a path) aside; of more than twenty pages nobody reads."""
    actor.needs(Right.VISIT)
    row = Touchpoint.objects.filter(business_id=actor.business_id, public_id=public_id).first()
    if row is None:
        return
    known = LyingOver.objects.filter(touchpoint=row)
    known.filter(revision__lt=revision).delete()
    if known.filter(page=page).exists() or known.count() >= _MOST_PAGES:
        return
    LyingOver.objects.bulk_create(
        [LyingOver(business_id=actor.business_id, touchpoint=row, revision=revision, page=page)],
        ignore_conflicts=True,
    )
