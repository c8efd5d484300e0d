"""The page behind the link of a confirming mail: a button that POSTs, since mail scanners open links."""

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.csrf import csrf_exempt

from intavo.core.tongues import Tongue, say
from intavo.core.touchpoint import Document, Headline, Text, resolved
from intavo.core.touchpoint.after import YES_ME
from intavo.intake.actions import confirm, pending_of
from intavo.intake.actions.giving import Given
from intavo.intake.actions.sent import Incoming
from intavo.sites.models import Site
from intavo.touchpoints.queries import house_of
from intavo.touchpoints.revisions import document_of

from .asked import tongue_asked


def confirm_button(document: Document, tongue: Tongue) -> str:
    """What the button says; words that the owner left as they ship are said in the tongue."""
    button = document.after.confirm.button
    return say(YES_ME, tongue) if button == YES_ME else button


# The token in the address is the secret; there is no session to misuse.
@csrf_exempt
def page(request: HttpRequest, token: str) -> HttpResponse:
    """The button, or what came of pressing it."""
    if request.method == "POST":
        done = confirm(token)
        return _over(request) if done is None else _done(request, *done)
    pending = pending_of(token)
    if pending is None:
        return _over(request)
    document = document_of(pending.submission.revision_id)
    look = resolved(document.look, document.stance, house_of(pending.submission.site))
    tongue = pending.submission.site.tongue(document.language)
    context = {
        "business": pending.submission.site.business, "look": look,
        "button": confirm_button(document, tongue),
        "wordings": [consent.text for consent in document.consents()], "tongue": tongue,
    }  # fmt: skip
    return render(request, "visitor/confirm.html", context)


def _done(request: HttpRequest, incoming: Incoming, given: Given) -> HttpResponse:
    document = incoming.document
    look = resolved(document.look, document.stance, house_of(Site.objects.get(pk=incoming.site.id)))
    shown = given.code if document.after.code.show else None
    said = incoming.said if incoming.said and incoming.said.told else None
    step = document.step(document.after.confirm.next or "")
    said_there = [part for part in (step.parts if step else ()) if not part.hidden]
    context = {
        "business": incoming.site.business,
        "look": look,
        "title": next((part.text for part in said_there if isinstance(part, Headline)), ""),
        "texts": [part.html for part in said_there if isinstance(part, Text)],
        "done": True,
        "code": shown,
        "file": given.file,
        "says": said,
        "tongue": incoming.site.tongue(document.language),
    }
    return render(request, "visitor/confirm.html", context)


def _over(request: HttpRequest) -> HttpResponse:
    return render(
        request, "visitor/confirm.html", {"over": True, "tongue": tongue_asked(request)}, status=404
    )
