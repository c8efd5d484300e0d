"""Due times that move when hours change: the open time that is left stays the same."""

from intavo.core import followup as rules
from intavo.core.hours import add_open_time, any_of, open_time
from intavo.core.touchpoint import Document
from intavo.hours.effects import Moved, Moving, due_times_moved

from .models import FollowUp
from .queries import called_by_all


@due_times_moved.register
def _move(moving: Moving) -> None:
    """Those that lie ahead and hang on the hours; a call stays at its time, and what is late stays late."""
    rows = FollowUp.objects.filter(business_id=moving.business_id, due__gt=moving.at)
    rows = rows.exclude(state=rules.State.FINISHED.value).exclude(kind=rules.Kind.CALL_BACK.value)
    if moving.apply:
        # Held before they are read, in the order in which others hold several.
        ids = rows.select_for_update().order_by("pk").values_list("pk", flat=True)
        rows = FollowUp.objects.filter(pk__in=list(ids))
    rows = (
        rows.select_related("person", "touchpoint__live")
        .prefetch_related("person__addresses")
        .order_by("due", "pk")
    )
    sets: dict[int | None, tuple[dict, dict]] = {}  # type: ignore[type-arg]
    for row in rows:
        if row.site_id not in sets:
            sets[row.site_id] = (dict(moving.before(row.site_id)), dict(moving.after(row.site_id)))
        live = row.touchpoint.live if row.touchpoint else None
        follows = Document.model_validate(live.document).after.follows if live else ()
        before, after = (any_of(one, follows) for one in sets[row.site_id])
        if before == after or row.due is None:
            continue
        now = add_open_time(after, moving.at, open_time(before, moving.at, row.due))
        if now is None or now == row.due:
            continue
        moving.found.append(Moved(row.pk, called_by_all(row.person), row.due, now))
        if moving.apply:
            row.due = now
            row.save(update_fields=["due"])
