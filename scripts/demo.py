"""Starts everything with the demo data and stays in the foreground; Ctrl C stops all of it."""

import argparse
import contextlib
import fcntl
import os
import shutil
import signal
import sys
import time
from pathlib import Path
from types import FrameType

from .cluster import ROOT, Cluster, ClusterError, uploads_of
from .stack import RUN, Ports, Stack, stop_leftovers
from .watch import Watch

PORT = 8400


def words(stack: Stack) -> str:
    """What is printed once everything is up."""
    return f"""
  Intavo is running.

    Console     {stack.base_url}
    Sign in     morwenna@otterwick.example   paddle-demo
    Demo site   {stack.site_url}
    Mail        {stack.mail_url}   (every mail that Intavo sends)
    Wherry      {stack.wherry_url}/to/otterwick   (a made-up messaging service)

  Ctrl C stops everything.
"""


# Asking costs a process each time.
LOOKS_EVERY_SECONDS = 1.0
DATABASE = "database"


# What was said before the last start is still there; what is older than that goes with its size.
MOST_LOG = 5 * 1024 * 1024


def begin_log(log: Path) -> None:
    """Go on writing to a log, a line in it for the new start; one that is too long is put beside it first."""
    if log.exists() and log.stat().st_size > MOST_LOG:
        log.replace(log.with_suffix(".log.1"))
    with log.open("a") as out:
        print(f"--- started {time.strftime('%Y-%m-%d %H:%M:%S')}", file=out)


def _wake(number: int, frame: FrameType | None) -> None:
    raise KeyboardInterrupt


def run(stack: Stack, cluster: Cluster | None, groups: Path, once: bool) -> int:
    """Start the parts, say where they are, and wait until one ends or it is stopped."""
    try:
        stack.start()
        groups.write_text(" ".join(str(process.pid) for process in stack.processes.values()))
        (RUN / "addresses").write_text(words(stack))
        print(words(stack), flush=True)

        def begin(name: str) -> None:
            if name == DATABASE and cluster:
                with contextlib.suppress(ClusterError):
                    cluster.start_again()
                return
            stack.start_again(name)
            groups.write_text(" ".join(str(process.pid) for process in stack.processes.values()))

        watch = Watch(begin, lambda words: print(f"{words}; {stack.log} says why", flush=True))
        while not once:
            away = [DATABASE] if cluster and not cluster.running() else []
            watch.look([*away, *stack.all_ended()])
            time.sleep(LOOKS_EVERY_SECONDS)
    except KeyboardInterrupt:
        print("\nstopping …", flush=True)
    finally:
        # A second Ctrl C must not leave anything behind.
        signal.signal(signal.SIGINT, signal.SIG_IGN)
        signal.signal(signal.SIGTERM, signal.SIG_IGN)
        stack.stop()
        groups.unlink(missing_ok=True)
    return 0


def main() -> int:
    """Start the demo, or say where it already runs."""
    options = argparse.ArgumentParser(description=__doc__)
    options.add_argument("--reset", action="store_true", help="load the demo data anew first")
    options.add_argument("--once", action="store_true", help="stop as soon as everything is up")
    options.add_argument("--people", default="258", help="how many people came in the last ninety days")
    said = options.parse_args()
    RUN.mkdir(exist_ok=True)
    with (RUN / "demo.lock").open("w") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            print("The demo of this folder is running already.")
            with contextlib.suppress(FileNotFoundError):
                print((RUN / "addresses").read_text())
            return 1 if said.reset else 0
        return _locked(said.reset, said.once, said.people)


def _locked(reset: bool, once: bool, people: str) -> int:
    groups = RUN / "demo.groups"
    stop_leftovers(groups)
    # SIGINT too: a shell that starts it in the background has it ignored otherwise.
    for number in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
        signal.signal(number, _wake)
    cluster = None if os.environ.get("DATABASE_URL") else Cluster("demo")
    try:
        database = cluster.start() if cluster else os.environ["DATABASE_URL"]
        if reset and cluster:
            cluster.drop_database()
            database = cluster.start()
        if not reset:
            _keep_files(database)
        log = RUN / "demo.log"
        begin_log(log)
        stack = Stack(database, Ports.free_from(PORT), log=log)
        for line in stack.ports.moved(PORT):
            print(line, flush=True)
        stack.manage("migrate", "--verbosity", "0", "--skip-checks")
        stack.manage("load_demo", "--people", people, "--skip-checks")
        return run(stack, cluster, groups, once)
    except KeyboardInterrupt:
        return 0
    finally:
        if cluster:
            cluster.stop()


def _keep_files(database: str) -> None:
    """What a demo of an older version kept beside the code is where this one looks for it."""
    before, here = ROOT / "uploads", uploads_of(database)
    if before.is_dir() and not here.exists() and "INTAVO_MEDIA" not in os.environ:
        shutil.copytree(before, here)


if __name__ == "__main__":
    sys.exit(main())
