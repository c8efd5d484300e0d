"""The address that a business's mail comes from: whoever reads it says first that it may."""

from allauth.account.models import EmailAddress
from django.conf import settings
from django.core import signing
from django.db import transaction

from intavo.core.rights import Right

from .actor import Actor
from .daily import few_a_day
from .effects import business_changed
from .mails import queue_mail
from .models import Business, User

_SALT, _LASTS_SECONDS, _MOST_A_DAY = "sender", 7 * 24 * 60 * 60, 5
_ASKED = """Hello,

{who} would like the mail of their business on Intavo to come from this address. Answers would come here.

If that is right, confirm it here: {link}

If you do not know of it, do nothing: nothing is sent from this address.

Intavo
"""


def is_theirs(address: str, *, business_id: int = 0, user: User | None = None) -> bool:
    """Whether a member of the business, or this user, has confirmed the address for signing in."""
    rows = EmailAddress.objects.filter(verified=True, email__iexact=address)
    of = rows.filter(user=user) if user else rows.filter(user__memberships__business_id=business_id)
    return bool(of.exists())


def ask_sender(actor: Actor) -> None:
    """Mail a link to the address that mail is to come from.
    Refused where that was done often within a day.
    """
    actor.needs(Right.BUSINESS)
    few_a_day(actor, "sender asked", _MOST_A_DAY, "mail_address")
    business = Business.objects.get(pk=actor.business_id)
    token = signing.dumps([business.pk, business.mail_address], salt=_SALT)
    who = User.objects.get(memberships__pk=actor.member_id or 0).email
    with transaction.atomic():
        queue_mail(
            to=business.mail_address,
            subject="May mail come from this address?",
            text=_ASKED.format(who=who, link=f"{settings.BASE_URL}/sender/{token}"),
        )
        actor.noted("sender asked", address=business.mail_address)


def asked_of(token: str) -> Business | None:
    """The business that a link asks for; None where it is over,
    or the business wants another address by now.
    """
    try:
        business_id, address = signing.loads(token, salt=_SALT, max_age=_LASTS_SECONDS)
    except (signing.BadSignature, ValueError, TypeError):
        return None
    return Business.objects.filter(pk=business_id, mail_address=address).first()


def confirm_sender(token: str) -> Business | None:
    """Mail comes from the address from now on; None as in `asked_of`."""
    business = asked_of(token)
    if business is not None and not business.mail_confirmed:
        with transaction.atomic():
            Business.objects.filter(pk=business.pk).update(mail_confirmed=True)
            business_changed.tell(business.pk)
    return business
