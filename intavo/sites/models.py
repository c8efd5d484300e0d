"""Sites, their hosts, and where the script was last seen."""

import secrets

from django.db import models

from intavo.accounts.models import Business
from intavo.core.tongues import Tongue


def new_key() -> str:
    """A key for a site's snippet; not a secret, but not to be guessed either."""
    return secrets.token_hex(8)


class Site(models.Model):
    """One web site. `revision` goes up with every change that visitors could notice."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE, related_name="sites")
    name = models.CharField(max_length=120)
    slug = models.SlugField(max_length=60, unique=True)
    key = models.CharField(max_length=32, unique=True, default=new_key)
    revision = models.BigIntegerField(default=1)
    # A HouseStyle; empty where none was set.
    house = models.JSONField(default=dict)
    # SiteRules; empty: nothing set.
    rules = models.JSONField(default=dict)
    # What it speaks to visitors in; empty: as the business does.
    language = models.CharField(max_length=8, blank=True)
    seen_at = models.DateTimeField(null=True)
    seen_host = models.CharField(max_length=255, blank=True)
    seen_path = models.CharField(max_length=500, blank=True)

    def tongue(self, own: str = "") -> Tongue:
        """What visitors are spoken to in: a touchpoint's own language, else the site's,
        else the business's.
        """
        return self.business.tongue(own, self.language)


class SiteHost(models.Model):
    """A host of a site, normalised, and how its pages are reached: scheme, name and port.

    That is as the owner wrote it, else as a member's own browser saw it: what a visitor says of an address
    never changes where a link leads.
    """

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="hosts")
    host = models.CharField(max_length=255)
    origin = models.CharField(max_length=300, blank=True)
    seen_origin = models.CharField(max_length=300, blank=True)

    class Meta:
        constraints = (models.UniqueConstraint(fields=["site", "host"], name="host_once_a_site"),)
        ordering = ("pk",)


class SitePage(models.Model):
    """A page that the script has seen: how often, what it says of itself, and when last.

    It counts once several visitors have asked for it, or a member has; until then it is kept with the marks
    of those who did, and not listed.
    """

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="pages")
    path = models.CharField(max_length=500)
    title = models.CharField(max_length=300, blank=True)
    kinds = models.JSONField(default=list)
    views = models.PositiveBigIntegerField(default=0)
    seen_at = models.DateTimeField()
    counts = models.BooleanField(default=True)
    marks = models.JSONField(default=list)

    class Meta:
        constraints = (models.UniqueConstraint(fields=["site", "path"], name="page_once_a_site"),)


class SeenSource(models.Model):
    """A host that visits came from, or a utm_medium that they came with; how many, and when last."""

    HOST, MEDIUM = "host", "medium"
    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="sources")
    kind = models.CharField(max_length=6, choices=[(HOST, HOST), (MEDIUM, MEDIUM)])
    name = models.CharField(max_length=255)
    visits = models.PositiveBigIntegerField(default=0)
    seen_at = models.DateTimeField()

    class Meta:
        constraints = (models.UniqueConstraint(fields=["site", "kind", "name"], name="source_once_a_site"),)


class Stranger(models.Model):
    """A host that the script was seen on and that no site of the key's business lists."""

    business = models.ForeignKey(Business, on_delete=models.CASCADE)
    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="strangers")
    host = models.CharField(max_length=255)
    seen_at = models.DateTimeField()
    # Of those who came by it, up to three: what one client invents stands behind what several met.
    marks = models.JSONField(default=list)

    class Meta:
        constraints = (models.UniqueConstraint(fields=["site", "host"], name="stranger_once_a_site"),)
