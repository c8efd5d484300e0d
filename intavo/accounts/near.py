"""Tables hold no time that a list could break on, however it came there."""

from django.db.models import CheckConstraint, Q

from intavo.core.times import FIRST, LAST


def near(name: str, *fields: str) -> CheckConstraint:
    """The rule that these times are none or near enough to be meant, in every zone."""
    held = Q()
    for field in fields:
        held &= Q(**{f"{field}__isnull": True}) | Q(**{f"{field}__gte": FIRST, f"{field}__lte": LAST})
    return CheckConstraint(condition=held, name=name)
