"""Odd requests at every address of both sides, over the wire: none may be answered with 5xx.

`python -m tests.running.fuzz <rounds> [<seed>]` runs it alone. How much is asked is counted and not timed: a round is a few
requests at every operation of the console and as many again at the visitor's side, however long they take. The console
is asked as its OpenAPI has it, signed in, with the ids that are there, and in chains, where what one operation answered
goes into the next; the visitor's protocol, pages and forms as their parts may be bent.
"""

import http.client
import json
import random
import re
import sys
import threading
from collections import Counter
from collections.abc import Iterable, Iterator
from contextlib import suppress
from dataclasses import dataclass, field
from http.cookies import SimpleCookie
from typing import Any
from urllib.parse import quote, urlencode

import hypothesis
import psycopg
import schemathesis
from hypothesis import HealthCheck, Phase, Verbosity
from hypothesis.errors import Flaky
from psycopg import sql
from schemathesis.core.result import Ok

from demo.business import SITE_KEY, SITE_SLUG
from scripts.cluster import ROOT, Cluster
from scripts.stack import RUN, Ports, Stack, mail_in_secret
from tests.databases import fresh_database

ORIGIN = "https://otterwick.example"
# How many requests a round is: to each operation of the console, and to the visitor's side as a whole.
AS_DESCRIBED, BENT, BY_VISITORS = 3, 6, 2000
# How often chains are begun in a round, how many each time at most, and the steps of each.
BEGINNINGS, CHAINS, STEPS = 8, 6, 8
# What goes into places that are meant for something else.
ODD: tuple[Any, ...] = (
    "", " ", "\x00", "a\x00b", "\ud800", "\udfff x", "٣", "²", "9" * 5000, "-1", "0", "1e999", "NaN", "null", "x" * 9000,
    "\u202e", "\ufeff", "👩‍👩‍👧", "a\r\nBcc: b@x.example", "../../etc/passwd", "%00", "%ff", "{{7*7}}", "<b>", "'; --", "tp_",
    "0001-01-01T00:00:00Z", "9999-12-31T23:59:59Z", "2026-11-24T14:05:00", "2026-02-30", "24:00", "-00:00",
    "javascript:alert(1)", "java\tscript:x", "//x.example", "https://x.example:99999/", "https://[::1", "http://\x00",
    "mailto:", "tel:", "ife@x.example", "@", "a@b", "“", "Europe/Nowhere", "xx-XX", "en-u-ca-" + "a" * 300,
    0, -1, 1, 2**31, 2**53, 2**63, 2**64, 10**40, -(2**63), 0.1, -0.0, 1e300, True, False, None,
    [], {}, [None], [[]], {"": ""}, {"a": {"a": {"a": []}}}, ["x"] * 300, {"kind": "x"}, {"id": "\x00"},
)  # fmt: skip


@dataclass
class Told:
    """What is to be asked, how many were, how they were answered, and which answers are wrong."""

    due: set[str] = field(default_factory=set)
    asked: Counter[str] = field(default_factory=Counter)
    statuses: Counter[int] = field(default_factory=Counter)
    wrong: list[str] = field(default_factory=list)
    # Operations that were asked with what another had answered.
    followed: Counter[str] = field(default_factory=Counter)


class Client:
    """One connection, opened anew when the server has closed it."""

    def __init__(self, port: int, told: Told) -> None:
        self.port, self.told = port, told
        self.connection = http.client.HTTPConnection("127.0.0.1", port, timeout=30)
        self.cookies: dict[str, str] = {}

    def ask(
        self, method: str, path: str, body: bytes = b"", headers: dict[str, str] | None = None
    ) -> tuple[int, bytes]:
        """Send it as it is; the status and what came."""
        told = (
            {"Cookie": "; ".join(f"{name}={value}" for name, value in self.cookies.items())}
            if self.cookies
            else {}
        )
        if "csrftoken" in self.cookies:
            told |= {"X-CSRFToken": self.cookies["csrftoken"], "Referer": f"http://127.0.0.1:{self.port}/"}
        for last in (False, True):
            try:
                self.connection.request(method, path, body, told | (headers or {}))
                answer = self.connection.getresponse()
                content = answer.read()
                break
            except (OSError, http.client.HTTPException):
                self.connection.close()
                if last:
                    raise
        for value in answer.headers.get_all("Set-Cookie") or []:
            for name, one in SimpleCookie(value).items():
                self.cookies[name] = one.value
        self.told.statuses[answer.status] += 1
        if answer.status >= 500:
            self.told.wrong.append(
                f"{method} {path[:300]} {body[:600]!r} {headers}: {answer.status} {content[:120]!r}"
            )
        return answer.status, content


