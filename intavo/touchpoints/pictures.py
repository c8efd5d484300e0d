"""Pictures, decoded by a process of their own (`decoding`): what one does to its decoder, it does to that
alone.
"""

import json
import os
import subprocess
import sys
import threading
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from intavo.accounts.actor import Refused

from .decoding import OTHERWISE, SECONDS

# So many at a time in a process of the application; whoever comes then waits, but not for ever.
_AT_ONCE, _WAITS_SECONDS = 2, 20
_turns = threading.BoundedSemaphore(_AT_ONCE)
_PROGRAM = "intavo.touchpoints.decoding"


@dataclass(frozen=True, slots=True)
class Written:
    """A picture that was written anew: its size in pixels, its widths, its colours on a small grid as
    #rrggbb.
    """

    width: int
    height: int
    widths: list[int]
    sample: list[list[str]]
    boxed: bool


def write_anew(
    path: Path, folder: Path, widths: tuple[int, ...], tallest: int = 0, otherwise: str = ""
) -> Written:
    """Write the picture at `path` anew as `<width>.webp`, for each width that it has, at most so tall (0: as
    it is).

    Refused, naming `file`, for what is no picture that is taken (with the words `otherwise`), is too large,
    or takes its decoder too long. OSError where there is no room for it.
    """
    if not _turns.acquire(timeout=_WAITS_SECONDS):
        raise Refused(("file", "Too many pictures are being read just now; please try again."))
    try:
        done = subprocess.run(  # noqa: S603  # our own program
            [sys.executable, "-m", _PROGRAM, str(path), str(folder), str(tallest), *map(str, widths)],
            cwd=Path(__file__).parents[2],
            capture_output=True,
            timeout=SECONDS + 5,
            check=False,
        )
        told: dict[str, Any] = json.loads(done.stdout) if done.returncode == 0 else {"wrong": OTHERWISE}
    except subprocess.TimeoutExpired:
        told = {"wrong": "This picture takes too long to read."}
    finally:
        _turns.release()
    if told.get("errno"):
        raise OSError(told["errno"], os.strerror(told["errno"]))
    if wrong := told.get("wrong"):
        raise Refused(("file", otherwise if otherwise and wrong == OTHERWISE else wrong))
    return Written(**told)
