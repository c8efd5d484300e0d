"""The worker's lanes: what one of them waits for holds up no other."""

import asyncio
import threading

import pytest
from asgiref.sync import sync_to_async
from procrastinate import App
from procrastinate.contrib.django import app
from procrastinate.testing import InMemoryConnector

from intavo.project.management.commands import work


def test_all_lanes_are_full_at_once_on_a_machine_of_any_size(monkeypatch: pytest.MonkeyPatch) -> None:
    """With the loop's own threads, six on two processors, those who wait here for ten of them would wait in vain."""
    at_once = sum(places for _, places in work.LANES.values())
    all_there = threading.Barrier(at_once, timeout=30)

    async def full(working: App, stopping: asyncio.Event) -> float:
        job = sync_to_async(all_there.wait, thread_sensitive=False)
        await asyncio.gather(*(job() for _ in range(at_once)))
        stopping.set()
        return 0

    monkeypatch.setattr(work, "_until_set_back", full)
    with app.replace_connector(InMemoryConnector()) as working:
        asyncio.run(work.run(working))
    assert not all_there.broken
