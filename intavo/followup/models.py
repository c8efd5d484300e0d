"""Follow-ups and the promises counted on them."""

from django.db import models
from django.db.models.functions import Lower, Now

from intavo.accounts.models import Business, Member
from intavo.accounts.near import near
from intavo.core import followup as rules
from intavo.people.models import PagePath, Person
from intavo.sites.models import Site
from intavo.touchpoints.models import Touchpoint


class FollowUp(models.Model):
    """One open piece of work for one person, with where it came from."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE, db_index=False)
    person = models.ForeignKey(Person, on_delete=models.CASCADE, related_name="followups", db_index=False)
    kind = models.CharField(max_length=12, choices=[(k.value, k.value) for k in rules.Kind])
    state = models.CharField(max_length=10, choices=[(s.value, s.value) for s in rules.State])
    opened_at = models.DateTimeField()
    due = models.DateTimeField(null=True)
    # A call-back is late only after its slot has ended.
    late_from = models.DateTimeField(null=True)
    back_at = models.DateTimeField(null=True)
    finished_at = models.DateTimeField(null=True)
    outcome = models.CharField(
        max_length=12, null=True, choices=[(o.value, o.value) for o in rules.Outcome]
    )  # no outcome is not an empty one
    thread = models.CharField(max_length=200, blank=True)
    touchpoint = models.ForeignKey(Touchpoint, null=True, on_delete=models.SET_NULL)
    site = models.ForeignKey(Site, null=True, on_delete=models.SET_NULL)
    page = models.CharField(max_length=4000, blank=True)
    # The path of its page, in small letters, kept by the database itself.
    path = models.GeneratedField(
        expression=Lower(PagePath("page")), output_field=models.TextField(), db_persist=True
    )
    device = models.CharField(max_length=10, blank=True)
    excerpt = models.CharField(max_length=300, blank=True)
    # How it came: "form", "page" (a conversation there), "mail", "import", "hand", or the name of a service
    # outside.
    via = models.CharField(max_length=60, default="form", db_default="form")
    # Whose it is; nobody's is everybody's.
    member = models.ForeignKey(Member, null=True, blank=True, on_delete=models.SET_NULL)
    # When anything of it changed last, kept by the database itself.
    touched_at = models.DateTimeField(db_default=Now(), editable=False)
    # The last mail that came about it: its id, and the subject as it was typed.
    their_mail = models.CharField(max_length=400, blank=True, default="", db_default="")
    subject = models.CharField(max_length=300, blank=True, default="", db_default="")

    class Meta:
        constraints = (
            models.UniqueConstraint(
                fields=["person", "kind"],
                # Every call-back is a piece of work of its own, at its own time.
                condition=~models.Q(state="finished") & ~models.Q(kind="call-back"),
                name="one_open_followup_a_kind",
            ),
            models.CheckConstraint(
                condition=models.Q(state="finished", finished_at__isnull=False)
                | (~models.Q(state="finished") & models.Q(finished_at__isnull=True)),
                name="finished_has_a_time",
            ),
            near("followup_times_near", "due", "back_at", "opened_at", "finished_at"),
        )
        indexes = (
            models.Index(
                fields=["business", "due", "id"],
                condition=~models.Q(state="finished"),
                name="followup_open_by_due",
            ),
            models.Index(fields=["person", "kind", "-id"]),
            models.Index(fields=["business", "-touched_at"], name="followup_touched"),
            models.Index(
                fields=["business", "-finished_at", "-id"],
                condition=models.Q(state="finished"),
                name="followup_finished",
            ),
        )

    @property
    def value(self) -> rules.FollowUp:
        """The follow-up as a value of the core."""
        return rules.FollowUp(
            kind=rules.Kind(self.kind),
            state=rules.State(self.state),
            opened_at=self.opened_at,
            due=self.due,
            late_from=self.late_from,
            back_at=self.back_at,
            finished_at=self.finished_at,
            outcome=rules.Outcome(self.outcome) if self.outcome else None,
            thread=self.thread,
        )

    def take(self, value: rules.FollowUp) -> None:
        """Take on the state of a value."""
        self.state, self.due, self.back_at = value.state.value, value.due, value.back_at
        self.finished_at, self.outcome = value.finished_at, value.outcome.value if value.outcome else None


class AtDesk(models.Model):
    """A member at a follow-up: when they last looked and wrote, and what they have begun to write."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    followup = models.ForeignKey(FollowUp, on_delete=models.CASCADE, related_name="at_desk")
    member = models.ForeignKey(Member, on_delete=models.CASCADE)
    seen_at = models.DateTimeField()
    wrote_at = models.DateTimeField(null=True)
    draft = models.TextField(blank=True, default="")
    draft_at = models.DateTimeField(null=True)

    class Meta:
        constraints = (models.UniqueConstraint(fields=["followup", "member"], name="at_desk_once"),)


