"""Pages behind links of our mails: a button that POSTs, since mail scanners open links, as mail programs do
too.
"""

from collections.abc import Callable
from typing import Any

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.csrf import csrf_exempt

from intavo.accounts import telling
from intavo.accounts.sender import asked_of, confirm_sender
from intavo.followup.reminding import tell_no_more, told_by


def _page(
    template: str, looks: Callable[[str], Any], does: Callable[[str], Any]
) -> Callable[..., HttpResponse]:
    """A page that looks up what its token stands for, and does it once it is asked to;
    404 where it is over.
    """

    # The token in the address is the secret; there is no session to misuse.
    @csrf_exempt
    def page(request: HttpRequest, token: str) -> HttpResponse:
        done = request.method == "POST"
        found = (does if done else looks)(token)
        context = {"found": found, "over": found is None, "done": done}
        return render(request, template, context, status=404 if found is None else 200)

    return page


# Whether a business's mail may come from an address.
sender = _page("visitor/sender.html", asked_of, confirm_sender)
# No more mails of what is due, and of what came through touchpoints. Source: RFC 8058.
told = _page("visitor/told.html", told_by, tell_no_more)
told_of = _page("visitor/told-of.html", telling.told_by, telling.tell_no_more)
