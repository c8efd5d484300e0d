"""Runs what one change needs: `make test-of PATHS="tests/core/test_hours.py console/src/lib"`."""

import subprocess
import sys

from .cluster import ROOT
from .stack import BIN


def commands(paths: list[str]) -> list[list[str]]:
    """The commands that run these files or folders, each kind by its own program."""
    typed = [path for path in paths if not path.startswith("tests/")]
    python = [path for path in paths if path.startswith("tests/")]
    found = []
    if typed:
        found.append(["scripts/node.sh", "npx", "--no-install", "vitest", "run", *typed])
    if python:
        found.append([str(BIN / "python"), "-m", "pytest", "--durations=5", *python])
    return found


def main() -> int:
    """Run them all; the first code that is not 0 is the answer."""
    if len(sys.argv) < 2:
        print(__doc__)
        return 2
    codes = [subprocess.run(command, cwd=ROOT, check=False).returncode for command in commands(sys.argv[1:])]  # noqa: S603
    return next((code for code in codes if code), 0)


if __name__ == "__main__":
    sys.exit(main())