def sign_in(client: Client) -> None:
    """As the demo business's owner."""
    client.ask("GET", "/_allauth/browser/v1/auth/session")
    client.ask("GET", "/sign-in")
    body = json.dumps({"email": "morwenna@otterwick.example", "password": "paddle-demo"}).encode()
    status, said = client.ask(
        "POST", "/_allauth/browser/v1/auth/login", body, {"Content-Type": "application/json"}
    )
    assert status == 200, said


class Console:
    """Every operation of the console's API, as its description has it and as it has it not."""

    def __init__(self, client: Client, chance: random.Random, ids: dict[str, list[str]]) -> None:
        self.client, self.chance, self.ids = client, chance, ids
        self.schema = schemathesis.openapi.from_path(ROOT / "docs" / "openapi.json")

    def operations(self) -> list[Any]:
        """Everything that is asked, the ones that take things away last."""
        found = [one.ok() for one in self.schema.get_all_operations() if isinstance(one, Ok)]
        found = [one for one in found if one.path not in _NOT_ASKED]
        self.chance.shuffle(found)
        return sorted(found, key=lambda one: one.method.upper() == "DELETE")

    def run(self, rounds: float) -> None:
        """Every operation in turn, some tries as it is described and some that are bent."""
        for operation in self.operations():
            self._try(operation, max(1, round(AS_DESCRIBED * rounds)))
            for _ in range(max(1, round(BENT * rounds))):
                self._bend(operation)

    def _try(self, operation: Any, times: int) -> None:
        @hypothesis.seed(self.chance.getrandbits(32))
        @hypothesis.settings(
            max_examples=times,
            database=None,
            deadline=None,
            phases=[Phase.generate],
            verbosity=Verbosity.quiet,
            suppress_health_check=list(HealthCheck),
        )
        @hypothesis.given(case=operation.as_strategy())
        def one(case: Any) -> None:
            self._send(operation, case)

        one()

    def _path(self, operation: Any, given: dict[str, Any]) -> str:
        def filled(found: re.Match[str]) -> str:
            name = found[1]
            known = self.ids.get(name) or self.ids[""]
            value = self.chance.choice(known) if self.chance.random() < 0.8 else given.get(name, 1)
            return quote(str(value).encode("utf-8", "surrogatepass"), safe="")

        return re.sub(r"{(\w+)}", filled, operation.path)

    def _send(self, operation: Any, case: Any) -> None:
        query = urlencode({key: str(value) for key, value in (case.query or {}).items()}, errors="replace")
        body, kind = b"", {}
        if isinstance(case.body, dict | list | str | int | float | bool):
            if str(case.media_type).startswith("application/json"):
                body, kind = json.dumps(case.body).encode(), {"Content-Type": "application/json"}
            elif isinstance(case.body, dict):
                body, kind = _form(case.body)
        path = self._path(operation, case.path_parameters or {})
        self._ask(operation, f"{path}{'?' if query else ''}{query}", body, kind)

    def _bend(self, operation: Any) -> None:
        """The same with odd values where others belong."""
        names = re.findall(r'"(\w+)"', json.dumps(operation.definition.raw))[:80] or ["x"]
        said = {self.chance.choice(names): self.chance.choice(ODD) for _ in range(self.chance.randrange(5))}
        body: Any = said if self.chance.random() < 0.8 else self.chance.choice(ODD)
        raw = json.dumps(body).encode() if self.chance.random() < 0.9 else b'{"a":' * 3000
        query = urlencode(
            {name: str(self.chance.choice(ODD)) for name in self.chance.sample(names, 1)}, errors="replace"
        )
        path = self._path(
            operation, {name: self.chance.choice(ODD) for name in re.findall(r"{(\w+)}", operation.path)}
        )
        self._ask(operation, f"{path}?{query}", raw, {"Content-Type": "application/json"})

    def _ask(self, operation: Any, path: str, body: bytes, headers: dict[str, str]) -> None:
        self.client.told.asked[_name(operation)] += 1
        self.client.ask(operation.method.upper(), path, body, headers)


