"""The console's API on copies of the whole business."""

from datetime import datetime

from django.http import FileResponse, HttpResponseBase
from ninja import File, Router, Schema, Status, UploadedFile

from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.accounts.problem import problem
from intavo.accounts.queries import business_of
from intavo.accounts.quotas import quotas
from intavo.accounts.scope import own
from intavo.core.quotas import QuotaKind
from intavo.core.rights import Right

from . import actions
from .files import path_of
from .models import Copy
from .reading import is_empty

router = Router(tags=["copies"], auth=MemberAuth())


class CopyOut(Schema):
    id: int
    out: bool
    state: str
    size: int
    told: list[str]
    at: datetime


class CopiesOut(Schema):
    empty: bool
    copies: list[CopyOut]


@router.get("/copies", response=CopiesOut)
def copies(request: MemberRequest) -> CopiesOut:
    """The copies that there are, the last first; and whether the business is empty, so that one can be
    brought in.
    """
    request.auth.needs(Right.BUSINESS)
    rows = Copy.objects.filter(business_id=request.auth.business_id).order_by("-at", "-pk")[:20]
    return CopiesOut(empty=is_empty(request.auth.business_id), copies=[CopyOut.from_orm(one) for one in rows])


class RoomOut(Schema):
    kind: QuotaKind
    used: int
    most: int
    near: bool
    words: str


@router.get("/room", response=list[RoomOut])
def room(request: MemberRequest) -> list[RoomOut]:
    """How much of each kind the business has, and may have (0: any number); files in bytes, and all at most a
    minute old.
    """
    request.auth.needs(Right.BUSINESS)
    return [RoomOut.from_orm(one) for one in quotas(request.auth.business_id)]


@router.post("/copies", response={201: CopyOut})
def make(request: MemberRequest) -> Status[CopyOut]:
    """Have a copy made."""
    return Status(201, CopyOut.from_orm(actions.make_copy(request.auth)))


@router.post("/copies-in", response={201: CopyOut})
def bring(request: MemberRequest, file: File[UploadedFile]) -> Status[CopyOut]:
    """Have this empty business made anew from a copy."""
    return Status(201, CopyOut.from_orm(actions.bring_copy(request.auth, file=file)))


@router.get("/copies/{copy_id}/file", response={200: None})
def file_of(request: MemberRequest, copy_id: int) -> HttpResponseBase:
    """The copy itself."""
    request.auth.needs(Right.BUSINESS)
    row = own(request.auth, Copy, copy_id)
    if not row.out or row.state != Copy.READY:
        return problem(404, "This copy is not there.")
    try:
        file = path_of(row.business_id, row.key).open("rb")
    except OSError:
        return problem(404, "This copy is not there any more.")
    request.auth.noted("copy taken")
    name = f"{business_of(request.auth).name} {row.at:%Y-%m-%d}.zip"
    return FileResponse(file, as_attachment=True, filename=name, content_type="application/zip")


@router.delete("/copies/{copy_id}", response={204: None})
def drop(request: MemberRequest, copy_id: int) -> Status[None]:
    """Throw a copy away."""
    actions.drop_copy(request.auth, copy_id=copy_id)
    return Status(204, None)
