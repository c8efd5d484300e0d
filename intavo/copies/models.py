"""Copies of a business that were made here, and those that it was made anew from."""

from django.db import models

from intavo.accounts.models import Business, Member


class Copy(models.Model):
    """One file. `out`: made here to be taken away; else brought here. `told`: what came of it,
    in sentences.
    """

    WORKING, READY, FAILED = "working", "ready", "failed"
    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    member = models.ForeignKey(Member, null=True, on_delete=models.SET_NULL)
    out = models.BooleanField()
    key = models.CharField(max_length=40, unique=True)
    state = models.CharField(max_length=8, default=WORKING)
    size = models.BigIntegerField(default=0)
    told = models.JSONField(default=list)
    at = models.DateTimeField()

    class Meta:
        indexes = (models.Index(fields=["business", "-at"]),)
