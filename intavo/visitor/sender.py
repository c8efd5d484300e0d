"""The page behind the mail that asks whether a business's mail may come from an address: a button that POSTs."""

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.csrf import csrf_exempt

from intavo.accounts.sender import asked_of, confirm_sender


# The token in the address is the secret; there is no session to misuse.
@csrf_exempt
def page(request: HttpRequest, token: str) -> HttpResponse:
    """The button, or what came of pressing it."""
    business = confirm_sender(token) if request.method == "POST" else asked_of(token)
    context = {"business": business, "over": business is None, "done": request.method == "POST"}
    return render(request, "visitor/sender.html", context, status=404 if business is None else 200)
