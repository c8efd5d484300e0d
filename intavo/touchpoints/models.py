"""Touchpoints, their revisions, and the sites they stand on."""

import secrets

from django.db import models

from intavo.accounts.models import Business, Member
from intavo.core.showing import State
from intavo.sites.models import Site


def new_public_id() -> str:
    """An id that the visitor's side may see."""
    return f"tp_{secrets.token_hex(5)}"


class Touchpoint(models.Model):
    """Anything placed on a site. The draft is what is edited; the live revision is what visitors get."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE, related_name="touchpoints")
    public_id = models.CharField(max_length=20, unique=True, default=new_public_id)
    name = models.CharField(max_length=120)
    slug = models.SlugField(max_length=60)
    state = models.CharField(max_length=8, choices=[(s.value, s.value) for s in State], default=State.DRAFT.value)
    order = models.PositiveIntegerField(default=0)
    generation = models.PositiveIntegerField(default=1)
    draft = models.ForeignKey("TouchpointRevision", null=True, on_delete=models.PROTECT, related_name="+")
    live = models.ForeignKey("TouchpointRevision", null=True, on_delete=models.PROTECT, related_name="+")
    sites = models.ManyToManyField(Site, through="Placement")
    created_at = models.DateTimeField()

    class Meta:
        constraints = (
            models.UniqueConstraint(fields=["business", "slug"], name="slug_once_a_business"),
            models.CheckConstraint(
                condition=~models.Q(state=State.LIVE.value) | models.Q(live__isnull=False), name="live_has_a_revision"
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
