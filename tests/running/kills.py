"""Clients that send until they are told that it was taken, while web, worker and database are killed at random."""

import json
import random
import shutil
import subprocess
import threading
import urllib.error
import urllib.request
from collections import Counter
from dataclasses import dataclass, field
from typing import Any

import psycopg

from scripts.cluster import ROOT, Cluster, ClusterError, uploads_of
from scripts.stack import BIN, RUN, Ports, Stack, mail_in_secret
from tests.databases import fresh_database
from tests.waiting import until

CLIENTS, ROWS = 20, 400
# That a worker is dead is known three seconds after its heart has stopped, not thirty: what happens is the same.
HEARTBEAT = "1"
_SETUP = """
import django; django.setup()
import json
from intavo.accounts.actor import member_actor
from intavo.accounts.models import Member
from intavo.touchpoints.actions import make, save_draft, turn_on
owner = member_actor(Member.objects.filter(role="owner").order_by("pk")[0])
row = make(owner, starter="news", name="Killed")
document = dict(row.draft.document)
document["after"] |= {
    "follow_up": True, "thank_you": {"send": True, "subject": "You are on the list", "text": ["Thank you."]}
}
save_draft(owner, touchpoint_id=row.pk, document=document, based_on=row.draft.number)
row = turn_on(owner, touchpoint_id=row.pk)
from django.core.files.uploadedfile import SimpleUploadedFile
from intavo.imports.actions import read_file, take
rows = "Name,Email\\n" + "".join(f"Row {n},row{n}@hill.example\\n" for n in range(%d))
brought = read_file(owner, file=SimpleUploadedFile("rows.csv", rows.encode()))
take(owner, import_id=brought.pk)
print(json.dumps([row.public_id, row.live.number, owner.business_id]))
"""


@dataclass
class Told:
    """What was acknowledged, and what is there: nothing is in `wrong` where all is there once."""

    sent: int = 0
    killed: Counter[str] = field(default_factory=Counter)
    wrong: list[str] = field(default_factory=list)


