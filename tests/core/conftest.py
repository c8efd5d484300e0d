"""What all tests of the core have in common."""

from hypothesis import settings

# How long an example takes says more of the machine than of the code; speed is measured by the benchmarks.
settings.register_profile("untimed", deadline=None)
settings.load_profile("untimed")
