"""What stands between a new owner and the first lead, each step true by looking."""

from dataclasses import dataclass

from intavo.accounts.actor import Actor
from intavo.accounts.models import Business
from intavo.core.showing import TouchpointState
from intavo.mail.actions import comes_in_at
from intavo.people.models import TimelineEvent
from intavo.sites.models import Site
from intavo.sites.queries import home_of
from intavo.touchpoints.models import Touchpoint

from .models import FollowUp


@dataclass(frozen=True, slots=True)
class FirstStep:
    """One thing to do: whether it is done, what it is, how, and where (an address of the console, or
    outside).
    """

    key: str
    done: bool
    name: str
    how: str
    button: str
    go: str


def first_steps(actor: Actor) -> list[FirstStep]:
    """The steps in order; none where the owner has put them away, or where all of them are done."""
    business = Business.objects.get(pk=actor.business_id)
    if business.first_steps_away:
        return []
    steps = _steps(business)
    return [] if all(one.done for one in steps) else steps


def _steps(business: Business) -> list[FirstStep]:
    site = Site.objects.filter(business=business).order_by("pk").first()
    touchpoints = Touchpoint.objects.filter(business=business, deleted_at=None)
    on = touchpoints.filter(state=TouchpointState.LIVE.value).exists()
    made = touchpoints.order_by("-pk").values_list("pk", flat=True).first()
    work = FollowUp.objects.filter(business=business)
    came = work.exists()
    # What was done once stays done, whatever becomes of the work.
    happened = TimelineEvent.objects.filter(business=business)
    answered = happened.filter(kind__in=["answered", "finished"]).exists()
    back = happened.filter(kind="wrote by mail").exists()
    comes_in = comes_in_at(business.pk)
    return [
        FirstStep(
            "touchpoint", on, "Turn on your first touchpoint",
            "Ask your visitors for something: their address, or a question.",
            "Go on with it" if made else "Make it",
            f"/touchpoints/{made}" if made and not on else "/touchpoints?new",
        ),
        FirstStep(
            "line", site is not None and site.seen_at is not None, "Put the line on your site",
            "One line in the head of your pages. It is seen here by itself once a page with it was opened.",
            "Show me the line", "/business#sites",
        ),
        FirstStep(
            "hours", business.hours_looked_at, "Look at your hours",
            "When you are open decides what visitors are promised.",
            "To the hours", "/hours",
        ),
        FirstStep(
            "sent", came, "Send a test answer",
            "Open your site as a visitor would, and send your touchpoint.", "Open my site",
            home_of(site) if site and site.seen_at else "",
        ),
        FirstStep(
            "answered", answered, "Answer it",
            "It stands on this list, with its time where one was promised.", "", "",
        ),
        FirstStep(
            "back", back, "See an answer come back",
            "Answer the mail that you were sent as a visitor: what people answer comes back to this list.",
            "" if comes_in else "Say where they come in",
            "" if comes_in else "/business#mail-in",
        ),
    ]  # fmt: skip


def put_away(actor: Actor) -> None:
    """The owner wants to see them no longer."""
    Business.objects.filter(pk=actor.business_id).update(first_steps_away=True)
    actor.noted("first steps put away")
