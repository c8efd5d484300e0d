"""Whole stacks for the tests: Intavo's processes on a fresh database, and demo businesses loaded into it."""

import contextlib
import os
import shutil
import urllib.request
import zipfile
from collections.abc import Callable, Iterator, Mapping
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

import pytest
from django.db import connection, transaction
from django.test import override_settings
from procrastinate.contrib.django import app
from procrastinate.testing import InMemoryConnector
from pytest_django.plugin import DjangoDbBlocker

from demo.business import Names
from demo.load import found, load, members_are, open_to_wherry
from intavo import clock
from intavo.copies.reading import read_copy
from intavo.copies.writing import write_copy
from intavo.sites.models import Site
from intavo.talks.models import Gateway
from scripts.cluster import uploads_of
from scripts.stack import RUN, Ports, Stack

from .databases import fresh_database

NOW = "2026-11-24T14:05:00+00:00"
# Enough for every list to have something on it; a business with all of the demo's people takes three times as long.
FEW_PEOPLE = 45
ENV = {
    "INTAVO_NOW": NOW,
    "INTAVO_PLAN_RATE": "10000",
    "INTAVO_INTAKE_RATE": "10000",
    "INTAVO_DB_POOL": "true",
}


def new_stack(name: str, base: int, **env: str) -> Stack:
    """A stack on a fresh database, with ports from `base` on; nothing of it runs yet, and its log is empty."""
    url = fresh_database(f"intavo_{name}")
    shutil.rmtree(uploads_of(url), ignore_errors=True)
    RUN.mkdir(exist_ok=True)
    log = RUN / f"tests-{name}.log"
    log.unlink(missing_ok=True)
    # Sealed by one side and opened by the other: the tests load businesses in their own process.
    shared = {"INTAVO_SECRET_KEY": os.environ["INTAVO_SECRET_KEY"]}
    return Stack(url, Ports.free_from(base), ENV | shared | env, log)


@contextlib.contextmanager
def running(stack: Stack) -> Iterator[Stack]:
    """The stack while it runs; its mail stand-in is empty."""
    try:
        stack.start()
        forget = urllib.request.Request(f"{stack.mail_url}/forget", method="POST")
        urllib.request.urlopen(forget).close()
        yield stack
    finally:
        stack.stop()


def describe(stack: Stack) -> dict[str, Any]:
    """A stack in plain values, for another process that asks it and does not stop it."""
    return {
        "database": stack.database,
        "ports": vars(stack.ports),
        "env": dict(stack.env),
        "log": str(stack.log),
    }


def described(values: Mapping[str, Any]) -> Stack:
    """The stack of which these are the values."""
    return Stack(values["database"], Ports(**values["ports"]), values["env"])


@contextlib.contextmanager
def inside(stack: Stack, blocker: DjangoDbBlocker) -> Iterator[None]:
    """As if this process were one of the stack's own: its database, its files, its clock."""
    before = connection.settings_dict["NAME"]
    with (
        blocker.unblock(),
        override_settings(MEDIA_ROOT=stack.environment()["INTAVO_MEDIA"]),
        pytest.MonkeyPatch.context() as patch,
    ):
        for name, value in stack.env.items():
            patch.setenv(name, value)
        connection.settings_dict["NAME"] = stack.database.rpartition("/")[2]
        try:
            yield
        finally:
            connection.settings_dict["NAME"] = before


def add_business(stack: Stack, names: Names, blocker: DjangoDbBlocker, people: int = FEW_PEOPLE) -> Stack:
    """Load a demo business of these names; the stack as its tests see it."""
    own = _named(stack, names)
    _in_thread(own, blocker, lambda: load(names, own.wherry_url, people))
    return own


def write_pattern(stack: Stack, path: Path, blocker: DjangoDbBlocker) -> None:
    """Load a demo business that no test has, and write a copy of it, of which others are made in a second."""
    pattern = Names("pattern")

    def write() -> None:
        owner = load(pattern, stack.wherry_url, FEW_PEOPLE)
        write_copy(owner.business_id, path)

    _in_thread(stack, blocker, write)


def add_copy(stack: Stack, names: Names, blocker: DjangoDbBlocker, pattern: Path) -> Stack:
    """Make a demo business of these names from the pattern; the stack as its tests see it."""
    own = _named(stack, names)

    def read() -> None:
        with TemporaryDirectory() as folder, app.replace_connector(InMemoryConnector()), transaction.atomic():
            owner = found(names)
            told = read_copy(owner.business_id, _renamed(pattern, names, Path(folder)))
            assert "not in this business" not in "".join(told), told
            Site.objects.filter(business_id=owner.business_id).update(key=names.site_key, slug=names.slug)
            open_to_wherry(Gateway.objects.filter(business_id=owner.business_id), names)
            members_are(owner, names, clock.now())

    _in_thread(own, blocker, read)
    return own


def _renamed(pattern: Path, names: Names, folder: Path) -> Path:
    """The pattern with hosts and addresses of another business in it."""
    path, was = folder / "copy.zip", Names("pattern")
    with zipfile.ZipFile(pattern) as whole, zipfile.ZipFile(path, "w") as out:
        for one in whole.infolist():
            data = whole.read(one)
            if one.filename.endswith((".json", ".jsonl")):
                data = data.replace(was.slug.encode(), names.slug.encode())
            out.writestr(one.filename, data)
    return path


def _named(stack: Stack, names: Names) -> Stack:
    return Stack(stack.database, stack.ports, stack.env, stack.log, stack.processes, stack.commands, names)


def _in_thread(stack: Stack, blocker: DjangoDbBlocker, work: Callable[[], object]) -> None:
    """In a thread of its own: Playwright's loop runs in this one, and connections belong to threads."""

    def done() -> None:
        try:
            work()
        finally:
            connection.close()

    with inside(stack, blocker), ThreadPoolExecutor(1) as thread:
        thread.submit(done).result()
