"""Every action finds what it works on by an id, through one getter, among the rows of its actor's business."""

import ast
import importlib
import inspect
import pkgutil
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from django.db.models import Model

import intavo
from intavo.accounts.actor import Actor
from intavo.accounts.scope import own
from intavo.channels.models import Channel
from intavo.sites.models import Site

from .conftest import World

CODE = Path(intavo.__file__).parent


def actions() -> Iterator[Callable[..., object]]:
    """Every public function of ours but those that only read."""
    for module in pkgutil.walk_packages([str(CODE)], "intavo."):
        if any(part in module.name for part in (".core", ".standins", ".migrations", ".queries")):
            continue
        for name, found in inspect.getmembers(importlib.import_module(module.name), inspect.isfunction):
            if not name.startswith("_") and found.__module__ == module.name:
                yield found


def test_no_action_is_handed_a_row_of_a_business() -> None:
    handed, seen = [], 0
    for found in actions():
        hints = {name: one for name, one in found.__annotations__.items() if name != "return"}
        if Actor not in hints.values():
            continue
        seen += 1
        rows = [one for one in hints.values() if isinstance(one, type) and issubclass(one, Model)]
        handed += [f"{found.__module__}.{found.__name__}" for one in rows if hasattr(one, "business_id")]
    assert seen > 50
    assert handed == []


def test_no_row_of_an_actor_is_got_in_another_way() -> None:
    got = []
    for path in CODE.rglob("*.py"):
        for call in [one for one in ast.walk(ast.parse(path.read_text())) if isinstance(one, ast.Call)]:
            names = {one.arg: ast.unparse(one.value) for one in call.keywords}
            if getattr(call.func, "attr", "") == "get" and names.get("business_id") in {
                "actor.business_id",
                "request.auth.business_id",
            }:
                got.append(path.name)
    assert got == []


def test_what_belongs_to_another_business_is_not_there(otterwick: World, other: World) -> None:
    assert own(otterwick.owner, Site, otterwick.site.pk) == otterwick.site
    with pytest.raises(Site.DoesNotExist):
        own(other.owner, Site, otterwick.site.pk)
    with pytest.raises(Channel.DoesNotExist):
        own(otterwick.owner, Channel.objects.filter(deleted_at=None), 10**9)
