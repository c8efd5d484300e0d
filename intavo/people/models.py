"""People, their addresses, their timeline and what they agreed to."""

from django.db import models

from intavo.accounts.models import Business, Member


class Person(models.Model):
    """Somebody who signed up or asked; one card, however often they came."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    name = models.CharField(max_length=300, blank=True)
    created_at = models.DateTimeField()

    class Meta:
        indexes = (models.Index(fields=["business", "-created_at", "-id"]),)


class Address(models.Model):
    """A way to reach a person: `key` is how it is matched, `shown` how it was typed."""

    EMAIL, PHONE = "email", "phone"
    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="addresses")
    kind = models.CharField(max_length=8, choices=[(EMAIL, EMAIL), (PHONE, PHONE)])
    key = models.CharField(max_length=320)
    shown = models.CharField(max_length=320)
    domain = models.CharField(max_length=255, blank=True)

    class Meta:
        constraints = (
            models.UniqueConstraint(
                fields=["business", "key"], condition=models.Q(kind="email"), name="email_once_a_business"
            ),
            models.UniqueConstraint(fields=["person", "kind", "key"], name="address_once_a_person"),
        )
        indexes = (
            models.Index(fields=["business", "kind", "key"]),
            models.Index(fields=["business", "domain"], condition=models.Q(kind="email"), name="address_domains"),
        )
        ordering = ("pk",)


class TimelineEvent(models.Model):
    """Something that happened with a person; only ever added to."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="events")
    at = models.DateTimeField()
    kind = models.CharField(max_length=30)
    member = models.ForeignKey(Member, null=True, on_delete=models.SET_NULL)
    data = models.JSONField(default=dict)

    class Meta:
        indexes = (models.Index(fields=["person", "at", "id"]),)


class Consent(models.Model):
    """What a person agreed to: the exact wording, where and when, and a proof; only ever added to."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="consents")
    name = models.CharField(max_length=40)
    wording = models.TextField()
    touchpoint = models.CharField(max_length=40)
    revision = models.PositiveIntegerField()
    page = models.CharField(max_length=4000)
    given_at = models.DateTimeField()
    proof = models.CharField(max_length=64)
    # When the button behind the mail's link was pressed, where that was asked for.
    confirmed_at = models.DateTimeField(null=True)
    withdrawn_at = models.DateTimeField(null=True)


class PersonTag(models.Model):
    """A tag on a person; `given_by` is the touchpoint's public id, empty for a member's own."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="tags")
    tag = models.CharField(max_length=60)
    given_by = models.CharField(max_length=40, blank=True)
    given_at = models.DateTimeField()

    class Meta:
        constraints = (models.UniqueConstraint(fields=["person", "tag"], name="tag_once_a_person"),)
        indexes = (models.Index(fields=["business", "tag"]),)
