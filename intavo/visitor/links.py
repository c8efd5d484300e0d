"""Links from outside: a short one that opens a touchpoint on a page of the site,
and the same as a QR code.
"""

import io
import re
from datetime import datetime
from urllib.parse import quote
from zoneinfo import ZoneInfo

import segno
from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseRedirect
from django.shortcuts import render
from django.views.decorators.http import require_safe

from intavo import clock
from intavo.accounts.actor import visitor_of
from intavo.channels.actions import count_click
from intavo.channels.models import Channel
from intavo.channels.queries import by_public_id
from intavo.core.links import Way, given, meet
from intavo.core.replies import Promise, Situation
from intavo.core.texts import keepable
from intavo.core.touchpoint.rules import Show
from intavo.hours.queries import all_sets, presences, replies
from intavo.sites.models import Site
from intavo.sites.queries import home_of
from intavo.touchpoints.live import live_site
from intavo.touchpoints.onsite import LiveTouchpoint

from .hosted import gone

FORMS = {"svg": "image/svg+xml", "png": "image/png"}


def _found(site: str, slug: str) -> tuple[Site | None, LiveTouchpoint | None]:
    row = Site.objects.filter(slug=site).first()
    live = live_site(row.key) if row is not None else None
    return row, next(
        (each for each in live.touchpoints if each.slug == slug), None
    ) if live is not None else None


def landing_path(show: Show) -> str:
    """The page that a short link opens: the first that is named by itself or with all below it, else the
    front.
    """
    named = (
        one.path
        for s in show.sentences
        for one in s.pages
        if one.kind in {"exact", "below"} and not one.query
    )
    return next(named, "/")


@require_safe
def short(request: HttpRequest, site: str, slug: str) -> HttpResponse:
    """Go to the page of the site where it opens; before the site was ever seen, to its own page."""
    row, one = _found(site, slug)
    if row is None or one is None:
        return gone(request, row)
    if row.seen_at is None:
        return HttpResponseRedirect(f"/t/{site}/{slug}")
    return HttpResponseRedirect(f"{home_of(row)}{landing_path(one.compiled.show)}#intavo-{slug}")


@require_safe
def nowhere(request: HttpRequest) -> HttpResponse:
    """The friendly page for an address that was cut off or written differently."""
    return gone(request, None)


@require_safe
def qr_code(request: HttpRequest, site: str, slug: str, form: str) -> HttpResponse:
    """The short link as a QR code, black on white with its quiet zone. Source: ISO/IEC 18004, by segno."""
    if form not in FORMS:
        raise Http404
    if _found(site, slug)[1] is None:
        raise Http404
    return _code(f"{settings.BASE_URL}/l/{site}/{slug}", slug, form)


def _code(address: str, name: str, form: str) -> HttpResponse:
    out = io.BytesIO()
    segno.make(address, error="m").save(out, kind=form, scale=8, border=4)
    response = HttpResponse(out.getvalue(), content_type=FORMS[form])
    response["Content-Disposition"] = f'inline; filename="{name}.{form}"'
    return response


@require_safe
def channel(request: HttpRequest, channel: str) -> HttpResponse:
    """A channel's short link: on to where it leads, or a page that says what is said and who is there.

    The click is counted by where the link was printed (`?at=van`).
    """
    row = by_public_id(channel)
    if row is None:
        return gone(request, None)
    at, business = clock.now(), row.business
    if request.method == "GET":
        place = request.GET.get("at", "")
        day = at.astimezone(ZoneInfo(business.timezone)).date()
        count_click(
            visitor_of(business.pk), channel_id=row.pk, place=place if keepable(place) else "", day=day
        )
    device = (
        "phone"
        if request.headers.get("Sec-CH-UA-Mobile") == "?1"
        or _PHONE.search(request.headers.get("User-Agent", ""))
        else "desktop"
    )
    way = _met(row, at, device)
    if (
        way["href"].startswith(("http:", "https:"))
        and way["situation"] == Situation.OPEN.value
        and not way["people"]
    ):
        return HttpResponseRedirect(way["href"])
    return render(
        request, "visitor/channel.html", {"business": business, "way": way, "tongue": business.tongue()}
    )


_PHONE = re.compile(r"\bMobi")


def _met(row: Channel, at: datetime, device: str) -> Way:
    business, value = row.business, row.value
    met = meet(
        value,
        row.public_id,
        all_sets(business.pk),
        at,
        presences(business.pk),
        table=replies(business.pk),
        promise=Promise.of_minutes(business.promise_minutes),
        language=business.language,
        business_language=business.language,
        region=business.region,
    )
    return given(value, met, device, business.region, {}, {})


@require_safe
def channel_code(request: HttpRequest, channel: str, form: str) -> HttpResponse:
    """A channel's short link as a QR code."""
    if form not in FORMS or by_public_id(channel) is None:
        raise Http404
    place = request.GET.get("at", "")[:60]
    address = f"{settings.BASE_URL}/l/{channel}" + (
        f"?at={quote(place)}" if place and keepable(place) else ""
    )
    return _code(address, channel, form)
