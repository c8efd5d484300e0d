"""The hosted page works without JavaScript."""

import re

from django.test import Client

from intavo import clock
from intavo.followup.models import FollowUp
from intavo.sites.models import Site
from intavo.touchpoints.actions import turn_off

from .conftest import World


def page(world: World) -> str:
    """Where the touchpoint has its own page."""
    return f"/t/{world.site.slug}/{world.touchpoint.slug}"


def form(world: World, **fields: str) -> dict[str, str]:
    """The form as a browser would send it."""
    text = Client().get(page(world)).content.decode()
    hidden = dict(re.findall(r'type="hidden" name="(\w+)" value="(\w*)"', text))
    return hidden | fields


def test_the_page_is_a_plain_form_with_labels(otterwick: World) -> None:
    answer = Client().get(page(otterwick))
    text = answer.content.decode()
    assert answer.status_code == 200
    assert '<label for="p3">Your email' in text
    assert "Send me the monthly news by email." in text


def test_what_is_wrong_stands_beside_its_field_and_nothing_typed_is_lost(otterwick: World) -> None:
    answer = Client().post(page(otterwick), form(otterwick, email="ife", name="Ife <3"))
    text = answer.content.decode()
    assert answer.status_code == 422
    assert "An email address has an @ in it" in text
    assert "Please tick this to go on." in text
    assert 'value="Ife &lt;3"' in text


def test_sending_it_thanks_and_promises_and_reloading_sends_nothing_more(otterwick: World) -> None:
    filled = form(otterwick, email="ife@post.example", news="on")
    for _ in range(2):
        answer = Client().post(page(otterwick), filled)
        assert answer.status_code == 200
        assert "We answer today by 16:05." in answer.content.decode()
    assert FollowUp.objects.get().person.events.count() == 1


def test_a_touchpoint_that_is_off_has_no_page(otterwick: World) -> None:
    turn_off(otterwick.owner, touchpoint_id=otterwick.touchpoint.pk)
    for address in (page(otterwick), "/l/cut-off", "/t/", "/l/a/b/c", "/t/UPPER/ünder"):
        answer = Client().get(address)
        assert answer.status_code == 404, address
        assert "not here any more" in answer.content.decode(), address


def test_a_short_link_opens_it_on_a_page_of_the_site_and_is_a_qr_code_too(otterwick: World) -> None:
    slug, site = otterwick.touchpoint.slug, otterwick.site.slug
    client = Client()
    assert client.get(f"/l/{site}/{slug}")["Location"] == f"/t/{site}/{slug}"
    Site.objects.update(seen_at=clock.now())
    assert client.get(f"/l/{site}/{slug}")["Location"] == f"https://www.otterwick.example/#intavo-{slug}"
    svg, png = (client.get(f"/l/{site}/{slug}.{form}") for form in ("svg", "png"))
    assert svg["Content-Type"] == "image/svg+xml"
    assert svg.content.startswith(b"<?xml")
    assert png.content.startswith(b"\x89PNG")
    for missing in (
        f"/l/{site}/nothing",
        f"/l/{site}/{slug}.gif",
        f"/l/nowhere/{slug}",
        f"/l/{site}/nothing.svg",
    ):
        assert client.get(missing).status_code == 404
