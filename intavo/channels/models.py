"""Channels, and where their short links were clicked."""

import secrets

from django.db import models

from intavo.accounts.models import Business
from intavo.core.links import Channel as Document


def new_channel_id() -> str:
    """An id that the visitor's side may see."""
    return f"ch_{secrets.token_hex(5)}"


class Channel(models.Model):
    """One way to reach the business; the document is a Channel of the core. A deleted one can be had back."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE, related_name="channels")
    public_id = models.CharField(max_length=20, unique=True, default=new_channel_id)
    document = models.JSONField()
    order = models.PositiveIntegerField(default=0)
    created_at = models.DateTimeField()
    deleted_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ("order", "pk")
        indexes = (
            models.Index(
                fields=["business", "order"], condition=models.Q(deleted_at=None), name="channels_kept"
            ),
        )

    @property
    def value(self) -> Document:
        """The channel as a value of the core."""
        return Document.model_validate(self.document)


class LinkClicks(models.Model):
    """How often a channel's short link was followed on a day, by where it was printed ("" where that is not
    said).
    """

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    channel = models.ForeignKey(Channel, on_delete=models.CASCADE, related_name="clicks")
    place = models.CharField(max_length=60, blank=True)
    day = models.DateField()
    count = models.PositiveIntegerField(default=0)

    class Meta:
        constraints = (
            models.UniqueConstraint(fields=["channel", "place", "day"], name="link_clicks_once_a_day"),
        )
