"""The console's API: the routers of all apps and one shape for errors (problem+json, RFC 9457)."""

from django.core.exceptions import ObjectDoesNotExist
from django.db import DataError
from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError

from intavo.accounts.actor import Changed, NotAllowed, Refused
from intavo.accounts.api import router as accounts
from intavo.accounts.problem import problem
from intavo.channels.api import router as channels
from intavo.copies.api import router as copies
from intavo.core.door import NotLetIn
from intavo.core.refusals import dotted, wrongs
from intavo.followup.api import router as followup
from intavo.followup.day_api import router as day
from intavo.followup.desk_api import router as desk
from intavo.followup.kept_api import router as kept
from intavo.followup.list_api import router as worklist
from intavo.followup.told_api import router as told
from intavo.hours.api import router as hours
from intavo.imports.api import router as imports
from intavo.intake.api import router as intake
from intavo.mail.api import router as mail
from intavo.mailin.api import router as mailin
from intavo.people.api import router as people
from intavo.people.seeking_api import router as seeking
from intavo.sites.api import router as sites
from intavo.talks.api import router as talks
from intavo.touchpoints.api import router as touchpoints
from intavo.visitor.api import router as visitor

from .door import BodyDoor

api = NinjaAPI(title="Intavo", version="1", urls_namespace="api", docs_url=None, parser=BodyDoor())
for one in (
    accounts, sites, hours, channels, touchpoints, people, seeking, imports, worklist, followup, kept, desk,
    day, told, talks, mailin, intake, visitor, copies, mail,
):  # fmt: skip
    api.add_router("", one)


@api.exception_handler(Refused)
def _refused(request: HttpRequest, error: Refused) -> HttpResponse:
    return problem(422, error.errors[0][1], error.errors)


@api.exception_handler(NotLetIn)
def _not_let_in(request: HttpRequest, error: NotLetIn) -> HttpResponse:
    return problem(422, error.errors[0][1], error.named())


@api.exception_handler(HttpError)
def _no_body(request: HttpRequest, error: HttpError) -> HttpResponse:
    cause = error.__cause__
    return (
        _not_let_in(request, cause) if isinstance(cause, NotLetIn) else problem(error.status_code, str(error))
    )


@api.exception_handler(ValidationError)
def _unreadable(request: HttpRequest, error: ValidationError) -> HttpResponse:
    return problem(
        422, "Something in the request is not right.", wrongs(error.errors, whole="body", place=_field)
    )


def _field(loc: tuple[str | int, ...]) -> str:
    """A field by its name: of a body after the parameter's own, of a query or path as it is."""
    parts = loc[2:] if loc[:1] == ("body",) else loc[1:]
    return dotted(parts)


@api.exception_handler(Changed)
def _changed(request: HttpRequest, error: Changed) -> HttpResponse:
    return problem(409, str(error))


@api.exception_handler(NotAllowed)
def _not_allowed(request: HttpRequest, error: NotAllowed) -> HttpResponse:
    return problem(403, str(error))


@api.exception_handler(ObjectDoesNotExist)
def _missing(request: HttpRequest, error: ObjectDoesNotExist) -> HttpResponse:
    return problem(404, "This is not here, or not any more.")


@api.exception_handler(DataError)
@api.exception_handler(UnicodeEncodeError)
def _cannot_be_kept(request: HttpRequest, error: Exception) -> HttpResponse:
    # A NUL, half of a character, or a number past all bounds: nothing that anybody types.
    return problem(
        422,
        "Something in the request cannot be kept.",
        [("body", "A character or number in it cannot be kept.")],
    )


@api.exception_handler(AuthenticationError)
def _signed_out(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
    return problem(401, "Please sign in.")