def _name(operation: Any) -> str:
    return f"{operation.method.upper()} {operation.path}"


class Chained:
    """The console in chains: what one operation answered goes into the next, wherever their descriptions let it."""

    def __init__(self, signed_in: Client, chance: random.Random, told: Told) -> None:
        self.chance, self.told = chance, told
        self.base = f"http://127.0.0.1:{signed_in.port}"
        self.cookies = dict(signed_in.cookies)
        self.headers = {"X-CSRFToken": signed_in.cookies["csrftoken"], "Referer": f"{self.base}/"}

    def run(self, rounds: float) -> None:
        """A few chains, each of some steps."""
        schema = schemathesis.openapi.from_path(ROOT / "docs" / "openapi.json")
        machine = schema.exclude(path=list(_NOT_ASKED)).as_state_machine()
        settings = hypothesis.settings(
            max_examples=CHAINS,
            stateful_step_count=STEPS,
            database=None,
            deadline=None,
            phases=[Phase.generate],
            verbosity=Verbosity.quiet,
            suppress_health_check=list(HealthCheck),
        )
        for _ in range(max(2, round(BEGINNINGS * rounds))):
            # What can follow depends on what is there by then, which Hypothesis takes for an unsteady test.
            with suppress(Flaky):
                hypothesis.seed(self.chance.getrandbits(32))(_heard(machine, self)).run(settings=settings)

    def ask(self, case: Any) -> Any:
        """Send a step, and note how it was answered."""
        answer = case.call(base_url=self.base, headers=self.headers, cookies=self.cookies)
        self.told.statuses[answer.status_code] += 1
        if answer.status_code >= 500:
            self.told.wrong.append(f"in a chain: {case.as_curl_command()[:900]}: {answer.status_code}")
        return answer


def _heard(machine: Any, chained: Chained) -> Any:
    """A machine of chains whose steps are asked by us: all that counts is that nothing is a fault of ours."""

    class Heard(machine):  # type: ignore[misc]
        def call(self, case: Any, **kwargs: Any) -> Any:
            return chained.ask(case)

        def validate_response(self, response: Any, case: Any, *args: Any, **kwargs: Any) -> None:
            return None

        def step(self, input: Any) -> Any:
            if input.transition is not None and input.is_applied:
                chained.told.followed[case_name(input.case)] += 1
            return super().step(input)

    return Heard


def case_name(case: Any) -> str:
    """The operation of a case."""
    return _name(case.operation)


# These end the very session or member who asks.
_NOT_ASKED = frozenset({"/api/people-of-the-business/leave"})


def _form(values: dict[str, Any]) -> tuple[bytes, dict[str, str]]:
    mark = b"----odd"
    parts = b"".join(
        b'--%s\r\nContent-Disposition: form-data; name="%s"%s\r\n\r\n%s\r\n'
        % (
            mark,
            name.encode("utf-8", "replace"),
            b'; filename="odd.png"' if name == "file" else b"",
            value if isinstance(value, bytes) else str(value).encode("utf-8", "replace"),
        )
        for name, value in values.items()
    )
    return parts + b"--%s--\r\n" % mark, {"Content-Type": "multipart/form-data; boundary=----odd"}


