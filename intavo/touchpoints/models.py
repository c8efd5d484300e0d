"""Touchpoints, their revisions, and the sites they stand on."""

import hashlib
import secrets

from django.db import models

from intavo.accounts.models import Business, Member
from intavo.core.showing import TouchpointState
from intavo.sites.models import Site


def new_public_id() -> str:
    """An id that the visitor's side may see."""
    return f"tp_{secrets.token_hex(5)}"


def short_code(public_id: str) -> str:
    """Four signs by which a message from outside names the touchpoint it came through, like "k7f2"."""
    number = int.from_bytes(hashlib.sha256(public_id.encode()).digest()[:8], "big")
    return "".join(_SIGNS[number // len(_SIGNS) ** at % len(_SIGNS)] for at in range(4))


# Without those that are taken for one another.
_SIGNS = "abcdefghjkmnpqrstuvwxyz23456789"


class Touchpoint(models.Model):
    """Anything placed on a site. The draft is what is edited; the live revision is what visitors get."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE, related_name="touchpoints")
    public_id = models.CharField(max_length=20, unique=True, default=new_public_id)
    name = models.CharField(max_length=120)
    slug = models.SlugField(max_length=60)
    state = models.CharField(
        max_length=8,
        choices=[(s.value, s.value) for s in TouchpointState],
        default=TouchpointState.DRAFT.value,
    )
    order = models.PositiveIntegerField(default=0)
    generation = models.PositiveIntegerField(default=1)
    draft = models.ForeignKey("TouchpointRevision", null=True, on_delete=models.PROTECT, related_name="+")
    live = models.ForeignKey("TouchpointRevision", null=True, on_delete=models.PROTECT, related_name="+")
    sites = models.ManyToManyField(Site, through="Placement")
    # What it is a copy of in another language; None: of nothing.
    original = models.ForeignKey("self", null=True, on_delete=models.SET_NULL, related_name="translations")
    created_at = models.DateTimeField()
    # Thrown away, but to be had back for 30 days.
    deleted_at = models.DateTimeField(null=True)
    # The secret in the address of its answers as CSV; None: there is no such address.
    csv_token = models.CharField(max_length=64, null=True, unique=True)

    class Meta:
        constraints = (
            models.UniqueConstraint(fields=["business", "slug"], name="slug_once_a_business"),
            models.CheckConstraint(
                condition=~models.Q(state=TouchpointState.LIVE.value) | models.Q(live__isnull=False),
                name="live_has_a_revision",
            ),
            models.CheckConstraint(
                condition=~models.Q(state=TouchpointState.LIVE.value) | models.Q(deleted_at__isnull=True),
                name="deleted_is_not_live",
            ),
        )

    @property
    def changed_since_live(self) -> bool:
        """Whether the draft differs from what visitors get."""
        return self.live_id is not None and self.draft.document != self.live.document  # type: ignore[union-attr]


class TouchpointRevision(models.Model):
    """One state of the document; a run of keystrokes is one revision."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    touchpoint = models.ForeignKey(Touchpoint, on_delete=models.CASCADE, related_name="revisions")
    number = models.PositiveIntegerField()
    parent = models.ForeignKey("self", null=True, on_delete=models.SET_NULL, related_name="children")
    document = models.JSONField()
    run = models.CharField(max_length=40, blank=True)
    name = models.CharField(max_length=80, blank=True)
    saved_at = models.DateTimeField()
    saved_by = models.ForeignKey(Member, null=True, on_delete=models.SET_NULL)
    published_at = models.DateTimeField(null=True)

    class Meta:
        constraints = (models.UniqueConstraint(fields=["touchpoint", "number"], name="revision_number_once"),)


class Placement(models.Model):
    """A touchpoint on a site."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    touchpoint = models.ForeignKey(Touchpoint, on_delete=models.CASCADE)
    site = models.ForeignKey(Site, on_delete=models.CASCADE)

    class Meta:
        constraints = (models.UniqueConstraint(fields=["touchpoint", "site"], name="placed_once"),)


def new_asset_id() -> str:
    """An id that stands in addresses."""
    return f"as_{secrets.token_hex(8)}"


class Asset(models.Model):
    """A picture, a video or a file of the business's library.

    A picture is kept re-encoded in a few widths; `sample` holds rows of #rrggbb for judging texts on it.
    """

    PICTURE, VIDEO, FILE = "picture", "video", "file"
    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    public_id = models.CharField(max_length=40, unique=True, default=new_asset_id)
    kind = models.CharField(max_length=8, choices=[(PICTURE, PICTURE), (VIDEO, VIDEO), (FILE, FILE)])
    name = models.CharField(max_length=200)
    description = models.CharField(max_length=500, blank=True)
    media_type = models.CharField(max_length=60)
    size = models.PositiveIntegerField()
    width = models.PositiveIntegerField(default=0)
    height = models.PositiveIntegerField(default=0)
    widths = models.JSONField(default=list)
    sample = models.JSONField(default=list)
    boxed = models.BooleanField(default=False)
    digest = models.CharField(max_length=64)
    added_at = models.DateTimeField()

    class Meta:
        constraints = (models.UniqueConstraint(fields=["business", "digest"], name="asset_once_a_business"),)
        indexes = (models.Index(fields=["business", "kind", "-id"]),)


class CodeToGive(models.Model):
    """One code of a touchpoint's list; given at most once."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    touchpoint = models.ForeignKey(Touchpoint, on_delete=models.CASCADE, related_name="codes")
    code = models.CharField(max_length=80)
    given_at = models.DateTimeField(null=True)
    given_to = models.CharField(max_length=80, blank=True)

    class Meta:
        constraints = (models.UniqueConstraint(fields=["touchpoint", "code"], name="code_once_a_touchpoint"),)
        indexes = (
            models.Index(fields=["touchpoint", "id"], condition=models.Q(given_at=None), name="codes_left"),
            models.Index(fields=["touchpoint", "given_to"]),
        )


class QuestionAnswer(models.Model):
    """A question of the business with its answer, in a group; shown by every touchpoint that holds them."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    group = models.CharField(max_length=120, blank=True)
    question = models.CharField(max_length=300)
    answer = models.TextField()
    order = models.PositiveIntegerField(default=0)
    helped = models.PositiveIntegerField(default=0)
    not_helped = models.PositiveIntegerField(default=0)

    class Meta:
        ordering = ("order", "pk")


class RehearsalVisitor(models.Model):
    """A made-up visitor that a member rehearses with, under a name."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    name = models.CharField(max_length=80)
    document = models.JSONField()

    class Meta:
        constraints = (models.UniqueConstraint(fields=["business", "name"], name="visitor_once_a_business"),)
        ordering = ("name",)


class LyingOver(models.Model):
    """A page that a bar could not move aside, as a visitor's browser found: it lies over it there."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    touchpoint = models.ForeignKey(Touchpoint, on_delete=models.CASCADE)
    revision = models.PositiveIntegerField()
    page = models.CharField(max_length=500)

    class Meta:
        constraints = (models.UniqueConstraint(fields=["touchpoint", "page"], name="lying_over_a_page_once"),)
