"""What was acknowledged is there once, whatever was killed meanwhile."""

from tests.kills import kill_while_sending


def test_what_was_acknowledged_is_there_once_after_web_worker_and_database_were_killed() -> None:
    told = kill_while_sending(200)
    assert told.wrong == []
    assert told.sent == 200
    assert set(told.killed) == {"web", "worker", "database"}
