"""Intavo's own PostgreSQL cluster: made where there is none, on a free loopback port, never a foreign one."""

import hashlib
import os
import pwd
import secrets
import shutil
import subprocess
import time
from pathlib import Path

from .ports import HOST, claim_port

ROOT = Path(__file__).resolve().parent.parent


def uploads_of(database: str) -> Path:
    """Where the files are that belong to a database of ours, by its name or address: they go when it goes."""
    return ROOT / ".run" / "uploads" / database.rpartition("/")[2]


class ClusterError(RuntimeError):
    """PostgreSQL could not be made or started; the message says what it said."""


class Cluster:
    """One cluster for one purpose ("demo" or "test") of this clone."""

    def __init__(self, purpose: str) -> None:
        self.purpose = purpose
        self.as_root = os.geteuid() == 0
        if self.as_root:
            # Outside the clone: postgres may not be allowed to enter the folder that holds it.
            mark = hashlib.sha256(str(ROOT).encode()).hexdigest()[:16]
            self.home = Path("/var/lib/intavo") / mark / purpose
        else:
            self.home = ROOT / ".run" / "postgres" / purpose
        self.data = self.home / "data"
        self.started_here = False

    @staticmethod
    def _program(name: str) -> str:
        found = sorted(Path("/usr/lib/postgresql").glob(f"*/bin/{name}"), key=lambda p: int(p.parts[4]))
        path = str(found[-1]) if found else shutil.which(name)
        if path is None:
            raise ClusterError(f"{name} is not installed; run make demo or make test")
        return path

    def _run(self, *command: str, check: bool = True) -> subprocess.CompletedProcess[str]:
        env = {"PATH": os.environ.get("PATH", ""), "LC_ALL": "C.UTF-8", "HOME": "/"}
        identity: dict[str, object] = {}
        if self.as_root:
            user = pwd.getpwnam("postgres")
            identity = {"user": user.pw_uid, "group": user.pw_gid, "extra_groups": []}
        result: subprocess.CompletedProcess[str] = subprocess.run(  # noqa: S603  # fixed programs, no shell
            command,
            cwd="/",
            env=env,
            text=True,
            stdin=subprocess.DEVNULL,
            capture_output=True,
            check=False,
            **identity,  # type: ignore[call-overload]
        )
        if check and result.returncode:
            raise ClusterError(f"{Path(command[0]).name}: {result.stderr.strip() or result.stdout.strip()}")
        return result

    @property
    def password(self) -> str:
        """The password of the cluster's superuser, readable by its owner alone."""
        return (self.home / "password").read_text().strip()

    def _make(self) -> None:
        self.home.mkdir(parents=True, exist_ok=True)
        secret = self.home / "password"
        if not secret.exists():
            secret.touch(mode=0o600)
            secret.write_text(secrets.token_urlsafe(24) + "\n")
        if self.as_root:
            user = pwd.getpwnam("postgres")
            for path in (self.home, secret):
                os.chown(path, user.pw_uid, user.pw_gid)
        if self.data.exists():
            # Making it was cut short the last time: there is nothing in it yet.
            shutil.rmtree(self.data)
        self._run(
            self._program("initdb"),
            "-D",
            str(self.data),
            "-U",
            "intavo",
            "-E",
            "UTF8",
            "--locale=C.UTF-8",
            "--auth=scram-sha-256",
            f"--pwfile={secret}",
        )
        (self.home / "made").touch()

    def run(self, program: str, *words: str) -> None:
        """Run one of PostgreSQL's own programs as it is to be run here; ClusterError with what it said."""
        self._run(self._program(program), *words)

    def running(self) -> bool:
        """Whether it runs."""
        return self._run(self._program("pg_ctl"), "-D", str(self.data), "status", check=False).returncode == 0

    def start(self) -> str:
        """Start it if it does not run; says the address of its database for this purpose."""
        if not (self.home / "made").exists():
            self._make()
        if not self.running():
            self._start_on_a_free_port()
        self._make_database()
        return self.url

    def _start_on_a_free_port(self) -> None:
        log = self.data / "server.log"
        for attempt in range(5):
            port = claim_port(54320 + attempt * 7)
            options = f"-c listen_addresses={HOST} -c port={port} -c unix_socket_directories=''"
            options += " -c max_connections=120"
            # A page of today's disks costs the same wherever it stands.
            options += " -c random_page_cost=1.1"
            if self.purpose == "test":
                options += " -c fsync=off -c full_page_writes=off -c synchronous_commit=off"
            started = self._run(
                self._program("pg_ctl"),
                "-D",
                str(self.data),
                "-l",
                str(log),
                "-w",
                "-t",
                "60",
                "-o",
                options,
                "start",
                check=False,
            )
            if started.returncode == 0:
                self.started_here = True
                return
            time.sleep(0.3)
        raise ClusterError(f"PostgreSQL did not start; see {log}")

    def start_again(self) -> None:
        """Start it as it was started before, on the same port;
        ClusterError where that does not work (yet).
        """
        log = self.data / "server.log"
        self._run(self._program("pg_ctl"), "-D", str(self.data), "-l", str(log), "-w", "-t", "60", "restart")

    @property
    def port(self) -> int:
        """The port on which it runs, as the running server wrote it down."""
        return int((self.data / "postmaster.pid").read_text().splitlines()[3])

    @property
    def database(self) -> str:
        """The database of this purpose."""
        return f"intavo_{self.purpose}"

    def address(self, database: str) -> str:
        """The URL of a database in this cluster."""
        return f"postgres://intavo:{self.password}@{HOST}:{self.port}/{database}"

    @property
    def url(self) -> str:
        """The URL of this purpose's database."""
        return self.address(self.database)

    def _make_database(self) -> None:
        import psycopg

        for _ in range(100):
            try:
                with psycopg.connect(self.address("postgres"), autocommit=True) as connection:
                    known = connection.execute(
                        "SELECT 1 FROM pg_database WHERE datname = %s", [self.database]
                    )
                    if known.fetchone() is None:
                        connection.execute(f'CREATE DATABASE "{self.database}"')
                    return
            except psycopg.OperationalError:
                time.sleep(0.1)
        raise ClusterError("PostgreSQL runs but does not answer")

    def drop_database(self) -> None:
        """Forget everything in this purpose's database."""
        import psycopg

        with psycopg.connect(self.address("postgres"), autocommit=True) as connection:
            connection.execute(f'DROP DATABASE IF EXISTS "{self.database}" WITH (FORCE)')
        shutil.rmtree(uploads_of(self.database), ignore_errors=True)

    def stop(self) -> None:
        """Stop it, cutting connections that are open."""
        self._run(self._program("pg_ctl"), "-D", str(self.data), "-m", "fast", "-w", "stop", check=False)
