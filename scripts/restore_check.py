"""Rehearses a backup and its restoring: the demo business saved as docs/operating.md says, and brought back
elsewhere.

Every table has the same rows, every file the same bytes, and the application runs on what was brought back.
"""

import hashlib
import os
import shutil
import sys
import tempfile
from pathlib import Path

import psycopg
from psycopg import sql

from .cluster import Cluster, uploads_of
from .stack import RUN, Ports, Stack

BACK = "intavo_restored"
_SUMMED = "SELECT count(*), md5(coalesce(string_agg(t::text, '|' ORDER BY t::text), '')) FROM {} t"


def rows_of(database: str) -> dict[str, tuple[int, str]]:
    """How many rows each table has, and a sum over what stands in them."""
    found: dict[str, tuple[int, str]] = {}
    with psycopg.connect(database) as connection:
        tables = connection.execute(
            "SELECT tablename FROM pg_tables WHERE schemaname = 'public' ORDER BY 1"
        ).fetchall()
        for (table,) in tables:
            statement = sql.SQL(
                "SELECT count(*), md5(coalesce(string_agg(t::text, '|' ORDER BY t::text), '')) FROM {} t"
            )
            count, summed = connection.execute(statement.format(sql.Identifier(table))).fetchone() or (0, "")
            found[table] = (count, summed)
    return found


def files_of(folder: Path) -> dict[str, str]:
    """The sum of each file, by its path."""
    return {
        str(path.relative_to(folder)): hashlib.sha256(path.read_bytes()).hexdigest()
        for path in folder.rglob("*")
        if path.is_file()
    }


def save(cluster: Cluster, into: Path) -> None:
    """What is to be kept of a running machine: the database by pg_dump, and the folder of files."""
    cluster.run("pg_dump", "--format=custom", f"--file={into}/intavo.dump", f"--dbname={cluster.url}")
    shutil.copytree(uploads_of(cluster.url), into / "uploads", dirs_exist_ok=True)


def bring_back(cluster: Cluster, saved: Path) -> str:
    """A new database and folder out of what was kept; the address of the database."""
    with psycopg.connect(cluster.address("postgres"), autocommit=True) as connection:
        connection.execute(f"DROP DATABASE IF EXISTS {BACK} WITH (FORCE)")
        connection.execute(f"CREATE DATABASE {BACK}")
    address = cluster.address(BACK)
    cluster.run("pg_restore", "--no-owner", "--exit-on-error", f"--dbname={address}", f"{saved}/intavo.dump")
    shutil.rmtree(uploads_of(address), ignore_errors=True)
    shutil.copytree(saved / "uploads", uploads_of(address))
    return address


def check() -> list[str]:
    """What is not as it was; nothing where all is."""
    cluster = Cluster("restore")
    saved = Path(tempfile.mkdtemp(prefix="intavo-saved-"))
    if cluster.as_root:
        # PostgreSQL's own programs run as its own user.
        saved.chmod(0o777)
    try:
        cluster.start()
        cluster.drop_database()
        url = cluster.start()
        stack = Stack(url, Ports.free_from(9500), log=RUN / "restore.log")
        stack.manage("migrate", "--verbosity", "0", "--skip-checks")
        stack.manage("load_demo", "--skip-checks")
        before, files = rows_of(url), files_of(uploads_of(url))
        save(cluster, saved)
        address = bring_back(cluster, saved)
        after = rows_of(address)
        wrong = [
            f"{table}: {rows[0]} rows before, {after.get(table, (0,))[0]} after"
            for table, rows in before.items()
            if after.get(table) != rows
        ]
        if files_of(uploads_of(address)) != files:
            wrong.append("the files are not the same")
        rows = sum(count for count, _ in before.values())
        print(f"{len(before)} tables, {rows} rows, {len(files)} files brought back")
        running = Stack(address, Ports.free_from(9500), log=RUN / "restore.log")
        try:
            running.manage("migrate", "--check", "--skip-checks")
            running.start()
        finally:
            running.stop()
        return wrong
    finally:
        cluster.stop()
        shutil.rmtree(saved, ignore_errors=True)


def main() -> int:
    """1 where something is not as it was."""
    os.environ.pop("DATABASE_URL", None)
    wrong = check()
    print(*(wrong or ["everything is as it was, and runs"]), sep="\n")
    return bool(wrong)


if __name__ == "__main__":
    sys.exit(main())
