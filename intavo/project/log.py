"""Log lines in one shape: time, level, request, and the way an exception took; never what people typed."""

import re
import traceback
import uuid
from collections.abc import Callable
from types import TracebackType
from typing import Any

import structlog
from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse

# What such an exception says is about machines; what others say may quote what somebody wrote.
_ABOUT_MACHINES = (OperationalError, InterfaceError, OSError, ImportError, MemoryError, RecursionError)
# Links of these are secrets.
_SECRET = re.compile(r"/(c|f|b|h|csv|sender|told|told-of|verify|reset|in/mail|talks)/[^/\s'\"]+")
_ID = re.compile(r"[A-Za-z0-9-]{8,64}")
Raised = tuple[type[BaseException], BaseException, TracebackType | None]


class RequestId:
    """Every request has an id, which each of its lines has: the one of the server in front,
    else a new one.
    """

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Go on, and say the id."""
        given = request.headers.get("X-Request-ID", "")
        id_ = given if _ID.fullmatch(given) else uuid.uuid4().hex
        # Until the next one on this thread: what became of a request is written after the last of these is
        # left.
        structlog.contextvars.clear_contextvars()
        structlog.contextvars.bind_contextvars(request=id_)
        response = self.get_response(request)
        response["X-Request-ID"] = id_
        return response


def the_way(error: BaseException) -> str:
    """A traceback, with the words of an exception only where they are about machines."""
    lines: list[str] = []
    seen: BaseException | None = error
    while seen is not None:
        words = f": {seen}" if isinstance(seen, _ABOUT_MACHINES) else ""
        lines += [
            *traceback.format_tb(seen.__traceback__),
            f"{type(seen).__module__}.{type(seen).__name__}{words}\n",
        ]
        seen = seen.__cause__ or (None if seen.__suppress_context__ else seen.__context__)
        if seen is not None:
            lines.append("while handling, or because of:\n")
    return "".join(lines)


def renderer(logger: object, name: str, event: structlog.types.EventDict) -> str:
    """One line for a log record; answers and addresses of people are never put into records."""
    event = structlog.processors.TimeStamper(fmt="iso")(logger, name, event)
    record = event.pop("_record", None)
    event.pop("_from_structlog", None)
    raised: Raised | Any = event.pop("exc_info", None) or (record.exc_info if record else None)
    if isinstance(raised, tuple) and len(raised) == 3 and isinstance(raised[1], BaseException):
        event["exception"] = the_way(raised[1])
    if isinstance(event.get("event"), str):
        event["event"] = _SECRET.sub(r"/\1/…", event["event"])
    order = ["timestamp", "level", "request", "event"]
    return str(structlog.processors.KeyValueRenderer(key_order=order, drop_missing=True)(logger, name, event))


def formatter() -> structlog.stdlib.ProcessorFormatter:
    """The formatter that the settings name."""
    return structlog.stdlib.ProcessorFormatter(
        processor=renderer,
        foreign_pre_chain=[
            structlog.contextvars.merge_contextvars,
            structlog.stdlib.add_log_level,
            structlog.stdlib.add_logger_name,
        ],
    )
