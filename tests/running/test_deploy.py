"""What ships for a machine in earnest, started as far as it can be here."""

import re
import ssl
import subprocess
import urllib.request
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from urllib.error import HTTPError, URLError

import psycopg
import pytest

from scripts.cluster import ROOT
from scripts.front import program
from scripts.ports import claim_port
from scripts.stack import BIN, Stack
from tests.waiting import until

pytestmark = pytest.mark.xdist_group("the stack")

DEPLOY = ROOT / "deploy"


def command(unit: str) -> list[str]:
    """What a unit starts, in this clone."""
    found = re.search(r"^ExecStart=(.*)$", (DEPLOY / unit).read_text(), re.MULTILINE)
    assert found
    return [word.replace("/srv/intavo", str(ROOT)) for word in found[1].split()]


@dataclass
class Machine:
    """A server in front with the application behind it."""

    port: int
    certificate: Path
    figures: int

    def asked(self, path: str) -> tuple[int, dict[str, str]]:
        """The status and heads (in small letters) of an answer by https; 0 while there is none."""
        address = f"https://127.0.0.1:{self.port}{path}"
        request = urllib.request.Request(address, headers={"Host": "intavo.example.org"})
        trusted = ssl.create_default_context(cafile=str(self.certificate))
        trusted.check_hostname = False
        try:
            with urllib.request.urlopen(request, timeout=10, context=trusted) as answer:
                return answer.status, {name.lower(): value for name, value in answer.headers.items()}
        except HTTPError as error:
            return error.code, {}
        except (URLError, OSError):
            return 0, {}


@pytest.fixture
def certificate(tmp_path: Path) -> Path:
    """A certificate of our own, with its key beside it."""
    made = [
        "openssl",
        "req",
        "-x509",
        "-newkey",
        "rsa:2048",
        "-nodes",
        "-days",
        "2",
        "-subj",
        "/CN=intavo.example.org",
    ]
    keys = ["-keyout", str(tmp_path / "key.pem"), "-out", str(tmp_path / "cert.pem")]
    subprocess.run([*made, *keys], check=True, capture_output=True)
    return tmp_path / "cert.pem"


@pytest.fixture
def machine(stack: Stack, certificate: Path, tmp_path: Path) -> Iterator[Machine]:
    """Application and server in front as they ship, on free ports."""
    app, tls, plain = claim_port(8810), claim_port(8843), claim_port(8880)
    env = stack.environment() | dict(
        line.split("=", 1)
        for line in (DEPLOY / "intavo.env").read_text().splitlines()
        if line and line[0] != "#"
    )
    env |= {name: stack.environment()[name] for name in ("DATABASE_URL", "INTAVO_SECRET_KEY", "INTAVO_MEDIA")}
    env["PROMETHEUS_MULTIPROC_DIR"] = str(tmp_path / "figures")
    (tmp_path / "figures").mkdir()
    figures = claim_port(8864)
    watched = [str(figures) if word == "9464" else word for word in command("intavo-metrics.service")]
    words = [str(app) if word == "8401" else word for word in command("intavo-web.service")]
    written = subprocess.run(
        [
            str(BIN / "python"),
            "-m",
            "scripts.front",
            "--name",
            "intavo.example.org",
            "--certificate",
            str(certificate),
            "--key",
            str(certificate.with_name("key.pem")),
            "--application",
            f"127.0.0.1:{app}",
            "--folder",
            str(tmp_path),
        ],
        check=True,
        capture_output=True,
        text=True,
        cwd=ROOT,
    ).stdout
    for of, free in ((80, plain), (443, tls)):
        written = written.replace(f"listen {of} ", f"listen 127.0.0.1:{free} ")
        written = re.sub(rf"\n *listen \[::\]:{of} [^\n]*", "", written)
    rules = tmp_path / "nginx.conf"
    rules.write_text(written.replace("user www-data;", "daemon off;\nmaster_process off;"))
    parts = [
        subprocess.Popen(words, cwd=ROOT, env=env),
        subprocess.Popen(watched, cwd=ROOT, env=env),
        subprocess.Popen([program(), "-e", "stderr", "-p", str(tmp_path), "-c", str(rules)]),
    ]
    try:
        yield Machine(tls, certificate, figures)
    finally:
        for part in parts:
            part.terminate()
        for part in parts:
            part.wait(20)


def test_application_and_server_in_front_run_as_they_ship(machine: Machine) -> None:
    until(lambda: machine.asked("/healthz")[0] == 200, "it is up", seconds=120, every=0.3)
    status, heads = machine.asked("/sign-in")
    assert (status, heads["strict-transport-security"]) == (200, "max-age=31536000")
    assert "Secure" in heads["set-cookie"]
    with urllib.request.urlopen(f"http://127.0.0.1:{machine.figures}/metrics", timeout=10) as answer:
        said = answer.read().decode()
    assert 'intavo_answers_total{kind="page",status="200"} 1.0' in said
    assert re.search(r'intavo_request_seconds_count\{kind="health"\} [1-9]', said)
    assert re.search(r"^intavo_workers [1-9]", said, re.MULTILINE)


def test_jobs_run_as_they_ship_and_end_when_they_are_told(stack: Stack) -> None:
    with psycopg.connect(stack.database, autocommit=True) as connection:
        known = "SELECT count(*) FROM procrastinate_workers"
        (before,) = connection.execute(known).fetchone() or (0,)
        jobs = subprocess.Popen(command("intavo-work.service"), cwd=ROOT, env=stack.environment())

        def listening() -> bool:
            return (connection.execute(known).fetchone() or (0,))[0] >= before + 3

        until(listening, "its lanes are there", seconds=120, every=0.3)
    jobs.terminate()
    assert jobs.wait(30) == 0