class DoneOnce(models.Model):
    """The id that a device gave to something that it did while it had no network, so that it is done once."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    member = models.ForeignKey(Member, on_delete=models.CASCADE)
    once = models.CharField(max_length=80)
    at = models.DateTimeField()

    class Meta:
        constraints = (models.UniqueConstraint(fields=["member", "once"], name="done_once"),)


class Batch(models.Model):
    """One thing that a member did to several, so that it can be taken back for a day: what was done, whose
    each was before, and what it left behind in each.
    """

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    member = models.ForeignKey(Member, null=True, on_delete=models.SET_NULL)
    at = models.DateTimeField()
    do = models.CharField(max_length=10)
    tag = models.CharField(max_length=60, blank=True)
    words = models.CharField(max_length=400)
    rows = models.JSONField(default=list)
    undone_at = models.DateTimeField(null=True)

    class Meta:
        indexes = (models.Index(fields=["business", "-at"], name="batches_of_late"),)


class Wishes(models.Model):
    """What a member is told: by mail before something is due and when it is late, each morning, and in the
    browser.
    """

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    member = models.OneToOneField(Member, on_delete=models.CASCADE, related_name="wishes")
    before_minutes = models.PositiveSmallIntegerField(null=True)
    when_late = models.BooleanField(default=True)
    morning = models.BooleanField(default=False)
    morning_on = models.DateField(null=True)
    # What nobody has touched for so many open days is told on the day line; none: not.
    untouched_days = models.PositiveSmallIntegerField(null=True, default=3)
    notify = models.BooleanField(default=False)
    sound = models.BooleanField(default=False)

    @property
    def touchpoints(self) -> bool:
        """Whether they are mailed what comes through touchpoints that are to tell them."""
        return self.member.touchpoint_mail


class Reminded(models.Model):
    """That a member was told of a due time; once each."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    member = models.ForeignKey(Member, on_delete=models.CASCADE)
    followup = models.ForeignKey(FollowUp, on_delete=models.CASCADE)
    due = models.DateTimeField()
    about = models.CharField(max_length=10)

    class Meta:
        constraints = (
            models.UniqueConstraint(fields=["followup", "member", "due", "about"], name="reminded_once"),
        )


class GiveRules(models.Model):
    """Whose new work is: a business's rules, in their order."""

    business = models.OneToOneField(Business, on_delete=models.CASCADE, related_name="give_rules")
    rules = models.JSONField(default=list)


class KeptFilter(models.Model):
    """A filter of the list under a name: a member's own, or (member None) everybody's."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    member = models.ForeignKey(Member, null=True, on_delete=models.CASCADE)
    name = models.CharField(max_length=60)
    wanted = models.JSONField()

    class Meta:
        constraints = (
            models.UniqueConstraint(
                fields=["business", "member", "name"], nulls_distinct=False, name="filter_once_a_name"
            ),
        )
        ordering = ("name", "pk")


class KeptAnswer(models.Model):
    """An answer kept for using again, with slots: a member's own, or (member None) everybody's."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    member = models.ForeignKey(Member, null=True, on_delete=models.CASCADE)
    name = models.CharField(max_length=80)
    group = models.CharField(max_length=40, blank=True)
    text = models.JSONField()
    uses = models.PositiveIntegerField(default=0)

    class Meta:
        ordering = ("group", "name", "pk")


class PromiseCounted(models.Model):
    """A due time that was met or missed; each counts once."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    followup = models.ForeignKey(FollowUp, on_delete=models.CASCADE)
    due = models.DateTimeField()
    kept = models.BooleanField()
    counted_at = models.DateTimeField()

    class Meta:
        constraints = (models.UniqueConstraint(fields=["followup", "due"], name="promise_counted_once"),)
