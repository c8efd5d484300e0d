"""Answers to invitations that came by mail, with an entry that calendars read (RFC 5546, RFC 6047)."""

from intavo import clock
from intavo.accounts.actor import Actor, Refused
from intavo.accounts.models import Business
from intavo.accounts.scope import own
from intavo.core import people as rules
from intavo.core.mailin import Says, answered, invitation_kept
from intavo.core.tongues import Phrase, say
from intavo.mail.actions import comes_in_at
from intavo.people.models import TimelineEvent

from .actions import answer
from .models import FollowUp

_WORDS: dict[Says, Phrase] = {
    "accepted": Phrase("We accept: {summary}"),
    "declined": Phrase("We cannot come: {summary}"),
    "tentative": Phrase("Perhaps we come: {summary}"),
}


def answer_invitation(actor: Actor, *, followup_id: int, event_id: int, says: Says) -> FollowUp:
    """Accept an invitation that stands on the timeline, decline it, or say perhaps; the last word counts.

    Refused for what is no invitation, or one that says nowhere whom to answer.
    """
    row = own(actor, FollowUp, followup_id)
    event = own(actor, TimelineEvent.objects.filter(person_id=row.person_id), event_id)
    kept = invitation_kept(event.data.get("invitation"))
    if kept is None:
        raise Refused(("says", "This is no invitation that can be answered."))
    try:
        rules.email_address(kept.answer_to)
    except ValueError:
        raise Refused(("says", "The invitation says nowhere whom to answer.")) from None
    mine = row.person.events.filter(kind="answered", data__key__startswith=f"invitation-{event_id}-")
    last = mine.order_by("-pk").first()
    # The same again changes nothing; another word is another mail.
    again = last is not None and str(last.data["key"]).endswith(f"-{says}")
    number = mine.count() - again
    business = Business.objects.get(pk=actor.business_id)
    ours = {one.casefold() for one in (business.mail_address, comes_in_at(business.pk)) if one}
    # Whom they asked; where that is none of our addresses (a mail that was sent on), the business's own.
    address = next(
        (one for one in kept.asked if one.casefold() in ours),
        business.mail_address or next(iter(kept.asked), ""),
    )
    return answer(
        actor,
        followup_id=followup_id,
        text=say(_WORDS[says], business.tongue(), summary=kept.summary or "?"),
        key=f"invitation-{event_id}-{number}-{says}",
        then="keep",
        way="mail",
        entry=("answer.ics", answered(kept, (business.name, address), says, clock.now())),
        mail_to=kept.answer_to,
    )