class Visitors:
    """What browsers send to the visitor's side, bent."""

    def __init__(
        self, client: Client, chance: random.Random, entries: list[dict[str, Any]], links: list[str]
    ) -> None:
        self.client, self.chance, self.links = client, chance, links
        page = {"url": f"{ORIGIN}/trips?utm_medium=x", "title": "Trips", "kinds": ["section"]}
        visitor = {
            "id": "v" * 20, "utc_offset": 0, "visits": 2, "language": "en-GB", "pages_this_visit": 2,
            "visit_started": "2026-11-24T14:00:00Z", "arrival": {"url": page["url"], "referrer": "https://findit.example/"},
        }  # fmt: skip
        self.plan = {
            "page": page, "device": "phone", "visitor": visitor, "open": None,
            "memory": {one["id"]: {"shown": 1, "last_shown": "2026-11-24T13:00:00Z", "variant": None} for one in entries[:3]},
        }  # fmt: skip
        self.bodies: list[tuple[str, Any]] = [("plan", self.plan)]
        self.fields = sorted(
            {
                part["name"]
                for one in entries
                for step in one["document"]["steps"]
                for part in step["parts"]
                if "name" in part
            }
        )
        for one in entries:
            about = {
                "touchpoint": one["id"],
                "revision": one["revision"],
                "variant": None,
                "page": page,
                "device": "phone",
            }
            fields = [
                part["id"]
                for step in one["document"]["steps"]
                for part in step["parts"]
                if "field" in json.dumps(part)
            ]
            self.bodies += [
                (
                    "intake",
                    about
                    | {
                        "id": "0" * 32,
                        "step": one["document"]["steps"][0]["id"],
                        "elapsed_ms": 9000,
                        "visitor": visitor,
                        "answers": {"email": "ife@post.example", "name": "Ife", "message": "A boat?"}
                        | dict.fromkeys(fields, "x"),
                        "consents": {"news": True},
                    },
                ),
                (
                    "beats",
                    [
                        about
                        | {"id": "beat-0001", "what": "seen", "at": "2026-11-24T14:05:00Z", "channel": ""}
                    ],
                ),
                ("more", about | {"visitor": visitor}),
                ("helped", about | {"question": 1, "helped": True}),
                ("talks", about | {"id": "0" * 32, "text": "Hello", "visitor": visitor, "elapsed_ms": 9000}),
            ]

    def run(self, rounds: float) -> None:
        """One after another."""
        for _ in range(round(BY_VISITORS * rounds)):
            if self.chance.random() < 0.75:
                what, body = self.chance.choice(self.bodies)
                self._post(what, body)
            else:
                self._get()

    def _post(self, what: str, body: Any) -> None:
        bent = json.loads(json.dumps(body))
        if what in {"intake", "talks"} and self.chance.random() < 0.7:
            bent["id"] = f"{self.chance.getrandbits(128):032x}"
        for _ in range(self.chance.choice((0, 1, 1, 1, 2, 5))):
            bent = self._bent(bent)
        raw = json.dumps(bent).encode()
        if self.chance.random() < 0.05:
            raw = self.chance.choice(
                (
                    b"",
                    b"\xff\xfe",
                    raw[:-5],
                    b"[" * 20_000,
                    raw + b"\x00",
                    b"1" * 70_000,
                    raw.replace(b'"', b"'"),
                )
            )
        headers = {"Origin": ORIGIN, "Content-Type": "text/plain"}
        if self.chance.random() < 0.1:
            headers[
                self.chance.choice(
                    ("Origin", "Accept-Encoding", "Accept-Language", "X-Forwarded-For", "Content-Type")
                )
            ] = self.chance.choice(
                ("null", "", "x" * 3000, "\x7fé", "https://otterwick.example:0", "gzip;q=nan", "::1", "a, b")
            )
        self.client.told.asked[what] += 1
        self.client.ask("POST", f"/e/{SITE_KEY}/{what}", raw, headers)

    def _bent(self, value: Any) -> Any:
        """The value with one place of it replaced, taken out or added to."""
        if isinstance(value, dict) and value and self.chance.random() < 0.9:
            name = self.chance.choice(list(value))
            how = self.chance.random()
            if how < 0.65:
                return value | {name: self._bent(value[name])}
            if how < 0.8:
                return {key: one for key, one in value.items() if key != name}
            return value | {str(self.chance.choice(ODD)): self.chance.choice(ODD)}
        if isinstance(value, list) and value and self.chance.random() < 0.8:
            at = self.chance.randrange(len(value))
            return [*value[:at], self._bent(value[at]), *value[at + 1 :]] * (
                1 if len(value) > 3 else self.chance.choice((1, 1, 1, 250))
            )
        return self.chance.choice(ODD)

    def _form(self) -> dict[str, str]:
        """What a page's form may say: some of its fields, and odd things in some."""
        said = {
            "do": "cancel",
            "time": "x",
            "id": f"{self.chance.getrandbits(128):032x}",
            "step": "ask",
            "press": "send",
        }
        names = (*said, "revision", "since", "website", *self.fields)
        for name in self.chance.sample(names, self.chance.choice((0, 1, 2, 4))):
            said[name] = str(self.chance.choice(ODD))
        return said

    def _get(self) -> None:
        path = self.chance.choice(self.links)
        for _ in range(self.chance.choice((0, 1, 1, 2))):
            odd = quote(str(self.chance.choice(ODD)).encode("utf-8", "surrogatepass"), safe="/")[:6000]
            cut = path.split("/")
            cut[self.chance.randrange(1, len(cut))] = odd
            path = "/".join(cut)
        if self.chance.random() < 0.3:
            path += "?" + urlencode(
                {self.chance.choice(("at", "x", "open", "do", "step")): str(self.chance.choice(ODD))},
                errors="replace",
            )
        method = self.chance.choice(("GET", "GET", "GET", "HEAD", "POST", "OPTIONS", "PUT", "DELETE"))
        headers = {}
        if self.chance.random() < 0.3:
            headers["Range"] = self.chance.choice(
                ("bytes=0-", "bytes=-5", "bytes=9-1", "bytes=" + "0-1," * 900, "x", "bytes=٣-")
            )
        if self.chance.random() < 0.2:
            headers |= {"If-None-Match": '"x', "If-Modified-Since": "yesterday", "Accept-Language": "*" * 300}
        body = urlencode(self._form(), errors="replace").encode() if method == "POST" else b""
        if body:
            headers["Content-Type"] = "application/x-www-form-urlencoded"
        self.client.told.asked[f"{method} /{path.split('/')[1][:12]}"] += 1
        self.client.ask(
            method,
            path,
            body,
            {key: value.encode("latin-1", "replace").decode("latin-1") for key, value in headers.items()},
        )


