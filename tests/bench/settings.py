"""The project's settings with the bare views beside the real addresses."""

from intavo.project.settings import *  # noqa: F403  # the same settings, but for the addresses

ROOT_URLCONF = "tests.bench.bare"