class _Killing:
    def __init__(self, count: int, seed: int) -> None:
        self.count, self.chance = count, random.Random(seed)  # the same kills every time
        self.cluster = Cluster("kills")
        self.told = Told()
        self.done = threading.Event()
        self.acknowledged: list[str] = []
        self.mails: list[str] = []

    def run(self) -> Told:
        try:
            url = fresh_database("intavo_kills", self.cluster.start())
            shutil.rmtree(uploads_of(url), ignore_errors=True)
            env = {
                "INTAVO_PLAN_RATE": "1000000",
                "INTAVO_INTAKE_RATE": "1000000",
                "INTAVO_LOG_LEVEL": "ERROR",
                "INTAVO_HEARTBEAT_SECONDS": HEARTBEAT,
            }
            log = RUN / "tests-kills.log"
            log.unlink(missing_ok=True)
            self.stack = Stack(url, Ports.free_from(8900), env, log)
            try:
                self._run()
            finally:
                self.stack.stop()
        finally:
            self.cluster.stop()
        return self.told

    def _run(self) -> None:
        self.stack.manage("load_demo", "--people", "10", "--skip-checks")
        self.stack.start()
        urllib.request.urlopen(urllib.request.Request(f"{self.stack.mail_url}/forget", method="POST"))
        said = subprocess.run(  # our own program
            [str(BIN / "python"), "-c", _SETUP % ROWS],
            cwd=ROOT,
            env=self.stack.environment(),
            check=True,
            capture_output=True,
            text=True,
        )
        self.touchpoint, self.revision, self.business = json.loads(said.stdout.strip().splitlines()[-1])
        clients = [threading.Thread(target=self._client, args=(number,)) for number in range(CLIENTS)]
        killer = threading.Thread(target=self._kill)
        for one in (*clients, killer):
            one.start()
        for one in clients:
            one.join()
        self.done.set()
        killer.join()
        self.told.sent = len(self.acknowledged)
        self._until_all_is_worked()
        self._count()

    def _client(self, client: int) -> None:
        for number in range(self.count // CLIENTS):
            mark = f"{client:04x}{number:04x}"
            body = {
                "id": f"{mark:0>32}", "touchpoint": self.touchpoint, "revision": self.revision, "variant": None,
                "step": "ask", "answers": {"email": f"k{mark}@post.example", "name": f"K {mark}"},
                "consents": {"news": True}, "page": {"url": "https://otterwick.example/trips"}, "device": "phone",
                "visitor": {"id": mark, "utc_offset": 0, "visits": 1}, "elapsed_ms": 9000,
            }  # fmt: skip
            headers = {
                "Origin": "https://otterwick.example", "Content-Type": "text/plain",
                "X-Forwarded-For": f"2001:db8::{mark[:4]}:{mark[4:]}",
            }  # fmt: skip
            self._until_taken("/e/0tterwick0demo01/intake", json.dumps(body).encode(), headers)
            self.acknowledged.append(mark)
            if number % 4 == 0:
                mail = (
                    f"From: K {mark} <m{mark}@post.example>\r\nTo: hello@otterwick.example\r\nSubject: Boats {mark}\r\n"
                    f"Message-ID: <{mark}@post.example>\r\n\r\nIs there a boat for {mark}?\r\n"
                ).encode()
                self._until_taken(f"/in/mail/{mail_in_secret()}", mail, {"Content-Type": "message/rfc822"})
                self.mails.append(mark)
            self.done.wait(0.2)

    def _until_taken(self, path: str, body: bytes, headers: dict[str, str]) -> None:
        for _ in range(600):
            request = urllib.request.Request(self.stack.base_url + path, body, headers, method="POST")
            try:
                with urllib.request.urlopen(request, timeout=10) as answer:  # loopback only
                    if answer.status in {200, 201}:
                        return
            except urllib.error.HTTPError as error:
                if error.code < 500 and error.code != 429:
                    self.told.wrong.append(f"{path}: {error.code} {error.read()[:200]!r}")
                    return
            except OSError:
                pass
            self.done.wait(0.1)
        self.told.wrong.append(f"{path}: it was never taken")

    def _kill(self) -> None:
        """Each of the three in turn, in an order by chance, for as long as somebody sends.

        On a slow machine the next waits until something was taken again: else all of it would be down for good.
        """
        while not self.done.is_set():
            for what in self.chance.sample(["web", "worker", "database"], 3):
                taken = self._taken()
                while not self.done.wait(self.chance.uniform(0.6, 1.6)) and self._taken() == taken:
                    pass
                if self.done.is_set():
                    return
                if what == "database":
                    self._restart_database()
                    # Whatever ended with it is started anew, as the start command does.
                    while (ended := self.stack.ended()) is not None:
                        self.stack.start_again(ended)
                else:
                    self.stack.start_again(what)
                self.told.killed[what] += 1

    def _taken(self) -> int:
        return len(self.acknowledged) + len(self.mails)

    def _restart_database(self) -> None:
        """Cut off as it stands, and started again; on a slow disk it may be a while until it is gone."""
        data = str(self.cluster.data)
        for left in reversed(range(4)):
            try:
                self.cluster._run(
                    self.cluster._program("pg_ctl"),
                    "-D",
                    data,
                    "-m",
                    "immediate",
                    "-w",
                    "-t",
                    "45",
                    "-l",
                    f"{data}/server.log",
                    "restart",
                )
                return
            except ClusterError:
                if not left:
                    raise

    def _query(self, statement: str, *values: Any) -> list[tuple[Any, ...]]:
        with psycopg.connect(self.stack.database) as connection:
            return connection.execute(statement, values).fetchall()

    def _until_all_is_worked(self) -> None:
        """Jobs whose worker died are tried again once its heart has not been heard for a while."""

        def all_worked() -> bool:
            if (ended := self.stack.ended()) is not None:
                self.stack.start_again(ended)
            return not self._query(
                "SELECT count(*) FROM procrastinate_jobs WHERE status NOT IN ('succeeded', 'failed', 'cancelled', 'aborted')"
                " AND task_name IN ('send_mail', 'take_import')"
                " AND (scheduled_at IS NULL OR scheduled_at < now() + interval '5 minutes')"
            )[0][0]

        try:
            until(all_worked, "all jobs are worked off", seconds=240, every=0.3)
        except AssertionError as error:
            self.told.wrong.append(str(error))

    def _count(self) -> None:
        """Every acknowledged one is there once, with everything that belongs to it."""
        wrong = self.told.wrong
        counted = self._query(
            """SELECT address.key, count(DISTINCT person.id), count(DISTINCT followup.id),
                      count(DISTINCT consent.id), count(DISTINCT submission.id)
               FROM people_address AS address JOIN people_person AS person ON person.id = address.person_id
               LEFT JOIN followup_followup AS followup ON followup.person_id = person.id
               LEFT JOIN people_consent AS consent ON consent.person_id = person.id
               LEFT JOIN intake_submission AS submission ON submission.person_id = person.id
               WHERE address.key LIKE 'k%%@post.example' GROUP BY address.key"""
        )
        found = {key: rest for key, *rest in counted}
        wrong += [
            f"{mark}: {found.get(f'k{mark}@post.example')}"
            for mark in self.acknowledged
            if found.get(f"k{mark}@post.example") != [1, 1, 1, 1]
        ]
        with urllib.request.urlopen(f"{self.stack.mail_url}/mails.json") as answer:
            mails = json.load(answer)
        ids: dict[str, set[str]] = {}
        for one in mails:
            if one["subject"] == "You are on the list":
                ids.setdefault(one["to"], set()).add(dict(one["headers"])["Message-ID"])
        wrong += [
            f"{mark}: mailed under {len(ids.get(f'k{mark}@post.example', ()))} ids"
            for mark in self.acknowledged
            if len(ids.get(f"k{mark}@post.example", ())) != 1
        ]
        came = dict(
            self._query(
                """SELECT mail.message_id, count(DISTINCT event.id) FROM mailin_incomingmail AS mail
               JOIN people_timelineevent AS event ON event.person_id = mail.person_id AND event.kind = 'wrote by mail'
               GROUP BY mail.message_id"""
            )
        )
        wrong += [
            f"mail {mark}: {came.get(f'<{mark}@post.example>')}"
            for mark in self.mails
            if came.get(f"<{mark}@post.example>", came.get(f"{mark}@post.example")) != 1
        ]
        rows = self._query(
            """SELECT count(*), count(DISTINCT key), (SELECT count(*) FROM people_person WHERE name LIKE 'Row %%'),
                      (SELECT count(*) FROM people_timelineevent WHERE kind = 'imported')
               FROM people_address WHERE key LIKE 'row%%@hill.example'"""
        )[0]
        if rows != (ROWS, ROWS, ROWS, ROWS):
            wrong.append(f"the import: {rows}")


def kill_while_sending(count: int, seed: int = 7) -> Told:
    """Have `count` answers sent by twenty clients while parts are killed; what was wrong after it."""
    return _Killing(count, seed).run()
