"""Mail that came in, each once, and what was attached to it."""

from django.db import models

from intavo.accounts.models import Business
from intavo.followup.models import FollowUp
from intavo.people.models import Person


class IncomingMail(models.Model):
    """One mail. `mark` tells it from all others, so that one that is handed in again changes nothing."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    mark = models.CharField(max_length=64)
    message_id = models.CharField(max_length=402, blank=True)
    sender = models.CharField(max_length=320, blank=True)
    subject = models.CharField(max_length=1000, blank=True)
    kind = models.CharField(max_length=12)
    # What came of it, as it is told to whoever handed it in.
    became = models.CharField(max_length=20)
    person = models.ForeignKey(Person, null=True, on_delete=models.CASCADE)
    followup = models.ForeignKey(FollowUp, null=True, on_delete=models.SET_NULL)
    received_at = models.DateTimeField()
    # Of what was not taken up, and lies beside the list: who it says it is from, its words, and whether
    # anybody has looked at it.
    aside = models.BooleanField(default=False)
    name = models.CharField(max_length=300, blank=True)
    said = models.TextField(blank=True)
    looked = models.BooleanField(default=False)

    class Meta:
        constraints = (models.UniqueConstraint(fields=["business", "mark"], name="mail_in_once"),)
        indexes = (
            models.Index(
                fields=["business", "-received_at"], condition=models.Q(aside=True), name="mail_in_aside"
            ),
            models.Index(fields=["business", "message_id"]),
            models.Index(fields=["person", "-received_at"]),
        )


class IncomingFile(models.Model):
    """Something attached; its bytes lie under `key`. A `risky` one is never shown."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    mail = models.ForeignKey(IncomingMail, on_delete=models.CASCADE, related_name="files")
    key = models.CharField(max_length=40, unique=True)
    name = models.CharField(max_length=200)
    type = models.CharField(max_length=80)
    size = models.PositiveIntegerField()
    risky = models.BooleanField()


class Mailbox(models.Model):
    """A mailbox that is read for a business. The password is sealed; `wrong` says why it could not be read
    last.
    """

    business = models.OneToOneField(Business, on_delete=models.CASCADE)
    host = models.CharField(max_length=253)
    port = models.PositiveIntegerField(default=993)
    user = models.CharField(max_length=320)
    password = models.TextField()
    folder = models.CharField(max_length=200, default="INBOX")
    wrong = models.CharField(max_length=300, blank=True)
    read_at = models.DateTimeField(null=True)
