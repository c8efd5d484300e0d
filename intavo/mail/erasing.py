"""Mail of and about somebody who is erased."""

from functools import reduce
from operator import or_

from django.db.models import Q

from intavo.people.effects import Erasing, person_erased

from .models import OutgoingMail, Suppression


@person_erased.register
def _mails_go_too(erasing: Erasing) -> None:
    """Every mail to them, and every one that has gone out with an address of theirs in it."""
    if not erasing.spellings:
        return
    rows = OutgoingMail.objects.filter(business_id=erasing.business_id)
    rows.filter(to_key__in=erasing.spellings).delete()
    holds = [
        Q(subject__icontains=one) | Q(text__icontains=one) | Q(attachment__icontains=one)
        for one in erasing.spellings
    ]
    rows.filter(reduce(or_, holds)).exclude(state=OutgoingMail.WAITING).delete()
    Suppression.objects.filter(business_id=erasing.business_id, address_key__in=erasing.spellings).delete()
