"""Loads the demo business where there is none."""

from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand

from demo.business import Names
from demo.load import PEOPLE, load
from intavo.sites.models import Site


class Command(BaseCommand):
    """manage.py load_demo [label]"""

    help = (
        "Load the demo business, if it is not there; with a label another one like it, with hosts of its own."
    )

    def add_arguments(self, parser: ArgumentParser) -> None:
        """What its hosts and addresses are told apart by."""
        parser.add_argument("label", nargs="?", default="")
        parser.add_argument(
            "--people", type=int, default=PEOPLE, help="how many came in the last ninety days"
        )

    def handle(self, *args: Any, **options: Any) -> None:
        """Load it and say so."""
        names = Names(options["label"])
        if Site.objects.filter(key=names.site_key).exists():
            return
        load(names, people=options["people"])
        self.stdout.write("demo business loaded")
