"""Links from outside: a short one that opens a touchpoint on a page of the site, and the same as a QR code."""

import io

import segno
from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseRedirect
from django.views.decorators.http import require_safe

from intavo.core.touchpoint.rules import Show
from intavo.sites.models import Site
from intavo.sites.queries import home_of
from intavo.touchpoints.live import LiveTouchpoint, live_site

from .hosted import gone

FORMS = {"svg": "image/svg+xml", "png": "image/png"}


def _found(site: str, slug: str) -> tuple[Site | None, LiveTouchpoint | None]:
    row = Site.objects.filter(slug=site).first()
    live = live_site(row.key) if row is not None else None
    return row, next((each for each in live.touchpoints if each.slug == slug), None) if live is not None else None


def landing_path(show: Show) -> str:
    """The page that a short link opens: the first that is named by itself or with all below it, else the front."""
    named = (one.path for s in show.sentences for one in s.pages if one.kind in {"exact", "below"} and not one.query)
    return next(named, "/")


@require_safe
def short(request: HttpRequest, site: str, slug: str) -> HttpResponse:
    """Go to the page of the site where it opens; before the site was ever seen, to its own page."""
    row, one = _found(site, slug)
    if row is None or one is None:
        return gone(request, row)
    if not row.seen_url:
        return HttpResponseRedirect(f"/t/{site}/{slug}")
    return HttpResponseRedirect(f"{home_of(row)}{landing_path(one.compiled.show)}#intavo={slug}")


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
    code = segno.make(f"{settings.BASE_URL}/l/{site}/{slug}", error="m")
    out = io.BytesIO()
    code.save(out, kind=form, scale=8, border=4)
    response = HttpResponse(out.getvalue(), content_type=FORMS[form])
    response["Content-Disposition"] = f'inline; filename="{slug}.{form}"'
    return response
