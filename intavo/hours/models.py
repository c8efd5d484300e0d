"""Named hours, which of them a site follows, and what visitors are told."""

from django.db import models

from intavo.accounts.models import Business, Member
from intavo.core.hours import OpeningHours
from intavo.core.replies import Situation
from intavo.sites.models import Site


class HoursSet(models.Model):
    """A named set of opening hours; the document is an OpeningHours.

    One that is deleted stays as a name for `instead`, which whatever followed it follows from then on.
    """

    business = models.ForeignKey(Business, on_delete=models.CASCADE, related_name="hours_sets")
    name = models.CharField(max_length=80)
    document = models.JSONField()
    deleted_at = models.DateTimeField(null=True)
    # The secret in the address that calendars follow; none: there is no such address.
    token = models.CharField(max_length=40, null=True, unique=True)
    instead = models.ForeignKey("self", null=True, on_delete=models.PROTECT, related_name="+")

    class Meta:
        constraints = (
            models.UniqueConstraint(
                fields=["business", "name"], condition=models.Q(deleted_at=None), name="hours_name_once"
            ),
            models.CheckConstraint(
                condition=models.Q(instead=None) | models.Q(deleted_at__isnull=False),
                name="instead_of_a_deleted_one",
            ),
        )

    @property
    def value(self) -> OpeningHours:
        """The hours as a value of the core."""
        return OpeningHours.model_validate(self.document)


class SiteHours(models.Model):
    """A site's main hours."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    site = models.OneToOneField(Site, on_delete=models.CASCADE, related_name="main_hours")
    hours = models.ForeignKey(HoursSet, on_delete=models.PROTECT)


class MemberHours(models.Model):
    """When a member is usually at the counter; outside of these hours they count as away."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    member = models.OneToOneField(Member, on_delete=models.CASCADE, related_name="usual_hours")
    hours = models.ForeignKey(HoursSet, on_delete=models.PROTECT)


class ReplyCell(models.Model):
    """What visitors are told in one situation, column and language; the document is a Reply.

    The column is "" for everywhere, else the public id of a channel ("ch_…") or of a touchpoint ("tp_…").
    """

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    column = models.CharField(max_length=20, blank=True)
    situation = models.CharField(max_length=20, choices=[(s.value, s.value) for s in Situation])
    language = models.CharField(max_length=8)
    document = models.JSONField()

    class Meta:
        constraints = (
            models.UniqueConstraint(
                fields=["business", "column", "situation", "language"], name="reply_once_a_cell"
            ),
        )
