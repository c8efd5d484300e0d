"""Plain statements that the database keeps prepared, for the path that every visitor's answer takes.

Django's own insert costs several times as much as the statement itself; what is inserted here is the
same, by the model's own columns, fields and database. Values are bound by the server, and a statement that a
connection has run before is not planned again.
"""

from collections.abc import Iterable
from functools import lru_cache
from typing import Any

from django.db import DEFAULT_DB_ALIAS, connection, connections, models
from psycopg import Cursor
from psycopg.types.json import Jsonb

# A model with the values of a row of it, as `insert` takes them.
Row = tuple[type[models.Model], dict[str, Any]]


def run(text: str, values: Iterable[Any]) -> tuple[Any, ...] | None:
    """Run a statement in the caller's transaction; its first row, or None.
    Raises what Django raises of it.
    """
    database = connections[DEFAULT_DB_ALIAS]
    database.ensure_connection()
    bare: Any = Cursor(database.connection)
    wrap = database.make_debug_cursor if database.queries_logged else database.make_cursor
    with wrap(bare) as cursor:
        cursor.execute(text, list(values))
        row = cursor.fetchone()
    return None if row is None else tuple(row)


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
        Jsonb(value) if name in json_names and not isinstance(value, str) else value
        for name, value in values.items()
    ]


def next_id(model: type[models.Model]) -> str:
    """An SQL expression for the id of a row that is inserted later; one that is never used is lost."""
    return f"nextval('{model._meta.db_table}_id_seq')"


def insert_all(rows: Iterable[Row]) -> None:
    """Insert rows of any models in one statement; `values` as for `insert`."""
    texts: list[str] = []
    given: list[Any] = []
    for model, values in rows:
        text, json_names = _statement(model, tuple(values), "")
        texts.append(text)
        given += _given(values, json_names)
    if not texts:
        return
    *ahead, last = texts
    named = ", ".join(f"row{number} AS ({text})" for number, text in enumerate(ahead))
    run(f"WITH {named} {last}" if ahead else last, given)


def insert_with(
    model: type[models.Model], then: str, given: Iterable[Any], *, skip_doubles: bool = False, **values: Any
) -> tuple[Any, ...] | None:
    """Insert a row and say its id with what SQL says of it (`then`, with its values), in one statement.

    The row stands there as `added`. None where it is there already, as for `insert`.
    """
    text, json_names = _statement(model, tuple(values), "ON CONFLICT DO NOTHING" if skip_doubles else "")
    # `then` is written in our own code; values are always passed as parameters.
    return run(f"WITH added AS ({text}) SELECT id, {then} FROM added", [*_given(values, json_names), *given])  # noqa: S608


def insert(model: type[models.Model], *, skip_doubles: bool = False, **values: Any) -> int | None:
    """Insert a row and say its id; with `skip_doubles`, None where a unique constraint has it already.

    `values` are by the names of the model's fields (a foreign key as `person_id`); every column
    without a database default has to be given; JSON as a value, or as text that is JSON already.
    Raises IntegrityError as any insert does.
    """
    text, json_names = _statement(model, tuple(values), "ON CONFLICT DO NOTHING" if skip_doubles else "")
    row = run(text, _given(values, json_names))
    return int(row[0]) if row else None
