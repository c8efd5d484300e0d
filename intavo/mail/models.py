"""Mail that goes out, and addresses it must not go to."""

from django.db import models

from intavo.accounts.models import Business, Member


class OutgoingMail(models.Model):
    """One mail. It goes out at least once, always with the same Message-ID."""

    WAITING, SENT, SUPPRESSED, FAILED = "waiting", "sent", "suppressed", "failed"
    business = models.ForeignKey(Business, on_delete=models.CASCADE, db_index=False)
    key = models.CharField(max_length=100)
    to = models.CharField(max_length=320)
    to_key = models.CharField(max_length=320)
    from_name = models.CharField(max_length=120)
    from_address = models.CharField(max_length=320)
    subject = models.CharField(max_length=300)
    text = models.TextField()
    message_id = models.CharField(max_length=200)
    in_reply_to = models.CharField(max_length=200, blank=True)
    # The address that ends mail of its kind by a POST, for what nobody has just asked for. Source: RFC 8058.
    unsubscribe = models.CharField(max_length=300, blank=True, default="", db_default="")
    reply_to = models.CharField(max_length=320, blank=True)
    # A text that goes with the mail as a file; no name: none does.
    attachment_name = models.CharField(max_length=200, blank=True)
    attachment = models.TextField(blank=True)
    state = models.CharField(max_length=12, default=WAITING)
    queued_at = models.DateTimeField()
    sent_at = models.DateTimeField(null=True)
    # Why it failed, in words for the owner.
    wrong = models.CharField(max_length=300, blank=True, default="", db_default="")

    class Meta:
        constraints = (
            models.UniqueConstraint(fields=["business", "key"], name="mail_once_a_key"),
            models.UniqueConstraint(fields=["message_id"], name="mail_message_once"),
        )
        indexes = (models.Index(fields=["business", "to_key", "queued_at"], name="mails_to_one"),)


class Enclosure(models.Model):
    """A file that a member chose to go with an answer; its bytes lie under `key`. `mail` None: it has not
    gone yet.
    """

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    member = models.ForeignKey(Member, null=True, on_delete=models.SET_NULL)
    mail = models.ForeignKey(OutgoingMail, null=True, on_delete=models.CASCADE, related_name="enclosures")
    key = models.CharField(max_length=40, unique=True)
    name = models.CharField(max_length=120)
    type = models.CharField(max_length=80)
    size = models.PositiveIntegerField()
    added_at = models.DateTimeField()


class Suppression(models.Model):
    """An address that a business's mail must not go to, and why."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    address_key = models.CharField(max_length=320)
    reason = models.CharField(max_length=20)
    since = models.DateTimeField()

    class Meta:
        constraints = (models.UniqueConstraint(fields=["business", "address_key"], name="suppressed_once"),)


class MailIn(models.Model):
    """How answers by mail come in: the secret of the address they are posted to, and the mailbox they are
    sent to.

    Without an `address` answers come to the business's own at the operator's domain for mail that comes in,
    `name`@…, unless it does not want that (`direct`), or there is none: then they go where our mail comes
    from, and are told apart by their heads alone.
    """

    business = models.OneToOneField(Business, on_delete=models.CASCADE, related_name="mail_in")
    secret = models.CharField(max_length=60, unique=True)
    address = models.EmailField(blank=True)
    name = models.CharField(max_length=60, unique=True, null=True, blank=True)  # none until there is a domain
    direct = models.BooleanField(default=True)
