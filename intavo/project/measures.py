"""What a machine is watched by: requests by kind and their times, kept by each process, and what the database
knows.

`manage.py metrics` shows both on a port of its own. Source: the Prometheus exposition format, by
prometheus_client.
"""

import re
import time
from collections.abc import Callable, Iterator

from django.db import connection
from django.http import HttpRequest, HttpResponse
from prometheus_client import Counter, Histogram
from prometheus_client.core import GaugeMetricFamily
from prometheus_client.registry import Collector

_BUCKETS = (0.002, 0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 15)
SECONDS = Histogram(
    "intavo_request_seconds", "How long requests took, in seconds.", ["kind"], buckets=_BUCKETS
)
ANSWERS = Counter("intavo_answers_total", "How requests were answered.", ["kind", "status"])
# The first that holds; the rest are pages.
_KINDS = (
    ("script", re.compile(r"/e/[^/]+\.js$|/static/")),
    ("plan", re.compile(r"/e/[^/]+/plan$")),
    ("intake", re.compile(r"/e/[^/]+/intake$")),
    ("beats", re.compile(r"/e/[^/]+/beats$")),
    ("talk", re.compile(r"/e/[^/]+/talks")),
    ("visitor", re.compile(r"/(e|t|l|m|f|c|b|h|g|csv)/")),
    ("mail in", re.compile(r"/in/mail/")),
    ("account", re.compile(r"/_allauth/")),
    ("console", re.compile(r"/api/")),
    ("health", re.compile(r"/healthz$")),
)


def kind_of(path: str) -> str:
    """Of which kind an address is."""
    return next((kind for kind, pattern in _KINDS if pattern.match(path)), "page")


class Measured:
    """Counts each request with its kind, status and time."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Go on, and count it."""
        begun = time.perf_counter()
        response = self.get_response(request)
        kind = kind_of(request.path_info)
        SECONDS.labels(kind).observe(time.perf_counter() - begun)
        ANSWERS.labels(kind, str(response.status_code)).inc()
        return response


_JOBS = """
SELECT queue_name, count(*), coalesce(extract(epoch FROM now() - min(coalesce(scheduled_at, e.at))), 0)
FROM procrastinate_jobs j LEFT JOIN procrastinate_events e ON e.job_id = j.id AND e.type = 'deferred'
WHERE status = 'todo' AND (scheduled_at IS NULL OR scheduled_at <= now()) GROUP BY queue_name
"""
_WORKERS = "SELECT count(*) FROM procrastinate_workers WHERE last_heartbeat > now() - interval '30 seconds'"
_MAILS = "SELECT state, count(*) FROM mail_outgoingmail WHERE state IN ('waiting', 'failed') GROUP BY state"
_FAILED = "SELECT task_name, count(*) FROM procrastinate_jobs WHERE status = 'failed' GROUP BY task_name"


class FromDatabase(Collector):
    """Jobs that wait and failed, mails that wait and failed, and workers that are heard of,
    at each asking.
    """

    def collect(self) -> Iterator[GaugeMetricFamily]:
        """The figures as they are now."""
        waiting = GaugeMetricFamily(
            "intavo_jobs_waiting", "Jobs that are due and not begun.", labels=["queue"]
        )
        oldest = GaugeMetricFamily(
            "intavo_jobs_oldest_seconds", "How long the first of them waits.", labels=["queue"]
        )
        failed = GaugeMetricFamily("intavo_jobs_failed", "Jobs given up within a day.", labels=["job"])
        mails = GaugeMetricFamily("intavo_mails", "Mails by what became of them.", labels=["state"])
        workers = GaugeMetricFamily("intavo_workers", "Lanes of workers heard of within half a minute.")
        try:
            with connection.cursor() as cursor:
                cursor.execute(_JOBS)
                for queue, count, seconds in cursor.fetchall():
                    waiting.add_metric([queue], count)
                    oldest.add_metric([queue], max(0.0, float(seconds)))
                for statement, family in ((_FAILED, failed), (_MAILS, mails)):
                    cursor.execute(statement)
                    for name, count in cursor.fetchall():
                        family.add_metric([name], count)
                cursor.execute(_WORKERS)
                workers.add_metric([], (cursor.fetchone() or (0,))[0])
        finally:
            connection.close()
        yield from (waiting, oldest, failed, mails, workers)
