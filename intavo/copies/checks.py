"""What the columns of a copy may hold, where a column's own type does not say it:
a copy comes from anywhere.
"""

from collections.abc import Callable
from typing import Annotated, Any, Literal

from django.db.models import Model
from pydantic import BaseModel, ConfigDict, Field, TypeAdapter

from intavo.accounts.models import AuditEntry
from intavo.channels.models import Channel
from intavo.core.giving import GiveRule
from intavo.core.hours import OpeningHours
from intavo.core.links import Channel as ChannelDocument
from intavo.core.people import Filter
from intavo.core.replies import Reply, Runs
from intavo.core.showing import SiteRules
from intavo.core.touchpoint import Document, HouseStyle
from intavo.core.worklist import ListFilter
from intavo.followup.models import GiveRules, KeptAnswer, KeptFilter
from intavo.hours.models import HoursSet, ReplyCell
from intavo.intake.body import Sent
from intavo.intake.models import Quarantined, Submission
from intavo.mail.models import Enclosure, OutgoingMail
from intavo.mailin.models import IncomingFile
from intavo.people.models import Group, TimelineEvent
from intavo.sites.models import Site, SitePage, Stranger
from intavo.talks.models import Message, Talk
from intavo.touchpoints.models import Asset, RehearsalVisitor, Touchpoint, TouchpointRevision

# The name of a file or folder: nothing that leads elsewhere.
_Key = Annotated[str, Field(pattern=r"^[A-Za-z0-9_-]{1,64}$")]
_Media = Annotated[str, Field(pattern=r"^[a-z]+/[a-z0-9][a-z0-9.+-]{0,60}$")]
_Size = Annotated[int, Field(ge=0, le=2**40)]
_GIVEN = Literal[
    "image/webp",
    "image/png",
    "image/jpeg",
    "image/avif",
    "video/mp4",
    "video/webm",
    "application/pdf",
    "application/zip",
    "text/plain",
    "text/csv",
    "text/calendar",
]


class _Named(BaseModel):
    model_config = ConfigDict(extra="allow")


class _Attached(_Named):
    id: int | None = None
    name: str = ""
    size: _Size = 0


class _Enclosed(_Named):
    enclosure: int | None = None
    name: str = ""
    size: _Size = 0


class _Entry(_Named):
    """What an entry of a timeline keeps, as far as it is read again."""

    text: str = ""
    way: str = ""
    key: str = ""
    by: str = ""
    page: str = ""
    touchpoint: str = ""
    followup: int | None = None
    mail: int | None = None
    merge: int | None = None
    typed: list[tuple[str, Any]] = []
    agreed: list[str] = []
    tags: list[str] = []
    files: list[_Attached] = []
    enclosed: list[_Enclosed] = []


class _Offer(BaseModel):
    id: str
    label: str


class _TalkFile(BaseModel):
    key: _Key
    name: str
    type: Literal["image/webp", "application/pdf"]
    size: _Size


def _is(kind: Any) -> Callable[[Any], object]:
    return TypeAdapter(kind).validate_python


CHECKS: dict[tuple[type[Model], str], Callable[[Any], object]] = {
    (AuditEntry, "about"): _is(dict[str, Any]),
    (Site, "key"): _is(_Key),
    (Site, "house"): lambda value: value and HouseStyle.model_validate(value),
    (Site, "rules"): lambda value: value and SiteRules.model_validate(value),
    (SitePage, "kinds"): _is(list[str]),
    (SitePage, "marks"): _is(list[str]),
    (Stranger, "marks"): _is(list[str]),
    (HoursSet, "document"): OpeningHours.model_validate,
    (ReplyCell, "document"): Reply.model_validate,
    (Channel, "document"): ChannelDocument.model_validate,
    (Channel, "public_id"): _is(_Key),
    (Group, "wanted"): Filter.model_validate,
    (TimelineEvent, "data"): _Entry.model_validate,
    (Touchpoint, "public_id"): _is(_Key),
    (TouchpointRevision, "document"): Document.model_validate,
    (Asset, "public_id"): _is(_Key),
    (Asset, "kind"): _is(Literal["picture", "video", "file"]),
    (Asset, "media_type"): _is(_GIVEN),
    (Asset, "widths"): _is(list[Annotated[int, Field(ge=1, le=20_000)]]),
    (Asset, "sample"): _is(list[list[Annotated[str, Field(pattern=r"^#[0-9a-fA-F]{6}$")]]]),
    (RehearsalVisitor, "document"): _is(dict[str, Any]),
    (OutgoingMail, "state"): _is(Literal["sent", "suppressed", "failed"]),
    (Enclosure, "key"): _is(_Key),
    (Enclosure, "type"): _is(_Media),
    (KeptFilter, "wanted"): ListFilter.model_validate,
    (KeptAnswer, "text"): _is(Runs),
    (GiveRules, "rules"): _is(list[GiveRule]),
    (Talk, "state"): _is(dict[str, Any]),
    (Talk, "choices"): _is(list[_Offer]),
    (Talk, "tags"): _is(list[str]),
    (Message, "choices"): _is(list[_Offer]),
    (Message, "file"): _is(_TalkFile | None),
    (Submission, "raw"): lambda value: value and Sent.model_validate(value),
    (Quarantined, "raw"): lambda value: value and Sent.model_validate(value),
    (IncomingFile, "key"): _is(_Key),
    (IncomingFile, "type"): _is(_Media),
}
# The documents whose own schema is told with the table's.
DOCUMENTS: dict[tuple[type[Model], str], type[BaseModel]] = {
    (TouchpointRevision, "document"): Document, (HoursSet, "document"): OpeningHours,
    (ReplyCell, "document"): Reply, (KeptFilter, "wanted"): ListFilter, (Group, "wanted"): Filter,
}  # fmt: skip
