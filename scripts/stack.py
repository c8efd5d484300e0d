"""Starts and stops the parts of Intavo as processes: for the demo, the browser tests and the measurements."""

import contextlib
import ctypes
import hashlib
import os
import secrets
import signal
import subprocess
import sys
import time
import urllib.request
from collections.abc import Mapping
from dataclasses import astuple, dataclass, field, fields
from pathlib import Path
from urllib.error import URLError

from demo.business import DEMO, WHERRY_BEARER, WHERRY_SECRET, Names

from . import front
from .cluster import ROOT, uploads_of
from .ports import claim_port, release_port

BIN = ROOT / ".venv" / "bin"
# Another folder for another stack of the same clone.
RUN = Path(os.environ.get("INTAVO_RUN", ROOT / ".run"))
_PR_SET_PDEATHSIG = 1
CHROMIUM = "/usr/bin/chromium"
# The browser's own windows are drawn by pages of their own, for each window anew; nobody sees them here. The
# first lines are what Playwright turns off, since the last list that is given counts.
_TURNED_OFF = (
    "AvoidUnnecessaryBeforeUnloadCheckSync", "DestroyProfileOnBrowserClose", "HttpsUpgrades",
    "HttpsFirstBalancedModeAutoEnable", "LensOverlay", "MediaRouter", "PaintHolding",
    "ThirdPartyStoragePartitioning", "AvoidCorsURLLoaderRestartOnRedirect", "OptimizationHints",
    "NetworkTimeServiceQuerying", "PreconnectToSearch", "PreloadTopChromeWebUI", "InitialWebUI",
    "WebUIReloadButton", "WebUIOmniboxPopup", "WebUIOmniboxFullPopup", "WebUIOmniboxAimPopup",
)  # fmt: skip
CHROMIUM_FLAGS = (
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
    f"--disable-features={','.join(_TURNED_OFF)}",
)


def secret_key() -> str:
    """The key that signs sessions here; made once and kept in the run folder."""
    path = RUN / "secret"
    if not path.exists():
        RUN.mkdir(exist_ok=True)
        path.touch(mode=0o600)
        path.write_text(secrets.token_urlsafe(48))
    return path.read_text()


def mail_in_secret() -> str:
    """The secret under which the mail stand-in hands mail in, for every business here."""
    return hashlib.sha256(f"mail in {secret_key()}".encode()).hexdigest()[:32]


def _die_with_parent() -> None:
    # Linux: a child does not outlive a parent that was killed with SIGKILL.
    ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGKILL)


@dataclass
class Ports:
    """Where the parts listen on loopback."""

    web: int
    site: int
    mail: int
    smtp: int
    wherry: int
    app: int

    @classmethod
    def free_from(cls, base: int) -> "Ports":
        """The standard ports counted from `base`, or the next free ones; this process's until `release`."""
        return cls(*(claim_port(wanted) for wanted in cls.wanted(base)))

    @staticmethod
    def wanted(base: int) -> tuple[int, ...]:
        """The standard ports counted from `base`, in the order of the fields."""
        return (base, base + 1, base + 2, base + 25, base + 3, base + 4)

    def release(self) -> None:
        """Give them back."""
        for port in astuple(self):
            release_port(port)

    def moved(self, base: int) -> list[str]:
        """What stands elsewhere than at its standard port, in words: one line for each."""
        names = [one.name for one in fields(self)]
        return [
            f"port {wanted} ({name}) is held by another: {port} is taken"
            for name, wanted, port in zip(names, self.wanted(base), astuple(self), strict=True)
            if port != wanted
        ]


