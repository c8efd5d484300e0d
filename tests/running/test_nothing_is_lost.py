"""What was acknowledged is there once, whatever was killed meanwhile."""

from tests.running.kills import kill_while_sending

# So many answers that each of the three is killed on the way; `make bench` sends more.
SHORT = 40


def test_what_was_acknowledged_is_there_once_after_web_worker_and_database_were_killed() -> None:
    told = kill_while_sending(SHORT)
    assert told.wrong == []
    assert told.sent == SHORT
    assert set(told.killed) == {"web", "worker", "database"}
