"""Loads the demo business where there is none."""

from typing import Any

from django.core.management.base import BaseCommand

from demo.business import SITE_KEY
from demo.load import load
from intavo.sites.models import Site


class Command(BaseCommand):
    """manage.py load_demo"""

    help = "Load the demo business, if it is not there."

    def handle(self, *args: Any, **options: Any) -> None:
        """Load it and say so."""
        if Site.objects.filter(key=SITE_KEY).exists():
            return
        load()
        self.stdout.write("demo business loaded")
