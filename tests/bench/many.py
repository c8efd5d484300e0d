"""What very many people cost: the same things asked of 200,000 people and of 1,000, as ratios measured in one run."""

import io
import secrets
import statistics
import time
from collections.abc import Callable
from typing import Any
from urllib.parse import quote

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

FEW, MANY, MOST = 1_000, 200_000, 3.0
ROUNDS = 9


def _client(people: int) -> Client:
    from intavo.accounts.models import User

    client = Client(headers={"host": "127.0.0.1"})
    client.force_login(User.objects.get(email=f"many-{people}@otterwick.example"))
    return client


def _get(client: Client, path: str, **headers: str) -> Callable[[], Any]:
    def call() -> Any:
        answer = client.get(path, headers=headers)
        if answer.status_code not in {200, 304}:
            raise AssertionError(f"{path}: {answer.status_code} {answer.content[:200]!r}")
        return answer

    return call


def _calls(people: int) -> dict[str, Callable[[], Any]]:
    client = _client(people)
    first = client.get("/api/follow-ups").json()
    lanes = [one for lane in first["lanes"] for one in lane["items"]]
    tag = client.get("/api/follow-ups-stamp").headers["ETag"]
    known = client.get("/api/people").json()
    after = quote(known["after"])
    sought = '{"conditions": [{"what": "did", "deed": "asked", "page": "/hire"}, {"what": "tagged", "tag": "tag 7"}]}'
    return {
        "list, first page": _get(client, "/api/follow-ups"),
        "list, next page": _get(client, f"/api/follow-ups?after={quote(first['after'])}"),
        "list, filtered": _get(client, "/api/follow-ups?kind=inquiry&tag=tag 10&page=/hire"),
        "list, searched": _get(client, "/api/follow-ups?q=mark7"),
        "found by a word": _get(client, "/api/find?q=mark7 canoe"),
        "found by a name": _get(client, "/api/find?q=Angstrom"),
        "one with their person": _get(client, f"/api/follow-ups/{lanes[0]['id']}"),
        "nothing new": _get(client, "/api/follow-ups-stamp", if_none_match=tag),
        "day line": _get(client, "/api/day"),
        "people, first page": _get(client, "/api/people"),
        "people, next page": _get(client, f"/api/people?after={after}"),
        "people, sought": _get(client, f"/api/people?wanted={sought}"),
    }


def _once(call: Callable[[], object]) -> float:
    started = time.perf_counter()
    call()
    return time.perf_counter() - started


def _imported(people: int, mark: str) -> float:
    """Rows a second of an import of 2,000 new people."""
    from intavo.imports.taking import take_now

    client = _client(people)
    rows = io.StringIO()
    rows.write("Name,Email\n")
    for number in range(2_000):
        rows.write(f"Import {number},{mark}{number}@hill.example\n")
    row = client.post("/api/imports", {"file": SimpleUploadedFile("a.csv", rows.getvalue().encode())}).json()
    client.post(f"/api/imports/{row['id']}/take")
    return 2_000 / _once(lambda: take_now(row["id"]))


def _merged(people: int) -> float:
    """Seconds of joining two cards."""
    client = _client(people)
    known = [one["id"] for one in client.get("/api/people").json()["people"]]
    pairs = zip(known[10:20:2], known[11:20:2], strict=False)

    def join(kept: int, gone: int) -> None:
        answer = client.post(f"/api/people/{kept}/join", {"gone_id": gone}, content_type="application/json")
        assert answer.status_code == 200, answer.content[:300]

    return statistics.median(_once(lambda kept=kept, gone=gone: join(kept, gone)) for kept, gone in pairs)  # type: ignore[misc]


def _exported(people: int) -> float:
    """Rows a second of everybody as CSV."""
    answer = _client(people).get("/api/people-export?form=csv")
    started = time.perf_counter()
    lines = b"".join(answer).count(b"\n")
    assert lines >= people
    return lines / (time.perf_counter() - started)


