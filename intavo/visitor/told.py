"""The page behind the link that ends the mails a member is told by: a button that POSTs, as a mail program does."""

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.csrf import csrf_exempt

from intavo.followup.reminding import tell_no_more, told_by


# The token in the address is the secret; there is no session to misuse. Source: RFC 8058.
@csrf_exempt
def page(request: HttpRequest, token: str) -> HttpResponse:
    """The button, or what came of pressing it."""
    member = tell_no_more(token) if request.method == "POST" else told_by(token)
    context = {"business": member and member.business, "over": member is None, "done": request.method == "POST"}
    return render(request, "visitor/told.html", context, status=404 if member is None else 200)
