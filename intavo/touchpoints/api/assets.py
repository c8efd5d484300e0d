"""The library: pictures, videos and files that touchpoints use."""

from ninja import File, Form, Router, Schema, Status, UploadedFile

from intavo.accounts.auth import MemberRequest

from .. import actions
from ..models import Asset
from ..queries import assets_in_use, assets_of
from ..shipped import shipped_names

router = Router()


class AssetOut(Schema):
    id: int | None
    public_id: str
    kind: str
    name: str
    description: str
    size: int
    width: int
    height: int
    boxed: bool
    used_by: list[str]

    @staticmethod
    def of(row: Asset, used_by: list[str]) -> "AssetOut":
        """An asset as the console shows it."""
        return AssetOut(
            id=row.pk,
            public_id=row.public_id,
            kind=row.kind,
            name=row.name,
            description=row.description,
            size=row.size,
            width=row.width,
            height=row.height,
            boxed=row.boxed,
            used_by=used_by,
        )


class AssetIn(Schema):
    name: str
    description: str = ""


@router.get("/library", response=list[AssetOut])
def library(request: MemberRequest, kind: str = "picture") -> list[AssetOut]:
    """The library of one kind, the newest first; pictures that come with Intavo stand last."""
    used = assets_in_use(request.auth)
    own = [AssetOut.of(row, used.get(row.public_id, [])) for row in assets_of(request.auth, kind)[:300]]
    return own + ([_shipped(name, used) for name in shipped_names()] if kind == "picture" else [])


def _shipped(name: str, used: dict[str, list[str]]) -> AssetOut:
    return AssetOut(
        id=None,
        public_id=name,
        kind="picture",
        name=name.removeprefix("shipped-").capitalize(),
        description="",
        size=0,
        width=960,
        height=640,
        boxed=False,
        used_by=used.get(name, []),
    )


@router.post("/library", response={201: AssetOut})
def add(
    request: MemberRequest, file: File[UploadedFile], kind: Form[str] = "picture", description: Form[str] = ""
) -> Status[AssetOut]:
    """Add a file to the library."""
    row = actions.add_asset(request.auth, kind=kind, name=file.name or "", file=file, description=description)
    return Status(201, AssetOut.of(row, []))


@router.put("/library/{asset_id}", response=AssetOut)
def describe(request: MemberRequest, asset_id: int, body: AssetIn) -> AssetOut:
    """Name a picture, and say what is on it."""
    row = actions.describe_asset(
        request.auth, asset_id=asset_id, name=body.name, description=body.description
    )
    return AssetOut.of(row, [])


@router.delete("/library/{asset_id}", response={204: None})
def forget(request: MemberRequest, asset_id: int) -> Status[None]:
    """Take an unused one out of the library."""
    actions.forget_asset(request.auth, asset_id=asset_id)
    return Status(204, None)
