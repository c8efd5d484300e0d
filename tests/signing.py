"""Signing in by the API, where a test only wants to be in."""

from typing import Any

import httpx

from demo.business import PASSWORD
from scripts.stack import Stack

Cookies = list[Any]


def cookies_of(stack: Stack, person: str) -> Cookies:
    """The cookies of a member of the business, by their name, who has just signed in."""
    with httpx.Client(
        base_url=stack.base_url, timeout=60, headers={"Referer": f"{stack.base_url}/"}
    ) as client:
        client.get("/_allauth/browser/v1/auth/session")
        client.get("/sign-in")
        answer = client.post(
            "/_allauth/browser/v1/auth/login",
            json={"email": stack.names.email(person), "password": PASSWORD},
            headers={"X-CSRFToken": client.cookies["csrftoken"]},
        )
        assert answer.status_code == 200, answer.text
        return [
            {"name": name, "value": value, "url": stack.base_url} for name, value in client.cookies.items()
        ]
