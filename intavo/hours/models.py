"""Named hours, which of them a site follows, and what visitors are told."""

from django.db import models

from intavo.accounts.models import Business
from intavo.core.hours import OpeningHours
from intavo.core.replies import Situation
from intavo.sites.models import Site


class HoursSet(models.Model):
    """A named set of opening hours; the document is an OpeningHours."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE, related_name="hours_sets")
    name = models.CharField(max_length=80)
    document = models.JSONField()

    class Meta:
        constraints = (models.UniqueConstraint(fields=["business", "name"], name="hours_name_once"),)

    @property
    def value(self) -> OpeningHours:
        """The hours as a value of the core."""
        return OpeningHours.model_validate(self.document)


class SiteHours(models.Model):
    """A site's main hours."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    site = models.OneToOneField(Site, on_delete=models.CASCADE, related_name="main_hours")
    hours = models.ForeignKey(HoursSet, on_delete=models.PROTECT)


class ReplyCell(models.Model):
    """What visitors are told everywhere in one situation and language; the document is a Reply."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    situation = models.CharField(max_length=20, choices=[(s.value, s.value) for s in Situation])
    language = models.CharField(max_length=8)
    document = models.JSONField()

    class Meta:
        constraints = (models.UniqueConstraint(fields=["business", "situation", "language"], name="reply_once_a_cell"),)
