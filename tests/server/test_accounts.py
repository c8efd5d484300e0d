"""Signing in and up, confirming, resetting: through the headless API the console uses."""

import re
from urllib.parse import unquote

import pytest
from allauth.account.models import EmailAddress
from django.core import mail as outbox
from django.test import Client
from procrastinate.contrib.django.models import ProcrastinateJob

from intavo.accounts.models import User
from intavo.mail.actions import send_account_mail

JSON = {"content_type": "application/json"}
AUTH = "/_allauth/browser/v1/auth"
PASSWORD = "correct horse paddle"


@pytest.fixture
def user(db: None) -> User:
    user = User.objects.create_user("morwenna@otterwick.example", PASSWORD, name="Morwenna Hale")
    EmailAddress.objects.create(user=user, email=user.email, verified=True, primary=True)
    return user


def sign_in(client: Client, password: str) -> int:
    """Try to sign in."""
    body = {"email": "morwenna@otterwick.example", "password": password}
    return client.post(f"{AUTH}/login", body, **JSON).status_code


def mailed_key() -> str:
    """The key in the newest account mail, which goes out through its job."""
    job = ProcrastinateJob.objects.filter(task_name="account_mail").latest("id")
    send_account_mail(to=job.args["to"], subject=job.args["subject"], text=job.args["text"])
    found = re.search(r"http://127\.0\.0\.1:8400/(?:verify|reset)/(\S+)", outbox.outbox[-1].body)
    assert found
    return unquote(found[1])


def test_the_right_password_signs_in_and_the_wrong_one_is_refused(user: User) -> None:
    client = Client()
    assert sign_in(client, "wrong") == 400
    assert client.get("/api/me").status_code == 401
    assert sign_in(client, PASSWORD) == 200
    assert client.get("/api/me").json()["initials"] == "MH"


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
    assert client.post(f"{AUTH}/login", {"email": "new@heron.example", "password": PASSWORD}, **JSON).status_code == 200


def test_a_short_password_is_refused_by_its_field(db: None) -> None:
    answer = Client().post(f"{AUTH}/signup", {"email": "new@heron.example", "password": "short"}, **JSON)
    assert answer.status_code == 400
    assert answer.json()["errors"][0]["param"] == "password"


def test_a_password_is_reset_by_mail(user: User) -> None:
    assert Client().post(f"{AUTH}/password/request", {"email": user.email}, **JSON).status_code == 200
    body = {"key": mailed_key(), "password": "another long paddle"}
    assert Client().post(f"{AUTH}/password/reset", body, **JSON).status_code in {200, 401}
    assert sign_in(Client(), "another long paddle") == 200


def test_healthz_says_which_part_is_down(db: None) -> None:
    answer = Client().get("/healthz")
    assert answer.status_code == 503
    assert answer.json() == {"web": True, "database": True, "worker": False}


def account_mails() -> list[tuple[str, str, str]]:
    """To, subject and text of every account mail that waits for its job, in order."""
    jobs = ProcrastinateJob.objects.filter(task_name="account_mail").order_by("id")
    return [(job.args["to"], job.args["subject"], job.args["text"]) for job in jobs]


def test_confirming_in_the_browser_that_signed_up_signs_in(db: None) -> None:
    client = Client()
    client.post(f"{AUTH}/signup", {"email": "new@heron.example", "password": PASSWORD}, **JSON)
    assert client.post(f"{AUTH}/email/verify", {"key": mailed_key()}, **JSON).status_code == 200
    assert client.get("/api/me").json()["email"] == "new@heron.example"


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
        "Please confirm your address", "You have an account already", "A new password for Intavo",
        "There is no account with this address", "Your password was changed",
    ]  # fmt: skip
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
