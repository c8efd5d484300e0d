"""Talks and their messages, and the gateways to services outside."""

import secrets

from django.db import models
from django.db.models.functions import Now

from intavo.accounts.models import Business, Member
from intavo.followup.models import FollowUp
from intavo.people.models import Person
from intavo.sites.models import Site
from intavo.touchpoints.models import Touchpoint, TouchpointRevision


def new_token() -> str:
    """128 random bits."""
    return secrets.token_hex(16)


def new_gateway_key() -> str:
    """What stands in the address that a gateway calls."""
    return secrets.token_urlsafe(18)


class Gateway(models.Model):
    """A bridge to a service outside. `secrets` (whsec_…) sign what comes in; `bearer` is sent with what goes
    out.
    """

    business = models.ForeignKey(Business, on_delete=models.CASCADE, related_name="gateways")
    name = models.CharField(max_length=80)
    key = models.CharField(max_length=40, unique=True, default=new_gateway_key)
    address = models.CharField(max_length=500)
    bearer = models.TextField()
    secret = models.TextField()
    down_since = models.DateTimeField(null=True)
    created_at = models.DateTimeField()
    # What was said through one that is deleted stays; it can be had back.
    deleted_at = models.DateTimeField(null=True)

    class Meta:
        constraints = (
            models.UniqueConstraint(
                fields=["business", "name"], condition=models.Q(deleted_at=None), name="gateway_name_once"
            ),
        )


class Talk(models.Model):
    """A conversation: where its script stands, whose it is, and how far both sides have come in it.

    `given` is the number of the last message that the visitor's side was given, `read` of theirs that one of
    us saw.
    """

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    site = models.ForeignKey(Site, null=True, on_delete=models.CASCADE)
    token = models.CharField(max_length=32, unique=True, default=new_token)
    touchpoint = models.ForeignKey(Touchpoint, null=True, on_delete=models.SET_NULL)
    revision = models.ForeignKey(TouchpointRevision, null=True, on_delete=models.SET_NULL)
    gateway = models.ForeignKey(Gateway, null=True, on_delete=models.CASCADE)
    # By which channel it came through the gateway; "" where that is not known.
    channel = models.CharField(max_length=20, blank=True, default="", db_default="")
    handle = models.CharField(max_length=200, blank=True)
    name = models.CharField(max_length=300, blank=True)
    person = models.ForeignKey(Person, null=True, on_delete=models.SET_NULL, related_name="talks")
    followup = models.ForeignKey(FollowUp, null=True, on_delete=models.SET_NULL, related_name="talks")
    state = models.JSONField(default=dict)
    choices = models.JSONField(default=list)
    asks = models.CharField(max_length=10, blank=True)
    address_first = models.BooleanField(default=False)
    tags = models.JSONField(default=list)
    page = models.CharField(max_length=4000, blank=True)
    device = models.CharField(max_length=10, blank=True)
    language = models.CharField(max_length=35, default="en")
    utc_offset = models.IntegerField(null=True)
    last = models.PositiveIntegerField(default=0)
    given = models.PositiveIntegerField(default=0)
    read = models.PositiveIntegerField(default=0)
    told_late = models.BooleanField(default=False)
    typing_until = models.DateTimeField(null=True)
    begun_at = models.DateTimeField()
    last_word_at = models.DateTimeField()
    # By the database's own clock, as is_there asks it.
    seen_at = models.DateTimeField(db_default=Now())

    class Meta:
        indexes = (
            models.Index(fields=["followup"], name="talks_of_followup"),
            models.Index(
                fields=["gateway", "handle", "-id"],
                condition=models.Q(gateway__isnull=False),
                name="talks_outside",
            ),
        )


class Message(models.Model):
    """One message of a talk, numbered from 1. `answer` is what a visitor's own message was answered with, as
    bytes.
    """

    THEM, US, SCRIPT = "them", "us", "script"
    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    talk = models.ForeignKey(Talk, on_delete=models.CASCADE, related_name="messages")
    n = models.PositiveIntegerField()
    source = models.CharField(max_length=6, choices=[(THEM, THEM), (US, US), (SCRIPT, SCRIPT)])
    member = models.ForeignKey(Member, null=True, on_delete=models.SET_NULL)
    text = models.TextField()
    choices = models.JSONField(default=list)
    at = models.DateTimeField()
    # By the database's own clock, for counting how many came in a minute.
    stored_at = models.DateTimeField(db_default=Now())
    client_id = models.CharField(max_length=100, null=True)  # the script's have none
    answer = models.TextField(blank=True)
    mailed = models.BooleanField(default=False)
    # What is kept of a file of theirs: key, name, type and size; its words are its name.
    file = models.JSONField(null=True)

    class Meta:
        constraints = (
            models.UniqueConstraint(fields=["talk", "n"], name="message_number_once"),
            models.UniqueConstraint(fields=["talk", "client_id"], name="message_client_id_once"),
        )


class Delivery(models.Model):
    """A message on its way out through a gateway; `uid` makes it the same message however often it is
    tried.
    """

    WAITING, ACCEPTED, DELIVERED, FAILED = "waiting", "accepted", "delivered", "failed"
    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    message = models.OneToOneField(Message, on_delete=models.CASCADE, related_name="delivery")
    gateway = models.ForeignKey(Gateway, on_delete=models.CASCADE)
    uid = models.CharField(max_length=40, unique=True)
    state = models.CharField(max_length=10, default=WAITING)
    reason = models.CharField(max_length=300, blank=True)
    tries = models.PositiveIntegerField(default=0)


class GatewayIn(models.Model):
    """The id of something that a gateway has sent, so that it is taken in once, and its answer."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    gateway = models.ForeignKey(Gateway, on_delete=models.CASCADE)
    uid = models.CharField(max_length=80)
    at = models.DateTimeField()

    class Meta:
        constraints = (models.UniqueConstraint(fields=["gateway", "uid"], name="gateway_in_once"),)
