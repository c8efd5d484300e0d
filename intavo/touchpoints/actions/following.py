"""Which touchpoints follow a set of hours, as a draft or live."""

from intavo.core.touchpoint import Document
from intavo.hours.effects import Followed, hours_followed

from ..models import Touchpoint


@hours_followed.register
def _touchpoints(followed: Followed) -> None:
    rows = Touchpoint.objects.filter(business_id=followed.hours.business_id, deleted_at=None)
    for row in rows.select_related("draft", "live"):
        revisions = [one for one in (row.draft, row.live) if one is not None]
        if any(_follows(Document.model_validate(one.document), followed.hours.pk) for one in revisions):
            followed.by.append(f"“{row.name}”")


def _follows(document: Document, hours_id: int) -> bool:
    return hours_id in {document.after.hours, *(one.during.hours for one in document.show.sentences)}
