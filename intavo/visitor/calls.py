"""The page behind the links of a call's mail: to move it or to cancel it, by a button that POSTs."""

from itertools import groupby

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.csrf import csrf_exempt

from intavo import clock
from intavo.accounts.actor import Refused
from intavo.core.say import day_and_time, short_date, stamp
from intavo.core.tongues import Phrase, in_tongue
from intavo.intake.actions.calls import booking_of, cancel_call, move_call, slots_for
from intavo.intake.models import Booking
from intavo.touchpoints.live import live_site
from intavo.touchpoints.revisions import document_of

from .asked import tongue_asked

_MOST = 200


# The token in the address is the secret; there is no session to misuse.
@csrf_exempt
def page(request: HttpRequest, token: str) -> HttpResponse:
    """When the call is, and what can be done about it."""
    row, at, error, done = booking_of(token), clock.now(), "", Phrase("")
    if row is None:
        return render(
            request, "visitor/call.html", {"over": True, "tongue": tongue_asked(request)}, status=404
        )
    if request.method == "POST":
        try:
            if request.POST.get("do") == "cancel":
                row, done = cancel_call(token, at), Phrase("It is cancelled. Nobody calls.")
            else:
                row, done = move_call(token, request.POST.get("time", ""), at), Phrase("It is moved.")
        except Refused as problem:
            error = problem.errors[0][1]
            row = booking_of(token) or row
    return render(request, "visitor/call.html", _context(row, error, done), status=422 if error else 200)


def _context(row: Booking, error: str, done: str) -> dict[str, object]:
    at, site = clock.now(), live_site(row.site.key)
    open_ = row.cancelled_at is None and row.start > at
    try:
        slots = slots_for(row, at)[:_MOST] if open_ and site is not None else []
    except Refused:
        slots = []
    zone = site.hours.zone if site is not None else None
    tongue = row.site.tongue(document_of(row.revision_id).language)
    return {
        "business": row.business.name, "error": in_tongue(error, tongue), "done": in_tongue(done, tongue),
        "open": open_, "tongue": tongue,
        "cancelled": row.cancelled_at is not None,
        "when": stamp(row.start, zone, tongue) if zone else row.start.isoformat(),
        "slots": [
            (
                short_date(day, tongue),
                [(one.start.isoformat(), day_and_time(one.start, tongue)) for one in times],
            )
            for day, times in groupby(slots, lambda one: one.start.date())
        ],
    }  # fmt: skip
