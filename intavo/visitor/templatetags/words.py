"""Words of ours in a page for visitors: `{% say "Go on" %}`, in the tongue that the page is given as
`tongue`.
"""

from typing import Any

from django import template

from intavo.core.tongues import ENGLISH, Tongue
from intavo.core.tongues import say as in_words

register = template.Library()


@register.simple_tag(takes_context=True)
def say(context: dict[str, Any], key: str, **values: object) -> str:
    """Words of ours by their English ones; what fills their places is escaped with them."""
    tongue = context.get("tongue")
    return in_words(key, tongue if isinstance(tongue, Tongue) else ENGLISH, **values)
