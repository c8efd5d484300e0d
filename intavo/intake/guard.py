"""Whether something sent looks like spam."""

import base64
import hashlib
import json
from datetime import UTC, datetime, timedelta

from altcha.v1 import ChallengeOptions, create_challenge, verify_solution
from django.conf import settings
from django.core.cache import cache
from typing_extensions import TypedDict

from intavo.core.opening import suspicion
from intavo.core.touchpoint import Document

from .body import Sent

WORK_LASTS = 20 * 60
WORK_SIZE = 60_000


def suspected(document: Document, sent: Sent) -> str | None:
    """Why it looks like spam: "trap", "too fast" or "no work"; None if it does not."""
    found = suspicion(document, sent.trap, sent.elapsed_ms)
    return found or ("no work" if document.guard.work and not _worked(sent.work) else None)


class Work(TypedDict):
    """A sum for the visitor's browser: which number up to `max`, after the salt, has this hash. Source:
    altcha.
    """

    algorithm: str
    challenge: str
    salt: str
    signature: str
    max: int


def _key() -> str:
    return hashlib.sha256(f"work:{settings.SECRET_KEY}".encode()).hexdigest()


def a_piece_of_work() -> Work:
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
        "algorithm": made.algorithm, "challenge": made.challenge, "salt": made.salt,
        "signature": made.signature, "max": WORK_SIZE,
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
