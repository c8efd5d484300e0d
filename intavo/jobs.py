"""How often a job is tried that somebody waits for."""

from procrastinate import RetryStrategy

# Pauses of 4 s, 8 s, 16 s and so on: about nine hours of tries.
MOST_TRIES = 14
AGAIN = RetryStrategy(max_attempts=MOST_TRIES, exponential_wait=2)
