"""Log lines in one shape, each with its time and level."""

import structlog


def renderer(logger: object, name: str, event: structlog.types.EventDict) -> str:
    """One line for a log record; answers and addresses of people are never put into records."""
    event = structlog.processors.TimeStamper(fmt="iso")(logger, name, event)
    event.pop("_record", None)
    event.pop("_from_structlog", None)
    return str(structlog.processors.KeyValueRenderer(key_order=["timestamp", "event"])(logger, name, event))


def formatter() -> structlog.stdlib.ProcessorFormatter:
    """The formatter that the settings name."""
    return structlog.stdlib.ProcessorFormatter(
        processor=renderer, foreign_pre_chain=[structlog.stdlib.add_log_level, structlog.stdlib.add_logger_name]
    )
