"""Members who are told by mail what came through touchpoints, and the link in each such mail that ends it."""

from collections.abc import Collection

from django.conf import settings
from django.core import signing

from .models import Member

_SALT = "touchpoint mail"


def told_of_touchpoints(business_id: int, wanted: Collection[int]) -> list[Member]:
    """Those of the `wanted` members (none: the owners) who want such mail."""
    members = Member.objects.select_related("user").filter(business_id=business_id, touchpoint_mail=True)
    return list(members.filter(pk__in=wanted) if wanted else members.filter(role="owner"))


def way_to_end(member: Member) -> str:
    """The address that ends a member's mail about touchpoints by a POST. Source: RFC 8058."""
    return f"{settings.BASE_URL}/told-of/{signing.dumps(member.pk, salt=_SALT)}"


def foot() -> str:
    """The last lines of such a mail: where it is changed what one is told."""
    return f"\nWhat you are told is set at {settings.BASE_URL}/you#told\n"


def told_by(token: str) -> Member | None:
    """The member that a link of these mails is of; None where there is none."""
    try:
        return Member.objects.select_related("business").filter(pk=signing.loads(token, salt=_SALT)).first()
    except (signing.BadSignature, ValueError, TypeError):
        return None


def tell_no_more(token: str) -> Member | None:
    """Send no more of these mails to the member of a link; None as in `told_by`."""
    member = told_by(token)
    if member is not None:
        member.touchpoint_mail = False
        member.save(update_fields=["touchpoint_mail"])
    return member
