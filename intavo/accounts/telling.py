"""Members who are told by mail what came through touchpoints, and the link that ends such mail, or another
kind.
"""

from collections.abc import Collection

from django.conf import settings
from django.core import signing

from .models import Member

_SALT = "touchpoint mail"


def told_of_touchpoints(business_id: int, wanted: Collection[int]) -> list[Member]:
    """Those of the `wanted` members (none: the owners) who want such mail."""
    members = Member.objects.select_related("user").filter(business_id=business_id, touchpoint_mail=True)
    return list(members.filter(pk__in=wanted) if wanted else members.filter(role="owner"))


def way_to_end(member: Member, page: str = "told-of", salt: str = _SALT) -> str:
    """The address that ends a kind of mail to a member by a POST; mail about touchpoints at first. Source:
    RFC 8058.
    """
    return f"{settings.BASE_URL}/{page}/{signing.dumps(member.pk, salt=salt)}"


def foot() -> str:
    """The last lines of such a mail: where it is changed what one is told."""
    return f"\nWhat you are told is set at {settings.BASE_URL}/you#told\n"


def told_by(token: str, salt: str = _SALT) -> Member | None:
    """The member that a link of such mails is of; None where there is none."""
    try:
        return Member.objects.select_related("business").filter(pk=signing.loads(token, salt=salt)).first()
    except (signing.BadSignature, ValueError, TypeError):
        return None


def tell_no_more(token: str) -> Member | None:
    """Send no more of these mails to the member of a link; None as in `told_by`."""
    member = told_by(token)
    if member is not None:
        member.touchpoint_mail = False
        member.save(update_fields=["touchpoint_mail"])
    return member
