"""The console's API on files that go with an answer by mail."""

from django.http import HttpResponse
from django.utils.http import content_disposition_header
from ninja import File, Router, Schema, Status, UploadedFile

from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.accounts.problem import problem
from intavo.accounts.scope import own

from .enclosing import enclose, leave_out, path_of
from .models import Enclosure

router = Router(tags=["mail"], auth=MemberAuth())


class EnclosureOut(Schema):
    id: int
    name: str
    size: int


@router.post("/enclosures", response={201: EnclosureOut})
def add(request: MemberRequest, file: File[UploadedFile]) -> Status[EnclosureOut]:
    """Choose a file that is to go with an answer."""
    return Status(201, EnclosureOut.from_orm(enclose(request.auth, file=file)))


@router.delete("/enclosures/{enclosure_id}", response={204: None})
def drop(request: MemberRequest, enclosure_id: int) -> Status[None]:
    """Let it not go after all."""
    leave_out(request.auth, file_id=enclosure_id)
    return Status(204, None)


@router.get("/enclosures/{enclosure_id}")
def given(request: MemberRequest, enclosure_id: int) -> HttpResponse:
    """A file that went with an answer, to be saved."""
    row = own(request.auth, Enclosure, enclosure_id)
    try:
        data = path_of(row).read_bytes()
    except OSError:
        return problem(404, "There is no such file any more.")
    response = HttpResponse(data, content_type="application/octet-stream")
    response["Content-Disposition"] = content_disposition_header(True, row.name) or "attachment"
    response["X-Content-Type-Options"] = "nosniff"
    response["Cache-Control"] = "private, no-store"
    return response