_LINKS = """
SELECT '/f/x' UNION SELECT '/e/frame' UNION SELECT '/healthz' UNION SELECT '/sw.js' UNION SELECT '/static/touch/more.js'
UNION SELECT '/static/nothing.js' UNION SELECT '/sign-in' UNION SELECT '/_allauth/browser/v1/config'
UNION SELECT '/l/' || s.slug || '/' || t.slug FROM touchpoints_touchpoint t, sites_site s
UNION SELECT '/l/' || s.slug || '/' || t.slug || '.png' FROM touchpoints_touchpoint t, sites_site s
UNION SELECT '/t/' || s.slug || '/' || t.slug FROM touchpoints_touchpoint t, sites_site s
UNION SELECT '/l/' || public_id FROM channels_channel UNION SELECT '/m/' || public_id || '/480.webp' FROM touchpoints_asset
UNION SELECT '/b/' || token FROM intake_booking UNION SELECT '/e/' || key || '.js' FROM sites_site
"""


def _ids(database: str) -> tuple[dict[str, list[str]], list[str]]:
    """What stands in addresses, by the name of its place: ids and public ids that are there; and the visitor's pages."""
    tables = {
        "touchpoint_id": "touchpoints_touchpoint", "followup_id": "followup_followup", "person_id": "people_person",
        "site_id": "sites_site", "hours_id": "hours_hoursset", "channel_id": "channels_channel", "talk_id": "talks_talk",
        "asset_id": "touchpoints_asset", "member_id": "accounts_member", "import_id": "imports_import",
    }  # fmt: skip
    found: dict[str, list[str]] = {"": [str(one) for one in range(1, 9)]}
    with psycopg.connect(database) as connection:
        there = {
            row[0]
            for row in connection.execute("SELECT table_name FROM information_schema.tables").fetchall()
        }
        for name, table in tables.items():
            if table in there:
                rows = connection.execute(
                    sql.SQL("SELECT id FROM {} ORDER BY id LIMIT 60").format(sql.Identifier(table))
                ).fetchall()
                found[name] = [str(row[0]) for row in rows]
        links = [row[0] for row in connection.execute(_LINKS).fetchall()]
    return found, links


