"""`manage.py metrics`: shows the figures a machine is watched by, on a port of its own."""

import os
import threading
from typing import Any

from django.core.management.base import BaseCommand, CommandParser
from prometheus_client import CollectorRegistry, start_http_server
from prometheus_client.multiprocess import MultiProcessCollector

from intavo.project.measures import FromDatabase


class Command(BaseCommand):
    """Answer `GET /metrics` until stopped."""

    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        """Where to listen; the world is none of its business."""
        parser.add_argument("--host", default="127.0.0.1")
        parser.add_argument("--port", type=int, default=9464)

    def handle(self, *args: Any, **options: Any) -> None:
        """Serve; the figures of the web processes come from the folder that they share."""
        registry = CollectorRegistry()
        if folder := os.environ.get("PROMETHEUS_MULTIPROC_DIR"):
            os.makedirs(folder, exist_ok=True)
            MultiProcessCollector(registry, folder)  # type: ignore[no-untyped-call]  # its own package types it so
        registry.register(FromDatabase())
        start_http_server(options["port"], options["host"], registry)
        threading.Event().wait()
