"""People, their addresses, their timeline and what they agreed to."""

from django.db import models
from django.db.models.fields.json import KT

from intavo.accounts.models import Business, Member
from intavo.accounts.near import near


class Person(models.Model):
    """Somebody who signed up or asked; one card, however often they came."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE, db_index=False)
    name = models.CharField(max_length=300, blank=True)
    created_at = models.DateTimeField()
    # A job is about to erase them; they are on no list any more.
    erasing = models.BooleanField(default=False, db_default=False)

    class Meta:
        indexes = (
            models.Index(fields=["business", "-created_at", "-id"]),
            models.Index(fields=["business"], condition=models.Q(erasing=True), name="people_who_are_erased"),
        )


class Address(models.Model):
    """A way to reach a person: `key` is how it is matched, `shown` how it was typed."""

    EMAIL, PHONE = "email", "phone"
    business = models.ForeignKey(Business, on_delete=models.CASCADE, db_index=False)
    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="addresses", db_index=False)
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
            models.Index(
                fields=["business", "domain"], condition=models.Q(kind="email"), name="address_domains"
            ),
        )
        ordering = ("pk",)


class Group(models.Model):
    """People under a name: a filter, a member's own or (member None) everybody's."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    member = models.ForeignKey(Member, null=True, on_delete=models.CASCADE)
    name = models.CharField(max_length=60)
    wanted = models.JSONField()

    class Meta:
        constraints = (
            models.UniqueConstraint(
                fields=["business", "member", "name"], nulls_distinct=False, name="group_once_a_name"
            ),
        )
        ordering = ("name", "pk")


class Merge(models.Model):
    """Two cards that were made one: what the other was and which rows were its, so that it can be undone."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    kept = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="merges")
    gone_id = models.BigIntegerField()
    at = models.DateTimeField()
    member = models.ForeignKey(Member, null=True, on_delete=models.SET_NULL)
    record = models.JSONField()

    class Meta:
        indexes = (models.Index(fields=["business", "gone_id"]),)


class NotOne(models.Model):
    """Two cards of which a member said that they are not of one person; the lower id first."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    one = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="+")
    other = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="+")

    class Meta:
        constraints = (models.UniqueConstraint(fields=["one", "other"], name="not_one_once"),)


class ErasedProof(models.Model):
    """That somebody who is erased had agreed to something, when, and until when: a hash that names nobody."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    proof = models.CharField(max_length=64)
    given_at = models.DateTimeField()
    withdrawn_at = models.DateTimeField(null=True)
    erased_at = models.DateTimeField()


class PagePath(models.Func):
    """The path of a page as it was sent, as `intavo.core.people.path_of` reads it; null without a page."""

    function = "intavo_path"
    output_field = models.CharField()


class TimelineEvent(models.Model):
    """Something that happened with a person; only ever added to."""

    # Its own indexes begin with the business, and with the person.
    business = models.ForeignKey(Business, on_delete=models.CASCADE, db_index=False)
    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="events", db_index=False)
    at = models.DateTimeField()
    kind = models.CharField(max_length=30)
    member = models.ForeignKey(Member, null=True, on_delete=models.SET_NULL)
    data = models.JSONField(default=dict)
    # Kept by the database itself, so that a search for a page takes no addresses apart.
    path = models.GeneratedField(
        expression=PagePath(KT("data__page")), output_field=models.TextField(), db_persist=True
    )

    class Meta:
        constraints = (near("event_time_near", "at"),)
        indexes = (
            models.Index(fields=["person", "at", "id"]),
            models.Index(fields=["business", "kind", "path", "person"], name="event_of_a_kind"),
        )

    @property
    def said_by(self) -> str:
        """Which member did it, also where they are of the business no longer; empty where none did."""
        return self.member.called if self.member else str(self.data.get("by", ""))


class Consent(models.Model):
    """What a person agreed to: the exact wording, where and when, and a proof; only ever added to."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE, db_index=False)
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
        indexes = (models.Index(fields=["business", "tag", "person"], name="people_of_a_tag"),)
