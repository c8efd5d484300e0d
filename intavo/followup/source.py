"""Where a follow-up came from."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Source:
    """The touchpoint and site, the page and device, what was written, by which way ("form", "mail", a
    gateway), and to which member, where they chose one.
    """

    touchpoint_id: int | None
    site_id: int | None
    page: str
    device: str
    excerpt: str
    via: str = "form"
    to: int | None = None
