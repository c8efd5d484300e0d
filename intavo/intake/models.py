"""Submissions: what visitors sent, raw, with the answer they were given."""

from django.db import models
from django.db.models.functions import Now

from intavo.accounts.models import Business
from intavo.followup.models import FollowUp
from intavo.people.models import Person
from intavo.sites.models import Site
from intavo.touchpoints.models import TouchpointRevision


class Submission(models.Model):
    """One sending of one step. `answer` is replayed byte for byte when the same `client_id` comes again."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    site = models.ForeignKey(Site, on_delete=models.CASCADE)
    revision = models.ForeignKey(TouchpointRevision, on_delete=models.PROTECT)
    client_id = models.CharField(max_length=80)
    raw = models.JSONField()
    answer = models.TextField()
    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="submissions")
    followup = models.ForeignKey(FollowUp, null=True, on_delete=models.SET_NULL)
    received_at = models.DateTimeField()
    # By the database's own clock, which INTAVO_NOW does not hold: rates are counted on it.
    stored_at = models.DateTimeField(db_default=Now())
    sender = models.CharField(max_length=64)

    class Meta:
        constraints = (models.UniqueConstraint(fields=["site", "client_id"], name="submission_once"),)
        indexes = (models.Index(fields=["site", "sender", "stored_at"]),)
