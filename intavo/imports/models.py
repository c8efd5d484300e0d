"""Files of people that are brought in, and what became of each of their rows."""

from django.db import models

from intavo.accounts.models import Business, Member
from intavo.people.models import Person


class Import(models.Model):
    """A file. `position` is the last row that is in; a job that is begun again goes on after it.
    `STOPPED`: it could not be taken to the end, and can be gone on with.
    """

    READ, TAKING, STOPPED, DONE = "read", "taking", "stopped", "done"
    UNDOING, UNDONE = "undoing", "undone"
    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    member = models.ForeignKey(Member, null=True, on_delete=models.SET_NULL)
    name = models.CharField(max_length=200)
    form = models.CharField(max_length=4)
    key = models.CharField(max_length=40, unique=True)
    size = models.BigIntegerField()
    encoding = models.CharField(max_length=40)
    delimiter = models.CharField(max_length=1, default=",")
    header = models.BooleanField(default=True)
    titles = models.JSONField(default=list)
    columns = models.JSONField(default=list)
    tags = models.JSONField(default=list)
    # What whoever brings them in states of their consent: where it was given, and when; both empty: nothing.
    consent_source = models.CharField(max_length=300, blank=True)
    consent_date = models.DateField(null=True)
    state = models.CharField(max_length=8, default=READ)
    position = models.PositiveIntegerField(default=0)
    new = models.PositiveIntegerField(default=0)
    joined = models.PositiveIntegerField(default=0)
    refused = models.PositiveIntegerField(default=0)
    left = models.PositiveIntegerField(default=0)
    added_at = models.DateTimeField()

    class Meta:
        indexes = (models.Index(fields=["business", "-added_at"]),)


class ImportedRow(models.Model):
    """What became of a row: who it is, and what was added, so that it can be undone;
    or why it was refused.
    """

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    of = models.ForeignKey(Import, on_delete=models.CASCADE, related_name="rows")
    number = models.PositiveIntegerField()
    person = models.ForeignKey(Person, null=True, on_delete=models.CASCADE)
    new = models.BooleanField(default=False)
    added = models.JSONField(default=dict)
    refused = models.CharField(max_length=300, blank=True)
    cells = models.JSONField(default=list)

    class Meta:
        constraints = (models.UniqueConstraint(fields=["of", "number"], name="row_once_an_import"),)