@dataclass
class Stack:
    """The running parts. `env` is added to each; `database` is the URL of a migrated database."""

    database: str
    ports: Ports
    env: Mapping[str, str] = field(default_factory=dict)
    log: Path | None = None
    processes: dict[str, subprocess.Popen[bytes]] = field(default_factory=dict)
    commands: dict[str, tuple[str, ...]] = field(default_factory=dict)
    names: Names = DEMO

    @property
    def base_url(self) -> str:
        """Where the console is."""
        return f"http://127.0.0.1:{self.ports.web}"

    @property
    def site_url(self) -> str:
        """Where the demo business's web site is."""
        return f"http://{self.names.local_host}:{self.ports.site}"

    @property
    def mail_url(self) -> str:
        """Where the mail stand-in shows its mails."""
        return f"http://127.0.0.1:{self.ports.mail}"

    @property
    def wherry_url(self) -> str:
        """Where the messaging stand-in is."""
        return f"http://wherry.localhost:{self.ports.wherry}"

    def environment(self) -> dict[str, str]:
        """What every part finds in its environment."""
        return {
            **os.environ, "PYTHONPATH": str(ROOT), "PYTHONUNBUFFERED": "1",
            "DJANGO_SETTINGS_MODULE": "intavo.project.settings", "DATABASE_URL": self.database,
            "INTAVO_SECRET_KEY": secret_key(), "INTAVO_BASE_URL": self.base_url,
            "INTAVO_MAIL_URL": f"smtp://127.0.0.1:{self.ports.smtp}", "INTAVO_WHERRY": self.wherry_url,
            "INTAVO_LOCAL_GATEWAYS": "127.0.0.1", "INTAVO_MAIL_IN_SECRET": mail_in_secret(),
            "INTAVO_MAIL_IN_DOMAIN": "in.intavo.example",
            "INTAVO_TRUSTED_PROXIES": "127.0.0.1",
            "INTAVO_MEDIA": os.environ.get("INTAVO_MEDIA", str(uploads_of(self.database))), **self.env,
        }  # fmt: skip

    def manage(self, *words: str) -> None:
        """Run a Django command to its end; CalledProcessError if it fails."""
        subprocess.run(  # noqa: S603  # our own program
            [str(BIN / "python"), "manage.py", *words], cwd=ROOT, env=self.environment(), check=True
        )

    def launch(self, name: str, *command: str) -> None:
        """Start a part; it ends with this process, however that ends."""
        self.commands[name] = command
        output = self.log.open("ab") if self.log else None
        self.processes[name] = subprocess.Popen(  # noqa: S603  # our own programs
            command,
            cwd=ROOT,
            env=self.environment(),
            stdin=subprocess.DEVNULL,
            stdout=output,
            stderr=output,
            start_new_session=True,
            preexec_fn=_die_with_parent,
        )

    def start_web(self, name: str = "web", port: int | None = None) -> None:
        """Start a process of the application, which the server in front asks where it has no port of
        its own.
        """
        self.launch(
            name,
            str(BIN / "granian"),
            "--interface",
            "wsgi",
            "--host",
            "127.0.0.1",
            "--port",
            str(port or self.ports.app),
            "--workers",
            "1",
            "--blocking-threads",
            "8",
            "--backlog",
            "512",
            "--log-level",
            "warning",
            "--no-ws",
            "intavo.project.wsgi:application",
        )

    def start_front(self) -> None:
        """Start the server in front, which takes requests in whole and answers while the application is
        away.
        """
        folder = RUN / f"front-{self.ports.web}"
        written = front.on_loopback(self.ports.web, self.ports.app, folder)
        self.launch("server in front", front.program(), "-e", "stderr", "-p", str(folder), "-c", str(written))

    def start_worker(self) -> None:
        """Start the worker that runs jobs."""
        self.launch("worker", str(BIN / "python"), "manage.py", "work", "--skip-checks")

    def start_outside(self) -> None:
        """Start the stand-ins of the outside world and the demo business's web site."""
        python = str(BIN / "python")
        self.launch(
            "mail stand-in",
            python,
            "-m",
            "standins.mail",
            "--http",
            str(self.ports.mail),
            "--smtp",
            str(self.ports.smtp),
            "--keep",
            str(RUN / f"mail-{self.ports.mail}"),
            "--answers",
            f"{self.base_url}/in/mail/{mail_in_secret()}",
        )
        self.launch(
            "demo site",
            python,
            "-m",
            "demo.serve",
            "--port",
            str(self.ports.site),
            "--intavo",
            self.base_url,
        )
        self.start_wherry()

    def start_wherry(self) -> None:
        """Start the messaging stand-in."""
        self.launch(
            "messaging stand-in",
            str(BIN / "python"),
            "-m",
            "standins.wherry",
            "--port",
            str(self.ports.wherry),
            "--keep",
            str(RUN / f"wherry-{self.ports.wherry}"),
            "--call",
            f"{self.base_url}/g/{self.names.wherry_key}",
            "--secret",
            WHERRY_SECRET,
            "--bearer",
            WHERRY_BEARER,
        )

    def start(self) -> None:
        """Start every part and wait until all are up."""
        self.start_outside()
        self.start_front()
        self.start_web()
        self.start_worker()
        self.wait(f"{self.base_url}/healthz")
        self.wait(f"{self.mail_url}/")
        self.wait(f"http://127.0.0.1:{self.ports.site}/")
        self.wait(f"http://127.0.0.1:{self.ports.wherry}/")

    def wait(self, url: str, seconds: float = 60) -> None:
        """Wait until an address answers 200; RuntimeError if a part ends or it takes too long."""
        give_up = time.monotonic() + seconds
        while time.monotonic() < give_up:
            ended = self.ended()
            if ended:
                raise RuntimeError(f"the {ended} ended with {self.processes[ended].returncode}")
            try:
                with urllib.request.urlopen(url, timeout=5) as answer:  # noqa: S310  # loopback only
                    if answer.status == 200:
                        return
            except (URLError, OSError):
                time.sleep(0.1)
        raise RuntimeError(f"{url} does not answer")

    def ended(self) -> str | None:
        """The name of a part that has ended by itself."""
        return next(iter(self.all_ended()), None)

    def all_ended(self) -> list[str]:
        """The names of all parts that have ended by themselves."""
        return [name for name, process in self.processes.items() if process.poll() is not None]

    def start_again(self, name: str) -> None:
        """Start a part anew that has ended, with whatever it has left behind stopped first."""
        _signal(self.processes[name].pid, signal.SIGKILL)
        self.launch(name, *self.commands[name])

    def stop_one(self, name: str, how: signal.Signals = signal.SIGTERM) -> None:
        """Stop a part with all that it started."""
        process = self.processes.pop(name)
        for one in (how, signal.SIGKILL):
            try:
                os.killpg(process.pid, one)
            except ProcessLookupError:
                break
            try:
                process.wait(8)
            except subprocess.TimeoutExpired:
                continue
            # The leader is gone; whatever it started is told to go as well.
            how = signal.SIGKILL

    def stop(self) -> None:
        """Stop everything."""
        for process in self.processes.values():
            _signal(process.pid, signal.SIGTERM)
        for name in list(self.processes):
            self.stop_one(name)
        self.ports.release()


def _signal(group: int, number: signal.Signals) -> None:
    with contextlib.suppress(ProcessLookupError):
        os.killpg(group, number)


def stop_leftovers(path: Path) -> None:
    """Stop process groups that an earlier run wrote down and that still run this clone's programs."""
    if not path.exists():
        return
    for group in path.read_text().split():
        for entry in Path("/proc").glob("[0-9]*"):
            try:
                same = os.getpgid(int(entry.name)) == int(group)
                ours = str(ROOT).encode() in (entry / "cmdline").read_bytes()
            except (ProcessLookupError, FileNotFoundError, PermissionError):
                continue
            if same and ours:
                _signal(int(group), signal.SIGKILL)
                break
    path.unlink()


if __name__ == "__main__":
    sys.exit("this is a library; run make demo")
