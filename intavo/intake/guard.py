"""Whether something sent looks like spam."""

import base64
import hashlib
import json
from datetime import UTC, datetime, timedelta

from altcha.v1 import ChallengeOptions, create_challenge, verify_solution
from django.conf import settings
from django.core.cache import cache

from intavo.core.touchpoint import Document

from .body import Sent

WORK_LASTS = 20 * 60
WORK_SIZE = 60_000


def suspicion(document: Document, sent: Sent) -> str | None:
    """Why it looks like spam: "trap", "too fast" or "no work"; None if it does not."""
    guard = document.guard
    if guard.trap and sent.trap.strip():
        return "trap"
    if sent.elapsed_ms is not None and sent.elapsed_ms < guard.least_seconds * 1000:
        return "too fast"
    return "no work" if guard.work and not _worked(sent.work) else None


def _key() -> str:
    return hashlib.sha256(f"work:{settings.SECRET_KEY}".encode()).hexdigest()


def a_piece_of_work() -> dict[str, object]:
    """A small sum for the visitor's browser, good for twenty minutes. Source: altcha, version 1."""
    # By the wall clock, which the package compares with: INTAVO_NOW does not hold it.
    options = ChallengeOptions(
        algorithm="SHA-256",
        hmac_key=_key(),
        max_number=WORK_SIZE,
        expires=datetime.now(UTC) + timedelta(seconds=WORK_LASTS),
    )
    made = create_challenge(options)
    return {
        "algorithm": made.algorithm, "challenge": made.challenge, "salt": made.salt, "signature": made.signature,
        "max": WORK_SIZE,
    }  # fmt: skip


def _worked(answer: str) -> bool:
    """Whether the answer is right, in time, and has not been used before."""
    try:
        said = json.loads(base64.b64decode(answer))
        right, _ = verify_solution(said, _key(), check_expires=True)
        sum_ = said["challenge"]
    except (ValueError, TypeError, KeyError, AttributeError):
        return False
    # By the sum itself: its answer can be written in many ways.
    return right and bool(cache.add(f"work-{sum_}", 1, WORK_LASTS))
