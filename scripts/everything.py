"""Runs everything that `make test` is, two things at a time, and says what it cost.

One database cluster serves all of it. What a part says is kept in `.run/logs` and shown where it fails; with
the logs of its stacks it is kept in `.run/failed` until the next failure. The time of the whole is
a promise: where it is over, that is said.
"""

import os
import re
import shutil
import subprocess
import sys
import time
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from .cluster import ROOT, Cluster
from .stack import BIN, RUN

LOGS, FAILED = RUN / "logs", RUN / "failed"
# In minutes, on two quiet cores with everything installed: what is wanted, and what is never to be passed.
WANTED, MOST = 12, 15
PYTEST = (str(BIN / "python"), "-m", "pytest", "--durations=10", "--durations-min=1")
BY_MODULE = ("--dist", "loadscope", "--no-loadscope-reorder")
_SLOW = re.compile(r"^([0-9.]+)s (?:call|setup|teardown) +(\S+)", re.MULTILINE)
_COUNT = re.compile(r"^=*\s*(?:.*?)(\d+ (?:passed|failed).*?) in [0-9.]+s", re.MULTILINE)


@dataclass
class Part:
    """A part by its name, the command that is it, and how it went."""

    name: str
    command: tuple[str, ...]
    seconds: float = 0
    code: int = 0

    @property
    def log(self) -> Path:
        """Where everything that it says is kept."""
        return LOGS / f"{self.name}.log"

    def run(self, env: dict[str, str]) -> bool:
        """Run it to its end; whether it is green."""
        begun = time.monotonic()
        print(f"· {self.name} …", flush=True)
        with self.log.open("wb") as out:
            self.code = subprocess.run(  # noqa: S603  # our own programs
                self.command, cwd=ROOT, env=env, stdout=out, stderr=subprocess.STDOUT, check=False
            ).returncode
        self.seconds = time.monotonic() - begun
        text = self.log.read_text(errors="replace")
        counts = _COUNT.findall(text)
        print(f"  {counts[-1] if counts else 'done'} in {self.seconds:.0f} s", flush=True)
        if self.code:
            print(text[-20_000:], flush=True)
        return self.code == 0


def parts() -> list[Part]:
    """The quick ones first: whoever has slipped hears of it soon."""
    return [
        Part("quick", ("make", "--no-print-directory", "-j2", "-k", "--output-sync=target", "quick")),
        Part("server", (*PYTEST, "-n", "2", "tests/server")),
        Part("running", (*PYTEST, "-n", "2", "--dist", "loadgroup", "tests/running")),
        Part("browser", (*PYTEST, "-n", "2", *BY_MODULE, "tests/browser")),
    ]


def summary(ran: list[Part], seconds: float) -> str:
    """What each part cost, the slowest tests, and whether it took longer than it may."""
    slow = sorted(
        (
            (float(took), test)
            for part in ran
            for took, test in _SLOW.findall(part.log.read_text(errors="replace"))
        ),
        reverse=True,
    )
    lines = ["How long it took, in seconds:"]
    lines += [f"  {part.seconds:6.0f}  {part.name}{'' if part.code == 0 else '  FAILED'}" for part in ran]
    lines += [f"  {seconds:6.0f}  all", "The ten slowest tests:"]
    lines += [f"  {took:6.1f}  {test}" for took, test in slow[:10]]
    if seconds > MOST * 60:
        lines.append(f"This is OVER the {MOST} minutes that it may take on a quiet machine.")
    elif seconds > WANTED * 60:
        lines.append(
            f"This is more than the {WANTED} minutes that are wanted, and under the {MOST} that it may take."
        )
    return "\n".join(lines)


def keep_logs() -> Path:
    """What the parts and their stacks said goes where no later run writes over it."""
    folder = FAILED / f"{datetime.now():%Y-%m-%d-%H%M%S}"  # noqa: DTZ005  # for whoever looks at this machine
    shutil.rmtree(FAILED, ignore_errors=True)
    shutil.copytree(LOGS, folder)
    for log in RUN.glob("tests-*.log"):
        shutil.copy(log, folder)
    return folder


def main() -> int:
    """Run it all; the first part that is red ends it."""
    begun = time.monotonic()
    shutil.rmtree(LOGS, ignore_errors=True)
    LOGS.mkdir(parents=True)
    cluster = None if "DATABASE_URL" in os.environ else Cluster("test")
    env = {**os.environ, **({"DATABASE_URL": cluster.start()} if cluster else {})}
    ran: list[Part] = []
    try:
        for part in parts():
            ran.append(part)
            if not part.run(env):
                print(
                    f"What it said, and the logs of what it ran, are kept in {keep_logs().relative_to(ROOT)}."
                )
                return 1
    finally:
        if cluster and cluster.started_here:
            cluster.stop()
        print(summary(ran, time.monotonic() - begun), flush=True)
    return 0


if __name__ == "__main__":
    sys.exit(main())
