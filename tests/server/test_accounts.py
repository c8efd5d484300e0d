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
