"""Inserting a row in one plain statement, for the path that every visitor's answer takes.

Django's own insert costs several times as much as the statement itself; what is inserted here is the
same, by the model's own columns, fields and database.
"""

from collections.abc import Iterable
from functools import lru_cache
from typing import Any

from django.db import connection, models
from psycopg.types.json import Jsonb


@lru_cache(maxsize=256)
def _statement(model: type[models.Model], names: tuple[str, ...], unless: str) -> tuple[str, frozenset[str]]:
    fields = [field for field in map(model._meta.get_field, names) if isinstance(field, models.Field)]
    quote = connection.ops.quote_name
    columns = ", ".join(quote(field.column or field.name) for field in fields)
    places = ", ".join(["%s"] * len(names))
    json_names = frozenset(
        name for name, field in zip(names, fields, strict=True) if isinstance(field, models.JSONField)
    )
    # Put together from the names of our own models; values are always passed as parameters.
    text = f"INSERT INTO {quote(model._meta.db_table)} ({columns}) VALUES ({places}) {unless} RETURNING id"  # noqa: S608
    return text, json_names


def _given(values: dict[str, Any], json_names: frozenset[str]) -> list[Any]:
    return [
        Jsonb(value) if name in json_names and not isinstance(value, str) else value for name, value in values.items()
    ]


def insert_all(rows: Iterable[tuple[type[models.Model], dict[str, Any]]]) -> None:
    """Insert rows of any models, in one trip to the database; `values` as for `insert`."""
    texts: list[str] = []
    given: list[Any] = []
    for model, values in rows:
        text, json_names = _statement(model, tuple(values), "")
        texts.append(text)
        given += _given(values, json_names)
    if texts:
        with connection.cursor() as cursor:
            cursor.execute("; ".join(texts), given)


def insert(model: type[models.Model], *, skip_doubles: bool = False, **values: Any) -> int | None:
    """Insert a row and say its id; with `skip_doubles`, None where a unique constraint has it already.

    `values` are by the names of the model's fields (a foreign key as `person_id`); every column
    without a database default has to be given; JSON as a value, or as text that is JSON already.
    Raises IntegrityError as any insert does.
    """
    text, json_names = _statement(model, tuple(values), "ON CONFLICT DO NOTHING" if skip_doubles else "")
    with connection.cursor() as cursor:
        cursor.execute(text, _given(values, json_names))
        row = cursor.fetchone()
    return int(row[0]) if row else None
