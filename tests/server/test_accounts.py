"""Signing in and up, confirming, resetting: through the headless API the console uses."""

import json
import re
import time
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from typing import Any
from urllib.parse import unquote

import pytest
import time_machine
from allauth.account.models import EmailAddress
from allauth.mfa.models import Authenticator
from allauth.mfa.totp.internal.auth import format_hotp_value, hotp_value
from django.conf import settings
from django.core import mail as outbox
from django.test import Client
from procrastinate.contrib.django.models import ProcrastinateJob

from intavo.accounts import adapter
from intavo.accounts.models import AccountMail, User
from intavo.mail.actions import send_account_mail
from intavo.project.views import PLACES

JSON: dict[str, Any] = {"content_type": "application/json"}
AUTH = "/_allauth/browser/v1/auth"
ACCOUNT = "/_allauth/browser/v1/account"
TOTP = f"{ACCOUNT}/authenticators/totp"
PASSWORD = "correct horse paddle"


@pytest.fixture
def user(db: None) -> User:
    user = User.objects.create_user("morwenna@quay.example", PASSWORD, name="Morwenna Hale")
    EmailAddress.objects.create(user=user, email=user.email, verified=True, primary=True)
    return user


def sign_in(client: Client, password: str) -> int:
    """Try to sign in."""
    body = {"email": "morwenna@quay.example", "password": password}
    return client.post(f"{AUTH}/login", body, **JSON).status_code


def mailed_key() -> str:
    """The key in the newest account mail, which goes out through its job."""
    job = ProcrastinateJob.objects.filter(task_name="account_mail").latest("id")
    # Nothing that leads into an account stands in a job.
    assert set(job.args) == {"mail_id"}
    send_account_mail(mail_id=job.args["mail_id"])
    assert not AccountMail.objects.filter(pk=job.args["mail_id"]).exists()
    found = re.search(r"http://127\.0\.0\.1:8400/(?:verify|reset)/(\S+)", str(outbox.outbox[-1].body))
    assert found
    return unquote(found[1])


def test_the_right_password_signs_in_and_the_wrong_one_is_refused(user: User) -> None:
    client = Client()
    assert sign_in(client, "wrong") == 400
    assert client.get("/api/me").status_code == 401
    assert sign_in(client, PASSWORD) == 200
    assert client.get("/api/me").json()["initials"] == "MH"


def test_whoever_guesses_is_held_up_where_they_are_and_nobody_else(user: User, settings: Any) -> None:
    settings.TRUSTED_PROXIES = ["127.0.0.1"]

    def at(address: str) -> Client:
        # The proxy adds the address that it saw to what it was told.
        return Client(headers={"x-forwarded-for": f"203.0.113.77, {address}"})

    for place, next_door in (("203.0.113.5", "203.0.113.5"), ("2001:db8:1:2::5", "2001:db8:1:2:ffff::9")):
        assert {sign_in(at(place), "wrong") for _ in range(10)} == {400}
        body = {"email": user.email, "password": PASSWORD}
        answer = at(next_door).post(f"{AUTH}/login", body, **JSON)
        assert answer.json()["errors"][0]["code"] == "too_many_login_attempts"
    # One's own address is another one, behind the same proxy; what is written in front of it changes nothing.
    assert sign_in(at("203.0.113.6"), PASSWORD) == 200
    assert sign_in(at("2001:db8:1:3::5"), PASSWORD) == 200


