"""Rows of files, of somebody who is erased."""

from functools import reduce
from operator import or_

from django.db.models import CharField, Q
from django.db.models.functions import Cast

from intavo.people.effects import Erasing, person_erased

from .models import ImportedRow


@person_erased.register
def _rows_go_too(erasing: Erasing) -> None:
    """Rows that were refused and hold an address of theirs; those that became them go with their card."""
    if erasing.spellings:
        rows = ImportedRow.objects.filter(business_id=erasing.business_id).annotate(
            said=Cast("cells", CharField())
        )
        rows.filter(reduce(or_, [Q(said__icontains=one) for one in erasing.spellings])).delete()
