"""Opening hours as a calendar that others follow, at a secret address."""

from django.http import HttpRequest, HttpResponse
from django.views.decorators.http import require_safe

from intavo import clock
from intavo.core.hours import write_calendar
from intavo.hours.queries import by_token

from .hosted import gone


@require_safe
def calendar(request: HttpRequest, token: str) -> HttpResponse:
    """The week and the odd days as iCalendar."""
    row = by_token(token)
    if row is None:
        return gone(request, None)
    today = clock.now().astimezone(row.value.zone).date()
    response = HttpResponse(
        write_calendar(row.value, row.name, today), content_type="text/calendar; charset=utf-8"
    )
    response["Cache-Control"] = "private, max-age=900"
    return response