def test_guessing_from_many_addresses_is_slow_and_keeps_out_nobody_who_is_at_home(
    user: User, settings: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    settings.TRUSTED_PROXIES = ["127.0.0.1"]
    monkeypatch.setattr(adapter, "STRANGERS_AN_HOUR", 20)

    def at(address: str) -> Client:
        return Client(headers={"x-forwarded-for": address})

    assert sign_in(at("203.0.113.6"), PASSWORD) == 200
    assert {sign_in(at(f"198.51.100.{n}"), "wrong") for n in range(20)} == {400}
    body = {"email": user.email, "password": PASSWORD}
    answer = at("198.51.100.99").post(f"{AUTH}/login", body, **JSON)
    assert answer.json()["errors"][0]["code"] == "too_many_login_attempts"
    assert sign_in(at("203.0.113.6"), PASSWORD) == 200
    # From a new place by the mail that a reset sends.
    stranger = at("198.51.100.99")
    assert stranger.post(f"{AUTH}/password/request", {"email": user.email}, **JSON).status_code == 200
    assert stranger.post(
        f"{AUTH}/password/reset", {"key": mailed_key(), "password": "another long paddle"}, **JSON
    ).status_code in {200, 401}


def test_ten_wrong_tries_shut_the_door_also_for_the_right_password(user: User) -> None:
    assert {sign_in(Client(), "wrong") for _ in range(10)} == {400}
    answer = Client().post(f"{AUTH}/login", {"email": user.email, "password": PASSWORD}, **JSON)
    assert answer.status_code == 400
    assert answer.json()["errors"][0]["code"] == "too_many_login_attempts"


def test_signing_up_asks_to_confirm_the_address_first(db: None) -> None:
    client = Client()
    answer = client.post(f"{AUTH}/signup", {"email": "new@heron.example", "password": PASSWORD}, **JSON)
    assert answer.status_code == 401
    assert client.get("/api/me").status_code == 401
    assert Client().post(f"{AUTH}/email/verify", {"key": mailed_key()}, **JSON).status_code in {200, 401}
    assert EmailAddress.objects.get(email="new@heron.example").verified
    assert (
        client.post(f"{AUTH}/login", {"email": "new@heron.example", "password": PASSWORD}, **JSON).status_code
        == 200
    )


def test_a_short_password_is_refused_by_its_field(db: None) -> None:
    answer = Client().post(f"{AUTH}/signup", {"email": "new@heron.example", "password": "short"}, **JSON)
    assert answer.status_code == 400
    assert answer.json()["errors"][0]["param"] == "password"


def test_a_password_is_reset_by_mail(user: User) -> None:
    assert Client().post(f"{AUTH}/password/request", {"email": user.email}, **JSON).status_code == 200
    body = {"key": mailed_key(), "password": "another long paddle"}
    assert Client().post(f"{AUTH}/password/reset", body, **JSON).status_code in {200, 401}
    assert sign_in(Client(), "another long paddle") == 200


def _examples(path: str) -> set[str]:
    """Addresses that a path of the application's router stands for."""
    shorter = re.sub(r"/:\w+(\([^)]*\))?\?", "", path)
    longer = re.sub(r"/:\w+(\([^)]*\))?\??", "/7", path)
    return {longer, shorter} if "?" in path else {longer}


def test_only_the_places_that_there_are_are_found() -> None:
    routes = (settings.BASE / "console" / "src" / "router.ts").read_text()
    paths = re.findall(r"path: '([^']*)'", routes)
    tops = [path for path in paths if path.startswith("/") and "rest" not in path]
    inner = [f"/hours/{path}" for path in paths if not path.startswith("/") and path]
    places = {one for path in [*tops, *inner] for one in _examples(path.replace("\\\\", "\\"))}
    assert len(places) >= 25
    for place in sorted(places):
        assert PLACES.fullmatch(place), place
    client = Client()
    for path in (
        "/nothing",
        "/people/x",
        "/favicon.ico",
        "/follow-up/1/2",
        "/hours/channels/old",
        "/wp-login.php",
    ):
        assert client.get(path).status_code == 404, path
    assert [client.get(path).status_code for path in ("/", "/follow-up/7", "/hours/channels/new")] == [
        200
    ] * 3


def test_healthz_says_which_part_is_down(db: None) -> None:
    answer = Client().get("/healthz")
    assert answer.status_code == 503
    up = {"web": True, "database": True, "worker": False}
    assert answer.json() == {**up, "instance": settings.BASE_URL}


def account_mails() -> list[tuple[str, str, str]]:
    """To, subject and text of every account mail that waits for its job, in order."""
    return list(AccountMail.objects.order_by("id").values_list("to", "subject", "text"))


def test_confirming_in_the_browser_that_signed_up_signs_in(db: None) -> None:
    client = Client()
    client.post(f"{AUTH}/signup", {"email": "new@heron.example", "password": PASSWORD}, **JSON)
    assert client.post(f"{AUTH}/email/verify", {"key": mailed_key()}, **JSON).status_code == 200
    assert client.get("/api/me").json()["email"] == "new@heron.example"


def test_a_request_of_before_the_sign_in_does_not_sign_out_again(db: None) -> None:
    client, late = Client(), Client()
    client.post(f"{AUTH}/signup", {"email": "new@otterwick.example", "password": PASSWORD}, **JSON)
    late.cookies["sessionid"] = client.cookies["sessionid"].value
    assert client.post(f"{AUTH}/email/verify", {"key": mailed_key()}, **JSON).status_code == 200

    answer = late.get("/api/me")

    assert answer.status_code == 401
    assert "sessionid" not in answer.cookies, "the browser has another one by now, of the same name"
    assert "Cookie" in answer["Vary"]
    assert client.get("/api/me").status_code == 200
    assert client.delete(f"{AUTH}/session").cookies["sessionid"]["max-age"] == 0


def test_account_mails_are_in_our_own_words(user: User) -> None:
    Client().post(f"{AUTH}/signup", {"email": "new@heron.example", "password": PASSWORD}, **JSON)
    Client().post(f"{AUTH}/signup", {"email": user.email, "password": PASSWORD}, **JSON)
    Client().post(f"{AUTH}/password/request", {"email": user.email}, **JSON)
    Client().post(f"{AUTH}/password/request", {"email": "nobody@heron.example"}, **JSON)
    client = Client()
    sign_in(client, PASSWORD)
    change = {"current_password": PASSWORD, "new_password": "another long paddle"}
    assert client.post("/_allauth/browser/v1/account/password/change", change, **JSON).status_code == 200
    sent = account_mails()
    assert [subject for _, subject, _ in sent] == [
        "Please confirm your address",
        "You have an account already",
        "A new password for Intavo",
        "There is no account with this address",
        "Your password was changed",
    ]
    for to, _, text in sent:
        assert text.startswith(("Hello,", "Hello Morwenna Hale,"))
        assert "!" not in text.partition("http")[0]
        assert to in {user.email, "new@heron.example", "nobody@heron.example"}
        assert "example.com" not in text


def test_a_sign_in_from_somewhere_new_is_told_and_the_same_browser_is_not(user: User) -> None:
    for agent in ("Paddle/1", "Paddle/1", "Kayak/2", "Kayak/2"):
        body = {"email": user.email, "password": PASSWORD}
        assert Client().post(f"{AUTH}/login", body, HTTP_USER_AGENT=agent, **JSON).status_code == 200
    [(to, subject, text)] = account_mails()
    assert (to, subject) == (user.email, "A sign-in from somewhere new")
    assert "Kayak/2" in text


def say_password(client: Client) -> None:
    """Say it once more, as what guards an account asks for."""
    assert client.post(f"{AUTH}/reauthenticate", {"password": PASSWORD}, **JSON).status_code == 200


class Second:
    """A signed-in client whose user has an authenticator; `code` is what it shows now."""

    def __init__(self) -> None:
        self.client = Client()
        assert sign_in(self.client, PASSWORD) == 200
        say_password(self.client)
        offered = self.client.get(TOTP)
        assert offered.status_code == 404
        self.secret = offered.json()["meta"]["secret"]
        answer = self.client.post(TOTP, {"code": self.code()}, **JSON)
        assert answer.status_code == 200, answer.content

    def code(self, steps_ago: int = 0) -> str:
        """The code of just now, or of some half minutes ago. Source: RFC 6238."""
        return format_hotp_value(hotp_value(self.secret, int(time.time()) // 30 - steps_ago))


def test_with_an_authenticator_the_password_alone_does_not_sign_in(user: User) -> None:
    second = Second()
    client = Client()
    assert sign_in(client, PASSWORD) == 401
    assert client.get("/api/me").status_code == 401
    assert client.post(f"{AUTH}/2fa/authenticate", {"code": "000000"}, **JSON).status_code == 400
    kept = second.client.post(f"{ACCOUNT}/authenticators/recovery-codes", {}, **JSON).json()["data"][
        "unused_codes"
    ]
    assert client.post(f"{AUTH}/2fa/authenticate", {"code": kept[0]}, **JSON).status_code == 200
    assert client.get("/api/me").status_code == 200
    again = Client()
    sign_in(again, PASSWORD)
    assert again.post(f"{AUTH}/2fa/authenticate", {"code": kept[0]}, **JSON).status_code == 400


def test_whoever_tries_codes_elsewhere_keeps_nobody_from_theirs(user: User) -> None:
    second = Second()
    kept = second.client.post(f"{ACCOUNT}/authenticators/recovery-codes", {}, **JSON).json()["data"][
        "unused_codes"
    ]

    def tries(code: str, place: str) -> int:
        client = Client(REMOTE_ADDR=place)
        body = {"email": user.email, "password": PASSWORD}
        assert client.post(f"{AUTH}/login", body, **JSON).status_code == 401
        return client.post(f"{AUTH}/2fa/authenticate", {"code": code}, **JSON).status_code

    # From a network of IPv6 that one client is given, and from many places.
    assert [tries("000000", f"2001:db8::{at:x}") for at in range(11)] == [400] * 11
    for at in range(30):
        tries("000000", f"203.0.113.{at}")
    with time_machine.travel(datetime.now(UTC) + timedelta(minutes=2)):
        assert tries(second.code(), "198.51.100.7") == 400, "too many were tried elsewhere"
        assert tries(kept[0], "198.51.100.7") == 200
        assert tries(second.code(), "127.0.0.1") == 200, "where they are signed in they are let in"


def test_the_code_that_switched_it_on_is_used(user: User) -> None:
    now = datetime(2026, 12, 1, 12, 0, 5, tzinfo=UTC)
    with time_machine.travel(now, tick=False):
        second, client = Second(), Client()
        sign_in(client, PASSWORD)
        answer = client.post(f"{AUTH}/2fa/authenticate", {"code": second.code()}, **JSON)
        assert answer.status_code == 400


def test_a_code_may_be_one_step_old_and_is_taken_once(user: User) -> None:
    second = Second()

    def signs_in(code: str) -> bool:
        client = Client()
        sign_in(client, PASSWORD)
        return bool(client.post(f"{AUTH}/2fa/authenticate", {"code": code}, **JSON).status_code == 200)

    with time_machine.travel(datetime.now(UTC) + timedelta(hours=1)) as now:
        assert not signs_in(second.code(steps_ago=2))
        code = second.code(steps_ago=1)
        assert signs_in(code)
        assert not signs_in(code)
        used = second.code(steps_ago=-1)
        assert signs_in(used)
        # Much later than a step, it is still a code of now.
        now.shift(45)
        assert not signs_in(used)


def test_what_an_authenticator_shares_is_sealed_in_the_database(user: User) -> None:
    second = Second()
    assert second.secret not in str(Authenticator.objects.get(user=user, type="totp").data)


def test_what_guards_an_account_is_changed_only_after_the_password_was_said_lately(user: User) -> None:
    second = Second()
    asked: list[Callable[[], Any]] = [
        lambda: second.client.delete(TOTP, {}, **JSON),
        lambda: second.client.post(f"{ACCOUNT}/email", {"email": "other@heron.example"}, **JSON),
    ]
    with time_machine.travel(datetime.now(UTC) + timedelta(hours=1)):
        for change in asked:
            answer = change()
            assert (answer.status_code, answer.json()["data"]["flows"][0]["id"]) == (401, "reauthenticate")
        assert Authenticator.objects.filter(user=user, type="totp").exists()
        assert second.client.post(f"{AUTH}/reauthenticate", {"password": "wrong"}, **JSON).status_code == 400
        say_password(second.client)
        assert second.client.delete(TOTP, {}, **JSON).status_code == 200
    assert sign_in(Client(), PASSWORD) == 200


def test_a_new_address_takes_the_old_ones_place_once_it_is_confirmed(user: User) -> None:
    client = Client()
    sign_in(client, PASSWORD)
    say_password(client)
    assert client.post(f"{ACCOUNT}/email", {"email": "hale@heron.example"}, **JSON).status_code == 200
    assert User.objects.get(pk=user.pk).email == "morwenna@quay.example"
    key = mailed_key()
    assert client.post(f"{AUTH}/email/verify", {"key": key}, **JSON).status_code == 200
    assert User.objects.get(pk=user.pk).email == "hale@heron.example"
    assert [one.email for one in EmailAddress.objects.filter(user=user)] == ["hale@heron.example"]
    assert [to for to, _, text in account_mails() if "was changed from" in text] == ["morwenna@quay.example"]


def test_another_accounts_address_is_refused_by_its_field(user: User) -> None:
    other = User.objects.create_user("jory@otterwick.example", PASSWORD)
    EmailAddress.objects.create(user=other, email=other.email, verified=True, primary=True)
    client = Client()
    sign_in(client, PASSWORD)
    say_password(client)
    answer = client.post(f"{ACCOUNT}/email", {"email": "Jory@otterwick.example"}, **JSON)
    # Whether somebody has it is not told: nothing changes, and its owner hears of it.
    assert answer.status_code in {200, 400}
    assert User.objects.get(pk=user.pk).email == "morwenna@quay.example"
    assert (
        EmailAddress.objects.filter(email__iexact="jory@otterwick.example", verified=True).get().user == other
    )


def test_a_new_password_signs_every_other_browser_out(user: User) -> None:
    here, there = Client(), Client()
    sign_in(here, PASSWORD)
    sign_in(there, PASSWORD)
    body = {"current_password": "wrong", "new_password": "another long paddle"}
    refused = here.post(f"{ACCOUNT}/password/change", body, **JSON)
    assert (refused.status_code, refused.json()["errors"][0]["param"]) == (400, "current_password")
    body["current_password"] = PASSWORD
    assert here.post(f"{ACCOUNT}/password/change", body, **JSON).status_code == 200
    assert here.get("/api/me").status_code == 200
    assert there.get("/api/me").status_code == 401


def test_one_is_signed_out_elsewhere_or_everywhere_and_only_oneself(user: User) -> None:
    other = User.objects.create_user("jory@otterwick.example", PASSWORD)
    EmailAddress.objects.create(user=other, email=other.email, verified=True, primary=True)
    theirs = Client()
    theirs.post(f"{AUTH}/login", {"email": other.email, "password": PASSWORD}, **JSON)
    [their_session] = theirs.get(f"{AUTH}/sessions").json()["data"]
    here, there = Client(), Client(headers={"user-agent": "A phone"})
    sign_in(here, PASSWORD)
    sign_in(there, PASSWORD)
    listed = here.get(f"{AUTH}/sessions").json()["data"]
    assert sorted(one["is_current"] for one in listed) == [False, True]
    assert here.delete(f"{AUTH}/sessions", {"sessions": [their_session["id"]]}, **JSON).status_code == 400
    elsewhere = [one["id"] for one in listed if not one["is_current"]]
    assert here.delete(f"{AUTH}/sessions", {"sessions": elsewhere}, **JSON).status_code == 200
    assert (here.get("/api/me").status_code, there.get("/api/me").status_code) == (200, 401)
    assert here.delete(
        f"{AUTH}/sessions", {"sessions": [one["id"] for one in listed]}, **JSON
    ).status_code in {
        200,
        400,
        401,
    }
    rest = here.get(f"{AUTH}/sessions").json()["data"]
    here.delete(f"{AUTH}/sessions", {"sessions": [one["id"] for one in rest]}, **JSON)
    assert here.get("/api/me").status_code == 401
    assert theirs.get("/api/me").status_code == 200


@pytest.mark.parametrize("body", [{}, {"text": ""}, {"text": "x" * 501}, {"text": 5}, {"text": None}])
def test_a_qr_code_is_made_of_a_text_of_some_length(user: User, body: dict[str, object]) -> None:
    client = Client()
    sign_in(client, PASSWORD)
    answer = client.post("/api/me/qr", body, **JSON)
    assert (answer.status_code, answer.json()["errors"][0]["field"]) == (422, "text")
    assert "<svg" in client.post("/api/me/qr", {"text": "otpauth://totp/x?secret=A"}, **JSON).json()["svg"]
    assert Client().post("/api/me/qr", {"text": "x"}, **JSON).status_code == 401


ODD: list[object] = [
    -1, 1.5, None, {}, [[]], [None], [-1], [2**40], "\x00", "\ud800", "a" * 1001, ["\ud800"], {"a": {"b": []}},
]  # fmt: skip


@pytest.mark.parametrize("value", ODD)
def test_what_nobody_types_is_refused_at_the_door_with_the_field_named(user: User, value: object) -> None:
    client = Client(raise_request_exception=False)
    sign_in(client, PASSWORD)
    for method, path, field in (
        ("post", f"{AUTH}/reauthenticate", "password"), ("post", f"{AUTH}/password/reset", "key"),
        ("post", f"{ACCOUNT}/password/change", "new_password"), ("post", f"{ACCOUNT}/email", "email"),
        ("delete", f"{AUTH}/sessions", "sessions"), ("post", TOTP, "code"), ("post", f"{AUTH}/login", "email"),
    ):  # fmt: skip
        answer = getattr(client, method)(path, json.dumps({field: value}), **JSON)
        assert (answer.status_code, answer.json()["errors"][0]["param"]) == (400, field), path


@pytest.mark.parametrize(
    "body",
    [
        b"{",
        b"[]",
        b"null",
        b"\xff\xfe",
        b"1" * 9000,
        b'{"a":' + b"[" * 8000,
        b"x" * 20_000,
        b'{"a":Infinity}',
    ],
)
def test_a_body_that_is_no_object_is_refused(user: User, body: bytes) -> None:
    client = Client(raise_request_exception=False)
    for path in (f"{AUTH}/login", f"{ACCOUNT}/email", TOTP, f"{AUTH}/sessions"):
        assert client.post(path, body, **JSON).status_code == 400
