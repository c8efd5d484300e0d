"""Submissions: what visitors sent, raw, with the answer they were given."""

from django.db import models
from django.db.models.functions import Now

from intavo.accounts.models import Business
from intavo.followup.models import FollowUp
from intavo.people.models import Person
from intavo.sites.models import Site
from intavo.touchpoints.models import Touchpoint, TouchpointRevision


class Submission(models.Model):
    """One sending of one step. `answer` is replayed byte for byte when the same `client_id` comes again."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE, db_index=False)
    site = models.ForeignKey(Site, on_delete=models.CASCADE, db_index=False)
    revision = models.ForeignKey(TouchpointRevision, on_delete=models.PROTECT)
    client_id = models.CharField(max_length=80)
    raw = models.JSONField()
    answer = models.TextField()
    # Nobody where it was answered without an address, or is not confirmed yet.
    person = models.ForeignKey(Person, null=True, on_delete=models.CASCADE, related_name="submissions")
    followup = models.ForeignKey(FollowUp, null=True, on_delete=models.SET_NULL)
    code = models.CharField(max_length=80, blank=True)
    received_at = models.DateTimeField()
    # By the database's own clock, which INTAVO_NOW does not hold: rates are counted on it.
    stored_at = models.DateTimeField(db_default=Now())
    sender = models.CharField(max_length=64)

    class Meta:
        constraints = (models.UniqueConstraint(fields=["site", "client_id"], name="submission_once"),)
        indexes = (models.Index(fields=["site", "sender", "stored_at"]),)


class Pending(models.Model):
    """An address that has not confirmed yet: nothing is given before it does; erased after 14 days."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    submission = models.OneToOneField(Submission, on_delete=models.CASCADE, related_name="pending")
    # Of what one address sent to one touchpoint within a day one mail asks, so several may have its link.
    token_hash = models.CharField(max_length=64, db_index=True)
    touchpoint = models.ForeignKey(Touchpoint, null=True, on_delete=models.SET_NULL)
    address_key = models.CharField(max_length=320, blank=True, default="")
    # When a mail went for it; none did where another mail asks for it, or the address was asked often enough.
    mailed_at = models.DateTimeField(null=True)
    expires_at = models.DateTimeField()
    confirmed_at = models.DateTimeField(null=True)

    class Meta:
        indexes = (
            models.Index(
                fields=["expires_at"], condition=models.Q(confirmed_at=None), name="pending_to_erase"
            ),
            models.Index(
                fields=["business", "address_key"], condition=models.Q(confirmed_at=None), name="pending_of"
            ),
        )


class Booking(models.Model):
    """A call at a time. `seat` counts those at one time: the database gives none of them twice."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    site = models.ForeignKey(Site, on_delete=models.CASCADE)
    touchpoint = models.ForeignKey(Touchpoint, on_delete=models.CASCADE)
    revision = models.ForeignKey(TouchpointRevision, on_delete=models.PROTECT)
    field = models.CharField(max_length=40)
    followup = models.OneToOneField(FollowUp, on_delete=models.CASCADE, related_name="booking")
    token = models.CharField(max_length=32, unique=True)
    start = models.DateTimeField()
    end = models.DateTimeField()
    seat = models.PositiveSmallIntegerField()
    sequence = models.PositiveIntegerField(default=0)
    cancelled_at = models.DateTimeField(null=True)

    class Meta:
        constraints = (
            models.UniqueConstraint(
                fields=["touchpoint", "start", "seat"],
                condition=models.Q(cancelled_at=None),
                name="seat_once",
            ),
        )


class Quarantined(models.Model):
    """What looked like spam: kept as it came, until a member releases it or throws it away."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    site = models.ForeignKey(Site, on_delete=models.CASCADE)
    client_id = models.CharField(max_length=80)
    touchpoint = models.CharField(max_length=20)
    raw = models.JSONField()
    answer = models.TextField()
    reason = models.CharField(max_length=20)
    sender = models.CharField(max_length=64)
    received_at = models.DateTimeField()
    settled_at = models.DateTimeField(null=True)
    released = models.BooleanField(default=False)

    class Meta:
        constraints = (models.UniqueConstraint(fields=["site", "client_id"], name="quarantined_once"),)
        indexes = (
            models.Index(
                fields=["business", "-id"], condition=models.Q(settled_at=None), name="quarantine_open"
            ),
        )
