"""The console's API on sites."""

from datetime import datetime
from typing import Annotated, Any

from django.conf import settings
from ninja import Router, Schema, Status

from intavo.accounts.auth import MemberAuth, MemberRequest
from intavo.accounts.edits import Edit
from intavo.core.holds import Holds
from intavo.core.showing import SiteRules
from intavo.core.touchpoint import HouseStyle, Sentence
from intavo.core.values import Language

from .actions import add_site, change_site, set_house, set_rules
from .models import Site
from .queries import home_of, matching_pages, pages_of, rules_of, sites_of, sources_of, strangers_of

router = Router(tags=["sites"], auth=MemberAuth())


class SeenOut(Schema):
    at: datetime
    host: str
    path: str
    url: str


class SiteOut(Schema):
    id: int
    name: str
    slug: str
    key: str
    language: str
    hosts: list[str]
    snippet: str
    house: Annotated[dict[str, Any], Holds(HouseStyle, "validation")]
    rules: SiteRules
    strangers: list[str]
    seen: SeenOut | None

    @staticmethod
    def of(site: Site) -> "SiteOut":
        """A site as the console shows it."""
        seen = (
            SeenOut(
                at=site.seen_at,
                host=site.seen_host,
                path=site.seen_path,
                url=f"{home_of(site)}{site.seen_path}",
            )
            if site.seen_at
            else None
        )
        return SiteOut(
            house=site.house,
            rules=rules_of(site),
            strangers=strangers_of(site),
            id=site.pk,
            name=site.name,
            slug=site.slug,
            key=site.key,
            seen=seen,
            language=site.language,
            hosts=[row.host for row in site.hosts.all()],
            snippet=f'<script async src="{settings.BASE_URL}/e/{site.key}.js"></script>',
        )


class SiteIn(Schema):
    name: str = ""
    hosts: list[str]
    language: Language | None = None


class SiteEditIn(SiteIn):
    # What it was made from: what others have changed since is kept then.
    based_on: SiteIn | None = None
    all_the_same: bool = False


@router.get("/sites", response=list[SiteOut])
def list_sites(request: MemberRequest) -> list[SiteOut]:
    """The business's sites."""
    return [SiteOut.of(site) for site in sites_of(request.auth)]


@router.post("/sites", response={201: SiteOut})
def add(request: MemberRequest, body: SiteIn) -> Status[SiteOut]:
    """Add a site."""
    site = add_site(request.auth, name=body.name, hosts=body.hosts)
    return Status(201, SiteOut.of(sites_of(request.auth).get(pk=site.pk)))


@router.put("/sites/{site_id}", response=SiteOut)
def change(request: MemberRequest, site_id: int, body: SiteEditIn) -> SiteOut:
    """Change a site's name and hosts; 409 where somebody else has changed the same since `based_on`, and
    differently.
    """
    based_on = body.based_on.model_dump() if body.based_on else None
    edit = Edit(body.model_dump(include={"name", "hosts", "language"}), based_on, body.all_the_same)
    change_site(request.auth, site_id=site_id, edit=edit)
    return SiteOut.of(sites_of(request.auth).get(pk=site_id))


class HouseIn(Schema):
    house: Annotated[dict[str, Any], Holds(HouseStyle, "validation")]
    based_on: Annotated[dict[str, Any], Holds(HouseStyle, "validation")] | None = None
    all_the_same: bool = False


@router.put("/sites/{site_id}/house", response=SiteOut)
def house(request: MemberRequest, site_id: int, body: HouseIn) -> SiteOut:
    """Set the site's house style; an empty one takes it away. 409 where somebody else has changed the same
    since `based_on`, and differently.
    """
    edit = Edit(body.house, body.based_on, body.all_the_same)
    set_house(request.auth, site_id=site_id, edit=edit)
    return SiteOut.of(sites_of(request.auth).get(pk=site_id))


class RulesIn(Schema):
    rules: Annotated[dict[str, Any], Holds(SiteRules)]
    based_on: Annotated[dict[str, Any], Holds(SiteRules)] | None = None
    all_the_same: bool = False


@router.put("/sites/{site_id}/rules", response=SiteOut)
def rules(request: MemberRequest, site_id: int, body: RulesIn) -> SiteOut:
    """Set what holds for the whole site; 409 where somebody else has changed the same since `based_on`, and
    differently.
    """
    edit = Edit(body.rules, body.based_on, body.all_the_same)
    set_rules(request.auth, site_id=site_id, edit=edit)
    return SiteOut.of(sites_of(request.auth).get(pk=site_id))


class PageOut(Schema):
    path: str
    title: str
    kinds: list[str]
    views: int
    seen_at: datetime


class SourceOut(Schema):
    kind: str
    name: str
    visits: int


class SentenceIn(Schema):
    sentence: Sentence


class MatchingOut(Schema):
    paths: list[str]
    of: int


@router.get("/sites/{site_id}/pages", response=list[PageOut])
def pages(request: MemberRequest, site_id: int) -> list[PageOut]:
    """The pages that the script has seen, the most seen first."""
    site = sites_of(request.auth).get(pk=site_id)
    return [
        PageOut(path=row.path, title=row.title, kinds=row.kinds, views=row.views, seen_at=row.seen_at)
        for row in pages_of(request.auth, site.pk)
    ]


@router.get("/sites/{site_id}/sources", response=list[SourceOut])
def sources(request: MemberRequest, site_id: int) -> list[SourceOut]:
    """Hosts that visits came from and values of utm_medium they came with, the most frequent first."""
    site = sites_of(request.auth).get(pk=site_id)
    rows = sources_of(request.auth, site.pk)
    return [SourceOut(kind=row.kind, name=row.name, visits=row.visits) for row in rows]


@router.post("/sites/{site_id}/matching", response=MatchingOut)
def matching(request: MemberRequest, site_id: int, body: SentenceIn) -> MatchingOut:
    """Which of the known pages a sentence is for."""
    site = sites_of(request.auth).get(pk=site_id)
    known = pages_of(request.auth, site.pk)
    return MatchingOut(paths=matching_pages(site, [body.sentence], known), of=len(known))
