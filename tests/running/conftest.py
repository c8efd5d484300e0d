"""A whole running stack without a browser: two web servers, worker, stand-ins, and what stands in front."""

from collections.abc import Iterator

import pytest
from pytest_django.plugin import DjangoDbBlocker

from demo.business import DEMO
from scripts.stack import Stack
from tests.stacks import add_business, new_stack, running


@pytest.fixture(scope="session")
def stack(worker_id: str, django_db_blocker: DjangoDbBlocker) -> Iterator[Stack]:
    """Everything running, with the demo business. Modules that need it are of one group, so that one worker
    has it.
    """
    with running(own := new_stack(f"running_{worker_id}", 8800)):
        yield add_business(own, DEMO, django_db_blocker)
