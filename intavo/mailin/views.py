"""Where mail is handed in: a mail server's pipe or route posts each mail here as it came."""

import json

from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import csrf_exempt

from intavo import clock
from intavo.accounts.problem import problem
from intavo.apart import Busy
from intavo.core.mailin import TooBig
from intavo.core.mailin.model import MOST_BYTES

from .actions import NotHere, take_in

_MOST_SECRET = 60


@csrf_exempt
def hand_in(request: HttpRequest, secret: str) -> HttpResponse:
    """201 with what came of a mail, 200 with the same when it has come before;
    404 for a secret that is none.
    """
    if request.method != "POST":
        response = problem(405, "Use POST.")
        response["Allow"] = "POST"
        return response
    length = str(request.META.get("CONTENT_LENGTH") or "0")
    if not (length.isascii() and length.isdigit()) or int(length) > MOST_BYTES:
        return problem(413, "A mail has at most 25 MB.")
    raw = request.read(MOST_BYTES + 1)
    if not raw.strip():
        return problem(422, "There is no mail in it.", [("body", "There is no mail in it.")])
    try:
        taken = take_in(raw, clock.now(), secret=secret if len(secret) <= _MOST_SECRET else "")
    except TooBig as error:
        return problem(413, str(error))
    except Busy:
        response = problem(429, "Too many mails are being read just now; please hand it in again.")
        response["Retry-After"] = "30"
        return response
    except NotHere:
        return problem(422, "This is for no business here.", [("to", "Nobody here has this address.")])
    if taken is None:
        return problem(404, "There is no mailbox here.")
    said = json.dumps({"became": taken.became, "followup": taken.followup})
    response = HttpResponse(said, status=200 if taken.repeated else 201, content_type="application/json")
    response["Cache-Control"] = "no-store"
    return response