def _told(name: str, few: float, many: float, share: float) -> bool:
    print(f"{name:24} {few:10.1f}   {many:10.1f}   {share:6.2f} times   at most {MOST:.0f}")
    return share <= MOST


def many_people() -> bool:
    """Load both, and measure; whether all is within its bar."""
    from demo.many import load_many

    started = time.perf_counter()
    for people in (FEW, MANY):
        load_many(people)
    print(
        f"{MANY:,} people loaded in {time.perf_counter() - started:.0f} s; times in ms, of {FEW:,} and of {MANY:,}"
    )
    few, many = _calls(FEW), _calls(MANY)
    good = True
    for name in few:
        few[name](), many[name]()
        pairs = [(_once(few[name]), _once(many[name])) for _ in range(ROUNDS)]
        middle = [1000 * statistics.median(one) for one in zip(*pairs, strict=True)]
        good &= _told(name, middle[0], middle[1], middle[1] / middle[0])
    joins = 1000 * _merged(FEW), 1000 * _merged(MANY)
    good &= _told("two cards joined", *joins, joins[1] / joins[0])
    rates = _imported(FEW, "few"), _imported(MANY, "many")
    good &= _told("rows a second, brought in", *rates, rates[0] / rates[1])
    out = _exported(FEW), _exported(MANY)
    good &= _told("rows a second, taken out", *out, out[0] / out[1])
    return _figures() and good


def _pages_and_touchpoints(site_id: int) -> None:
    """Three hundred known pages of a site in several parts, and thirty touchpoints on it."""
    from intavo import clock
    from intavo.accounts.actor import member_actor
    from intavo.accounts.models import Member
    from intavo.sites.models import SitePage
    from intavo.touchpoints.actions import make, turn_on

    owner = member_actor(Member.objects.get(user__email=f"many-{MANY}@otterwick.example"))
    SitePage.objects.bulk_create(
        SitePage(
            business_id=owner.business_id,
            site_id=site_id,
            path=f"/part{number % 8}/page{number}",
            views=1000 - number,
            seen_at=clock.now(),
        )
        for number in range(300)
    )
    for number in range(29):
        turn_on(owner, touchpoint_id=make(owner, starter="news", name=f"Number {number}").pk)


def _figures() -> bool:
    """What has a bar in milliseconds, where there is most of it."""
    from datetime import timedelta

    from intavo import clock
    from intavo.results.actions import fold_beats, make_months

    client = _client(MANY)
    row = next(one for one in client.get("/api/touchpoints").json() if one["name"] == "News")
    site = client.get("/api/sites").json()[0]["id"]
    _pages_and_touchpoints(site)
    body = {"site_id": site, "visitor": {"at": clock.now().isoformat()}}

    def taken_out() -> None:
        lines = 0
        for part in client.get(f"/api/touchpoints/{row['id']}/answers-csv"):
            lines += part.count(b"\n")
            if lines > 17_283:
                return
        raise AssertionError(f"only {lines} answers came")

    def mapped() -> None:
        assert client.post("/api/page-map", body, content_type="application/json").status_code == 200

    calls: dict[str, tuple[Callable[[], object], float]] = {
        "found by a word": (_get(client, "/api/find?q=mark7 canoe"), 50),
        "17,283 answers as CSV": (taken_out, 1_000),
        "answers, a page": (_get(client, f"/api/touchpoints/{row['id']}/answers"), 200),
        "page map, 30 by 300": (mapped, 300),
        "reports folded": (lambda: fold_beats(clock.now()), 5_000),
        "months made": (
            lambda: make_months(clock.now() + timedelta(days=365 * secrets.randbelow(200))),
            5_000,
        ),
    }
    good = True
    for name, (call, most) in calls.items():
        call()
        took = 1000 * statistics.median(_once(call) for _ in range(5))
        good &= took <= most
        print(f"{name:24} {took:10.1f} ms   at most {most:.0f} ms")
    return good
