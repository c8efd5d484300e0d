"""The console's API on bringing people in."""

from datetime import date, datetime

from django.http import StreamingHttpResponse
from ninja import File, Router, Schema, Status, UploadedFile

from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.accounts.scope import own
from intavo.core.importing import Column
from intavo.core.rights import Right

from . import actions
from .models import Import
from .rows import first_lines
from .trial import try_out

router = Router(tags=["imports"], auth=MemberAuth())


class ImportOut(Schema):
    id: int
    name: str
    form: str
    size: int
    state: str
    encoding: str
    delimiter: str
    header: bool
    titles: list[str]
    columns: list[Column]
    tags: list[str]
    consent_source: str
    consent_date: date | None
    position: int
    new: int
    joined: int
    refused: int
    left: int
    added_at: datetime


class ReadOut(ImportOut):
    first: list[list[str]]


class SettingsIn(Schema):
    columns: list[Column] = []
    header: bool = True
    delimiter: str = ","
    encoding: str = "utf-8"
    tags: list[str] = []
    consent_source: str = ""
    consent_date: date | None = None


class TriedOut(Schema):
    number: int
    what: str
    words: str


class RefusedBecauseOut(Schema):
    why: str
    rows: int


class TrialOut(Schema):
    rows: int
    new: int
    joining: int
    refused: int
    agreed: int
    whole: bool
    reasons: list[RefusedBecauseOut]
    lines: list[TriedOut]


def _read(row: Import) -> ReadOut:
    about = ImportOut.from_orm(row).dict()
    return ReadOut(first=first_lines(row) if row.state == Import.READ else [], **about)


@router.get("/imports", response=list[ImportOut])
def imports(request: MemberRequest) -> list[ImportOut]:
    """What was brought in, the last first."""
    request.auth.needs(Right.EVERYBODY)
    rows = Import.objects.filter(business_id=request.auth.business_id).order_by("-added_at", "-pk")[:50]
    return [ImportOut.from_orm(one) for one in rows]


@router.post("/imports", response={201: ReadOut})
def read_file(request: MemberRequest, file: File[UploadedFile]) -> Status[ReadOut]:
    """Look at a file of people; nothing of it is on the list yet."""
    return Status(201, _read(actions.read_file(request.auth, file=file)))


@router.get("/imports/{import_id}", response=ReadOut)
def one(request: MemberRequest, import_id: int) -> ReadOut:
    """A file, with its first rows, and how far it is in."""
    request.auth.needs(Right.EVERYBODY)
    return _read(own(request.auth, Import, import_id))


@router.put("/imports/{import_id}", response=ReadOut)
def set_up(request: MemberRequest, import_id: int, body: SettingsIn) -> ReadOut:
    """Say how it is to be read, and what is stated of everybody in it."""
    settings = actions.Settings(
        tuple(body.columns[:500]),
        body.header,
        body.delimiter,
        body.encoding,
        tuple(body.tags[:20]),
        body.consent_source,
        body.consent_date,
    )
    return _read(actions.set_up(request.auth, import_id=import_id, settings=settings))


@router.get("/imports/{import_id}/trial", response=TrialOut)
def trial(request: MemberRequest, import_id: int) -> TrialOut:
    """What taking it would do."""
    request.auth.needs(Right.EVERYBODY)
    found = try_out(request.auth, import_id=import_id)
    return TrialOut(
        rows=found.rows,
        new=found.new,
        joining=found.joining,
        refused=found.refused,
        agreed=found.agreed,
        whole=found.whole,
        reasons=[RefusedBecauseOut(why=why, rows=rows) for why, rows in found.reasons.most_common(20)],
        lines=[TriedOut(number=number, what=what, words=words) for number, what, words in found.lines],
    )


@router.post("/imports/{import_id}/take", response={202: ImportOut})
def take(request: MemberRequest, import_id: int) -> Status[ImportOut]:
    """Have it taken in."""
    return Status(202, ImportOut.from_orm(actions.take(request.auth, import_id=import_id)))


@router.post("/imports/{import_id}/undo", response={202: ImportOut})
def undo(request: MemberRequest, import_id: int) -> Status[ImportOut]:
    """Have it undone."""
    return Status(202, ImportOut.from_orm(actions.undo(request.auth, import_id=import_id)))


@router.delete("/imports/{import_id}", response={204: None})
def drop(request: MemberRequest, import_id: int) -> Status[None]:
    """Forget a file that was not taken."""
    actions.drop(request.auth, import_id=import_id)
    return Status(204, None)


@router.get("/imports/{import_id}/refused")
def refused(request: MemberRequest, import_id: int) -> StreamingHttpResponse:
    """The rows that were refused, with the reason."""
    request.auth.needs(Right.EVERYBODY)
    own(request.auth, Import, import_id)
    rows = actions.refused_csv(request.auth, import_id=import_id)
    response = StreamingHttpResponse(rows, content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = 'attachment; filename="refused.csv"'
    return response
