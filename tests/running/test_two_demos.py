"""Two demos started at the same moment on one machine: each has ports and a database of its own."""

import os
import re
import signal
import subprocess
from collections.abc import Iterator
from pathlib import Path

import httpx
import psycopg
import pytest

from scripts.cluster import ROOT
from scripts.ports import claim_port, release_port
from scripts.stack import BIN, Ports
from tests.databases import fresh_database
from tests.waiting import until

_CONSOLE = re.compile(r"Console +(http://\S+)")


class Demo:
    """One of them, as it is started from the command line, on a database that is migrated and holds nothing."""

    def __init__(self, name: str, folder: Path) -> None:
        self.log, self.key = folder / f"{name}.log", f"{name}0demo0key000"[:16]
        self.database = fresh_database(f"intavo_{name}")
        env = os.environ | {"DATABASE_URL": self.database, "INTAVO_RUN": str(folder / name)}
        with self.log.open("wb") as out:
            self.process = subprocess.Popen(
                [str(BIN / "python"), "-m", "scripts.demo", "--people", "5"],
                cwd=ROOT,
                env=env,
                stdout=out,
                stderr=out,
            )

    def address(self) -> str:
        """Where its console is, once it says so."""
        assert self.process.poll() is None, self.log.read_text()
        found = _CONSOLE.search(self.log.read_text())
        return found[1] if found else ""


@pytest.fixture
def demos(tmp_path: Path) -> Iterator[list[Demo]]:
    """Two, started together."""
    both = [Demo("first", tmp_path), Demo("second", tmp_path)]
    yield both
    for one in both:
        one.process.send_signal(signal.SIGINT)
    for one in both:
        one.process.wait(90)


def test_two_that_are_started_together_never_answer_each_others_requests(demos: list[Demo]) -> None:
    addresses = [until(one.address, "it is up", seconds=300, every=0.3) for one in demos]
    assert len(set(addresses)) == 2
    for one in demos:
        with psycopg.connect(one.database) as connection:
            connection.execute("UPDATE sites_site SET key = %s", [one.key])
    for address, own in zip(addresses, demos, strict=True):
        # Each knows the site that stands in its own database, however often it is asked, and not the other's.
        for one in demos:
            answers = {httpx.get(f"{address}/e/{one.key}.js", timeout=60).status_code for _ in range(20)}
            assert answers == {200 if one is own else 404}
    held = [log for one in demos if "is held by another" in (log := one.log.read_text())]
    assert held, "one of them says that the ports are taken"


def test_a_port_is_claimed_before_anything_listens_on_it() -> None:
    first = claim_port(9960)
    try:
        # Another stack of this process, or of another, is given others from then on.
        others = Ports.free_from(first)
        assert others.web != first
        assert others.moved(first)[0] == f"port {first} (web) is held by another: {others.web} is taken"
        others.release()
    finally:
        release_port(first)
    assert claim_port(first) == first
    release_port(first)