def live_entries(database: str) -> Iterator[dict[str, Any]]:
    """Every touchpoint that is live, with its document as it was published."""
    with psycopg.connect(database) as connection:
        rows = connection.execute(
            "SELECT t.public_id, r.number, r.document FROM touchpoints_touchpoint t"
            " JOIN touchpoints_touchpointrevision r ON r.id = t.live_id"
        ).fetchall()
    for public_id, number, document in rows:
        yield {"id": public_id, "revision": number, "document": document}


def fuzz(rounds: float, seed: int, cluster: str) -> Told:
    """Ask both sides so much, from this seed; `cluster` is the address of a database in one to be used."""
    url = fresh_database("intavo_fuzz", cluster)
    rates = {f"INTAVO_{one}_RATE": "10000000" for one in ("PLAN", "INTAKE", "BEAT")}
    env = rates | {
        "INTAVO_NOW": "2026-11-24T14:05:00+00:00",
        "INTAVO_LOG_LEVEL": "ERROR",
        "INTAVO_DB_POOL": "true",
    }
    log = RUN / "tests-fuzz.log"
    log.unlink(missing_ok=True)
    stack, told, chance = Stack(url, Ports.free_from(9300), env, log), Told(), random.Random(seed)
    try:
        stack.manage("load_demo", "--people", "10", "--skip-checks")
        stack.start()
        owner, visitor = Client(stack.ports.web, told), Client(stack.ports.web, told)
        sign_in(owner)
        ids, links = _ids(url)
        links += [f"/in/mail/{mail_in_secret()}", f"/e/{SITE_KEY}/plan", f"/t/{SITE_SLUG}/x"]
        console = Console(owner, random.Random(chance.random()), ids)
        told.due = {_name(one) for one in console.operations()} | {
            "plan",
            "intake",
            "beats",
            "more",
            "helped",
            "talks",
        }
        visitors = Visitors(visitor, random.Random(chance.random()), list(live_entries(url)), links)
        chained = Chained(owner, random.Random(chance.random()), told)
        # What Hypothesis makes is made by one thread at a time.
        sides = ((chained, console), (visitors,))
        threads = [threading.Thread(target=_kept, args=(one, rounds, told)) for one in sides]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        assert owner.ask("GET", "/api/me")[0] == 200, "the owner was signed out on the way"
    finally:
        stack.stop()
    return told


def _kept(sides: Iterable[Console | Visitors | Chained], rounds: float, told: Told) -> None:
    for side in sides:
        try:
            side.run(rounds)
        except Exception as error:  # what ends a side ends the test
            told.wrong.append(f"{type(side).__name__} ended: {error!r}")


def main() -> int:
    """Run it and say what came of it."""
    rounds = int(sys.argv[1]) if len(sys.argv) > 1 else 1
    seed = int(sys.argv[2]) if len(sys.argv) > 2 else random.randrange(2**31)
    cluster = Cluster("fuzz")
    try:
        told = fuzz(rounds, seed, cluster.start())
    finally:
        cluster.stop()
    print(
        f"seed {seed}: {told.statuses.total()} requests, {len(told.asked)} kinds, {dict(sorted(told.statuses.items()))}"
    )
    for wrong in told.wrong[:40]:
        print(" ", wrong)
    return bool(told.wrong)


if __name__ == "__main__":
    sys.exit(main())
