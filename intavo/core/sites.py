"""What an owner says of a site, and two changes of it put together."""

from dataclasses import dataclass

from .edits import lists_together, put_together


@dataclass(frozen=True, slots=True)
class SiteFacts:
    """A site's name, what its visitors are spoken to in ("": as the business does), and its bare hosts."""

    name: str
    language: str
    hosts: tuple[str, ...]


def sites_together(base: SiteFacts, ours: SiteFacts, theirs: SiteFacts) -> tuple[SiteFacts, tuple[str, ...]]:
    """The facts with what both changed since `base`, and in words what both changed differently: of that,
    ours. A host that either put in is in, and one that either took out is out.
    """
    both = put_together(
        *({"its name": one.name, "its language": one.language} for one in (base, ours, theirs))
    )
    hosts = lists_together(base.hosts, ours.hosts, theirs.hosts)
    return SiteFacts(both.parts["its name"], both.parts["its language"], hosts), both.clashes
