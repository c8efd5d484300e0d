"""Runs a tool that reads Django's settings, with an environment in which they can be read."""

import os
import sys

from .cluster import ROOT

if __name__ == "__main__":
    os.environ.setdefault("DATABASE_URL", "postgres://none@127.0.0.1/none")
    os.environ.setdefault("INTAVO_SECRET_KEY", "for tools alone")
    os.execv(ROOT / ".venv" / "bin" / sys.argv[1], sys.argv[1:])  # noqa: S606  # our own tools
