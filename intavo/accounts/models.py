"""Users, businesses, who is a member of which, and the audit log."""

from datetime import datetime
from typing import Any, ClassVar

from django.contrib.auth.base_user import AbstractBaseUser, BaseUserManager
from django.contrib.auth.models import PermissionsMixin
from django.db import models
from django.db.models.functions import Lower

from intavo.core.rights import MEMBERS
from intavo.core.tongues import Tongue, tongue_of


class UserManager(BaseUserManager["User"]):
    """Makes users by email address."""

    def create_user(self, email: str, password: str | None = None, **extra: Any) -> "User":
        """A user with a hashed password."""
        user = self.model(email=self.normalize_email(email), **extra)
        user.set_password(password)
        user.save(using=self._db)
        return user


class User(AbstractBaseUser, PermissionsMixin):
    """Somebody who signs in."""

    email = models.EmailField(unique=True)
    name = models.CharField(max_length=120, blank=True)
    is_active = models.BooleanField(default=True)
    date_joined = models.DateTimeField(auto_now_add=True)

    USERNAME_FIELD = "email"
    objects: ClassVar[UserManager] = UserManager()

    class Meta:
        constraints = (models.UniqueConstraint(Lower("email"), name="user_email_once"),)

    @property
    def initials(self) -> str:
        """Two letters for small places."""
        words = (self.name or self.email.split("@")[0]).split()
        return "".join(word[0] for word in (words[0], words[-1]))[: min(2, len(words))].upper()


class Business(models.Model):
    """The account; every other row belongs to one."""

    name = models.CharField(max_length=120)
    timezone = models.CharField(max_length=64)
    region = models.CharField(max_length=2, default="GB")
    language = models.CharField(max_length=8, default="en")
    promise_minutes = models.PositiveIntegerField(null=True, default=120)
    mail_address = models.EmailField()
    # Whoever reads that address has said that mail may come from it; until then it comes from our own.
    mail_confirmed = models.BooleanField(default=False)
    # What a new owner is shown first is put away, and the hours were looked at.
    first_steps_away = models.BooleanField(default=False)
    hours_looked_at = models.BooleanField(default=False)
    created_at = models.DateTimeField()

    class Meta:
        constraints = (models.CheckConstraint(condition=~models.Q(name=""), name="business_has_a_name"),)

    def tongue(self, *said: str) -> Tongue:
        """What its visitors are spoken to in: the first language that is said (a touchpoint's, a site's),
        else its own.
        """
        return tongue_of((*said, self.language), self.region)


class Member(models.Model):
    """A user's place in a business; `away` means not at the counter, until `away_ends` (none: until they say
    so).
    """

    business = models.ForeignKey(Business, on_delete=models.CASCADE, related_name="members")
    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=10, choices=[(r.value, r.value) for r in MEMBERS])
    away = models.BooleanField(default=False)
    back_at = models.DateTimeField(null=True)
    away_ends = models.DateTimeField(null=True)
    # Empty: the first letters of their name.
    own_initials = models.CharField(max_length=3, blank=True)
    # Whether mail goes to them about what came through touchpoints that are to tell them.
    touchpoint_mail = models.BooleanField(default=True, db_default=True)
    # Whether they may see, take out and bring in all people; an owner always may.
    sees_everybody = models.BooleanField(default=True, db_default=True)

    class Meta:
        constraints = (models.UniqueConstraint(fields=["business", "user"], name="member_once"),)

    def is_away(self, at: datetime) -> bool:
        """Whether they have said that they are away; it ends by itself."""
        return self.away and (self.away_ends is None or at < self.away_ends)

    @property
    def called(self) -> str:
        """By their name, else by their address."""
        return self.user.name or self.user.email

    @property
    def initials(self) -> str:
        """As others see them in small places."""
        return self.own_initials or self.user.initials


class Invitation(models.Model):
    """Somebody who is invited to a business, by their address in small letters;
    gone once they have joined.
    """

    business = models.ForeignKey(Business, on_delete=models.CASCADE, related_name="invitations")
    email = models.EmailField()
    name = models.CharField(max_length=120, blank=True)
    role = models.CharField(max_length=10, choices=[(r.value, r.value) for r in MEMBERS])
    invited_by = models.ForeignKey(Member, null=True, on_delete=models.SET_NULL)
    expires_at = models.DateTimeField()

    class Meta:
        constraints = (models.UniqueConstraint(fields=["business", "email"], name="invited_once"),)
        indexes = (models.Index(fields=["email"]),)


class AuditEntry(models.Model):
    """Who did what; only ever added to."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    member = models.ForeignKey(Member, null=True, on_delete=models.SET_NULL)
    at = models.DateTimeField()
    verb = models.CharField(max_length=60)
    about = models.JSONField(default=dict)

    class Meta:
        indexes = (models.Index(fields=["business", "-at"]),)


class SeenBrowser(models.Model):
    """A browser and network that a user has signed in from, as a hash of what it says of itself."""

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="seen_browsers")
    mark = models.CharField(max_length=64)
    last_at = models.DateTimeField()

    class Meta:
        constraints = (models.UniqueConstraint(fields=["user", "mark"], name="browser_once"),)


class AccountMail(models.Model):
    """A mail about somebody's account that waits for its job, and is gone with it: its links lead into the
    account.
    """

    to = models.CharField(max_length=320)
    subject = models.CharField(max_length=300)
    text = models.TextField()
    # Where a mail program can have no more of its kind sent (RFC 8058); "" for what somebody has just asked
    # for.
    unsubscribe = models.CharField(max_length=300, blank=True, default="", db_default="")
    queued_at = models.DateTimeField()
