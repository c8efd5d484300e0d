"""Every body and query of the console comes through one door."""

from collections.abc import Iterator
from typing import Any

import pytest

from intavo.project.api import api
from intavo.sites.models import Site

from .conftest import Visitor, World

METHODS = {"get", "post", "put", "delete", "patch"}


def operations() -> Iterator[tuple[str, str, dict[str, Any]]]:
    """Each operation of the console: its method, its address for the first of everything, its description."""
    for path, found in api.get_openapi_schema()["paths"].items():
        for method in METHODS & found.keys():
            where = path
            for one in found[method].get("parameters", []):
                where = where.replace(f"{{{one['name']}}}", "1")
            yield method, where, found[method]


BODIES = sorted(
    (method, where)
    for method, where, one in operations()
    if "application/json" in one.get("requestBody", {}).get("content", {})
)
QUERIES = sorted(
    (where, parameter["name"])
    for method, where, one in operations()
    for parameter in one.get("parameters", [])
    if method == "get" and parameter["in"] == "query"
)


def test_there_is_something_to_try() -> None:
    assert (len(BODIES) > 40, len(QUERIES) > 10) == (True, True)


@pytest.mark.parametrize(("method", "where"), BODIES)
def test_a_body_with_half_a_character_is_refused_with_its_place(
    otterwick: World, method: str, where: str
) -> None:
    body = '{"name": {"of": ["ok", "\\ud800"]}, "n": 1e999}'
    answer = getattr(otterwick.console(), method)(where, body, content_type="application/json")
    assert answer.status_code == 422, answer.content
    assert [one["field"] for one in answer.json()["errors"]] == ["name.of.1", "n"]


@pytest.mark.parametrize(("method", "where"), BODIES)
def test_a_body_that_is_none_is_refused(otterwick: World, method: str, where: str) -> None:
    answer = getattr(otterwick.console(), method)(where, "{", content_type="application/json")
    assert (answer.status_code, answer["Content-Type"]) == (422, "application/problem+json")


@pytest.mark.parametrize(("where", "name"), QUERIES)
def test_a_query_with_a_nul_is_refused_with_its_name(otterwick: World, where: str, name: str) -> None:
    answer = otterwick.console().get(where, {name: "a\x00b"})
    assert answer.status_code == 422, answer.content
    assert answer.json()["errors"][0]["field"] == name


def test_a_sites_key_may_be_all_figures(otterwick: World) -> None:
    Site.objects.filter(pk=otterwick.site.pk).update(key="5660408039678366")
    assert Visitor("5660408039678366").plan().status_code == 200


@pytest.mark.parametrize("number", ["9" * 16, "9" * 400])
def test_no_row_has_an_endless_number(otterwick: World, number: str) -> None:
    assert otterwick.console().get(f"/api/follow-ups/{number}").status_code == 404
