"""How often a job is tried that somebody waits for, and what becomes of it then."""

from collections.abc import Callable

from procrastinate import JobContext, RetryStrategy

# Pauses of 4 s, 8 s, 16 s and so on: about nine hours of tries.
MOST_TRIES = 14
AGAIN = RetryStrategy(max_attempts=MOST_TRIES, exponential_wait=2)


def tried(context: JobContext, work: Callable[[], object], give_up: Callable[[], object]) -> None:
    """One try of a job that is tried `AGAIN`; once there is no other, `give_up` tells whoever waits for it.

    A job that workers died with as often is not begun once more: it would take the next worker with it.
    """
    tries = context.job.attempts
    if tries > MOST_TRIES:
        give_up()
        return
    try:
        work()
    except Exception:
        if tries >= MOST_TRIES:
            give_up()
        raise
