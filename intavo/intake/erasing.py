"""What visitors sent, of somebody who is erased."""

from functools import reduce
from operator import or_

from django.db.models import CharField, Q
from django.db.models.functions import Cast

from intavo.mail.models import OutgoingMail
from intavo.people.effects import Erasing, person_erased

from .models import Booking, Quarantined, Submission


@person_erased.register
def _what_they_sent_goes_too(erasing: Erasing) -> None:
    """What is set aside with an address of theirs, and mails about what they sent and the calls they
    booked.
    """
    mails = OutgoingMail.objects.filter(business_id=erasing.business_id)
    for site, client in Submission.objects.filter(person_id=erasing.person_id).values_list(
        "site_id", "client_id"
    ):
        mails.filter(key__endswith=f"-{site}-{client}"[:100]).delete()
    for booking in Booking.objects.filter(followup__person_id=erasing.person_id).values_list("pk", flat=True):
        mails.filter(key__startswith=f"call-{booking}-").delete()
    if erasing.spellings:
        rows = Quarantined.objects.filter(business_id=erasing.business_id).annotate(
            sent=Cast("raw", CharField())
        )
        rows.filter(reduce(or_, [Q(sent__icontains=one) for one in erasing.spellings])).delete()
