"""A channel as visitors get it: what is said, who is there, and the links."""

from collections.abc import Mapping
from typing import Any

from .making import href, said_text
from .meeting import Met
from .model import Channel, ChannelPerson

# Stands in a link for the words that the visitor is asked for first.
WORDS = "intavo-words"


def given(
    channel: Channel, met: Met, device: str, region: str, slots: Mapping[str, str], codes: Mapping[str, str]
) -> dict[str, Any]:
    """A channel as it is met on a device ("desktop", "phone"), as plain data.

    `codes` are the short codes of touchpoints by their ids: where the channel's words hold one, each touchpoint's
    own link stands in `by`.
    """

    def link(person: ChannelPerson | None, more: Mapping[str, str] | None = None, words: str | None = None) -> str:
        try:
            return href(
                channel, person=person, slots={**slots, **(more or {})}, device=device, region=region, words=words
            )
        except ValueError:
            # It leads nowhere by itself: only its people have a way.
            return ""

    coded = any(not isinstance(run, str) and run.slot == "short_code" for run in channel.text)

    def by(person: ChannelPerson | None) -> dict[str, dict[str, str]]:
        made = {id_: link(person, {"short_code": f"#{code}"}) for id_, code in codes.items()}
        return {"by": made} if coded else {}

    people: list[dict[str, Any]] = [
        {"name": one.name, "words": one.words, "picture": one.picture, "reachable": can, "href": link(one), **by(one)}
        for one, can in met.people
    ]
    own = link(None)
    first = next((one for one, can in met.people if can), None) if channel.pick == "first-reachable" else None
    own = link(first) if first is not None else own
    made: dict[str, Any] = {
        "situation": met.situation.value, "hidden": met.hidden or device not in channel.devices,
        "says": {"title": met.says[0], "text": met.says[1]} if met.says else None, "people": people,
        "kind": channel.kind, "label": channel.label, "button": met.button or channel.label, "icon": channel.icon,
        "colour": channel.colour, "pick": channel.pick, "opens": channel.opens, "goal": channel.goal,
        "href": own or next((str(one["href"]) for one in people if one["href"]), ""),
    }  # fmt: skip
    if channel.opens == "ask-first":
        made |= {"text": said_text(channel.text, slots), "asks": link(None, words=WORDS)}
    return made | by(first)
