"""Databases for the tests, each made in a moment as a copy of one that the migrations have been run on once."""

import hashlib
import os
import re
import subprocess
from datetime import UTC, datetime

import psycopg
from psycopg import sql

from scripts.cluster import ROOT
from scripts.stack import BIN

TEMPLATE = "intavo_migrated"
# Held by whoever makes the template, so that nobody copies what is half made.
_MAKING = 720_115


def beside(name: str, url: str = "") -> str:
    """The address of a database in the cluster of another, which is that of DATABASE_URL unless it is said."""
    return re.sub(r"/\w+$", f"/{name}", url or os.environ["DATABASE_URL"])


def fresh_database(name: str, url: str = "") -> str:
    """An empty database with all tables, whatever was there by this name; says its address. `url` is that of any
    database in its cluster; without it, it is made beside that of DATABASE_URL.
    """
    with psycopg.connect(beside("postgres", url), autocommit=True) as connection:
        connection.execute("SELECT pg_advisory_lock(%s)", [_MAKING])
        _migrate_template(connection, beside(TEMPLATE, url))
        connection.execute(sql.SQL("DROP DATABASE IF EXISTS {} WITH (FORCE)").format(sql.Identifier(name)))
        connection.execute(
            sql.SQL("CREATE DATABASE {} TEMPLATE {} STRATEGY FILE_COPY").format(
                sql.Identifier(name), sql.Identifier(TEMPLATE)
            )
        )
    return beside(name, url)


def _migrate_template(connection: "psycopg.Connection[tuple[object, ...]]", address: str) -> None:
    """Run the migrations into the template, unless it has just these already."""
    mark = _mark()
    row = connection.execute(
        "SELECT shobj_description(oid, 'pg_database') FROM pg_database WHERE datname = %s", [TEMPLATE]
    ).fetchone()
    if row is not None and row[0] == mark:
        return
    template = sql.Identifier(TEMPLATE)
    connection.execute(sql.SQL("DROP DATABASE IF EXISTS {} WITH (FORCE)").format(template))
    connection.execute(sql.SQL("CREATE DATABASE {}").format(template))
    subprocess.run(
        [str(BIN / "python"), "manage.py", "migrate", "--verbosity", "0", "--skip-checks"],
        cwd=ROOT,
        env={**os.environ, "DATABASE_URL": address, "INTAVO_DB_POOL": "false"},
        check=True,
    )
    connection.execute(sql.SQL("COMMENT ON DATABASE {} IS {}").format(template, sql.Literal(mark)))


def _mark() -> str:
    """What the tables depend on: our migrations, the versions of the packages that have some, and the month, since
    the partitions of those to come are made in advance.
    """
    paths = sorted((ROOT / "intavo").glob("*/migrations/*.py"))
    text = b"".join(path.read_bytes() for path in (*paths, ROOT / "requirements" / "app.txt"))
    return hashlib.sha256(text).hexdigest() + datetime.now(UTC).strftime(" %Y-%m")
