"""Conversations of somebody who is erased."""

from intavo.people.effects import Erasing, person_erased

from .models import Talk


@person_erased.register
def _talks_go_too(erasing: Erasing) -> None:
    """Their talks with every word and file, also what was written under their address before it was
    theirs.
    """
    Talk.objects.filter(business_id=erasing.business_id, person_id=erasing.person_id).delete()
