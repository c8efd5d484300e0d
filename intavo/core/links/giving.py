"""A channel as visitors get it: what is said, who is there, and the links."""

from collections.abc import Mapping
from typing import Literal, NotRequired

from typing_extensions import TypedDict

from ..replies import Told
from .making import href, said_text
from .meeting import Met
from .model import Channel, ChannelPerson

# Stands in a link for the words that the visitor is asked for first.
WORDS = "intavo-words"


class WayPerson(TypedDict):
    """Somebody of a channel, and the link that leads to them."""

    name: str
    words: str
    picture: str | None
    reachable: bool
    href: str
    by: NotRequired[dict[str, str]]


class Way(TypedDict):
    """A way to reach the business, as it is met now.

    `by`: where its words name the touchpoint, the link of each. `text` and `asks`: where the visitor's words
    are asked for first, what stands there, and the link with a place for them.
    """

    situation: str
    hidden: bool
    says: Told | None
    people: list[WayPerson]
    kind: str
    label: str
    button: str
    icon: str
    colour: str | None
    pick: Literal["visitor", "first-reachable"]
    opens: Literal["new", "same", "ask-first"]
    goal: bool
    href: str
    by: NotRequired[dict[str, str]]
    text: NotRequired[str]
    asks: NotRequired[str]


def given(
    channel: Channel, met: Met, device: str, region: str, slots: Mapping[str, str], codes: Mapping[str, str]
) -> Way:
    """A channel as it is met on a device ("desktop", "phone"), as plain data.

    `codes` are the short codes of touchpoints by their ids: where the channel's words hold one, each
    touchpoint's own link stands in `by`.
    """

    def link(
        person: ChannelPerson | None, more: Mapping[str, str] | None = None, words: str | None = None
    ) -> str:
        try:
            return href(
                channel,
                person=person,
                slots={**slots, **(more or {})},
                device=device,
                region=region,
                words=words,
            )
        except ValueError:
            # It leads nowhere by itself: only its people have a way.
            return ""

    coded = any(not isinstance(run, str) and run.slot == "short_code" for run in channel.text)

    def by(person: ChannelPerson | None) -> dict[str, str]:
        return {id_: link(person, {"short_code": f"#{code}"}) for id_, code in codes.items()}

    def met_as(person: ChannelPerson, can: bool) -> WayPerson:
        said: WayPerson = {
            "name": person.name,
            "words": person.words,
            "picture": person.picture,
            "reachable": can,
            "href": link(person),
        }
        if coded:
            said["by"] = by(person)
        return said

    people = [met_as(one, can) for one, can in met.people]
    own = link(None)
    first = next((one for one, can in met.people if can), None) if channel.pick == "first-reachable" else None
    own = link(first) if first is not None else own
    way: Way = {
        "situation": met.situation.value, "hidden": met.hidden or device not in channel.devices,
        "says": {"title": met.says[0], "text": met.says[1]} if met.says else None, "people": people,
        "kind": channel.kind, "label": channel.label, "button": met.button or channel.label,
        "icon": channel.icon, "colour": channel.colour, "pick": channel.pick, "opens": channel.opens,
        "goal": channel.goal, "href": own or next((one["href"] for one in people if one["href"]), ""),
    }  # fmt: skip
    if channel.opens == "ask-first":
        way["text"], way["asks"] = said_text(channel.text, slots), link(None, words=WORDS)
    if coded:
        way["by"] = by(first)
    return way
