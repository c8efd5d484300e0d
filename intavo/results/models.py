"""What visitors' browsers report: beats, partitioned by month."""

from django.db import models

WHAT = ("seen", "opened", "started", "closed", "clicked", "goal")


class Beat(models.Model):
    """One thing that happened to a touchpoint in a browser.

    The table is made by SQL in a migration: it is partitioned by `received_at`, which Django cannot say.
    """

    id = models.UUIDField(primary_key=True)
    business_id = models.BigIntegerField()
    site_id = models.BigIntegerField()
    client_id = models.CharField(max_length=80)
    touchpoint = models.CharField(max_length=20)
    revision = models.PositiveIntegerField()
    variant = models.CharField(max_length=40, null=True)  # no variant is not an empty one
    what = models.CharField(max_length=10)
    channel = models.CharField(max_length=20)
    page = models.CharField(max_length=500)
    device = models.CharField(max_length=10)
    at = models.DateTimeField()
    received_at = models.DateTimeField()

    class Meta:
        managed = False
        db_table = "results_beat"


class RefusedBeats(models.Model):
    """How many reports of a site were not kept on a day (UTC), by why."""

    # Unreadable; of what never stood there; of a page of another site; more than one client says in earnest.
    WHY = ("unreadable", "touchpoint", "revision", "page", "often")
    business = models.ForeignKey("accounts.Business", on_delete=models.CASCADE)
    site = models.ForeignKey("sites.Site", on_delete=models.CASCADE)
    day = models.DateField()
    why = models.CharField(max_length=12, choices=[(one, one) for one in WHY])
    count = models.PositiveBigIntegerField()

    class Meta:
        constraints = (models.UniqueConstraint(fields=["site", "day", "why"], name="refused_once_a_day"),)


class HourlyTally(models.Model):
    """How often something happened to a touchpoint on a site in one hour, doubles left out."""

    business = models.ForeignKey("accounts.Business", on_delete=models.CASCADE)
    site_id = models.BigIntegerField()
    touchpoint = models.CharField(max_length=20)
    hour = models.DateTimeField()
    what = models.CharField(max_length=10)
    channel = models.CharField(max_length=20, blank=True)
    count = models.PositiveIntegerField()

    class Meta:
        constraints = (
            models.UniqueConstraint(
                fields=["touchpoint", "site_id", "hour", "what", "channel"], name="tally_once_an_hour"
            ),
        )
        indexes = (models.Index(fields=["business", "hour"]), models.Index(fields=["hour"]))
