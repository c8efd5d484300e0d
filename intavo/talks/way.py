"""Reaching somebody in the conversation that they began."""

from typing import Any

from intavo import clock
from intavo.mail.enclosing import chosen
from intavo.people.ways import Gone, To, register

from .actions import answer_talk
from .files import shared
from .models import Delivery, Message, Talk
from .queries import talk_of


class InTheTalk:
    """In the page, or through the service that they wrote from; one who has left the page gets it by mail."""

    key, words, order = "talk", "in the conversation", 10

    def reach(self, to: To) -> bool:
        """Whether there is a conversation behind the follow-up."""
        found = talk_of(to.business_id, to.followup_id)
        return found is not None and (found.gateway is None or found.gateway.deleted_at is None)

    def takes_files(self, to: To) -> bool:
        """In the page; a service outside takes words alone."""
        found = talk_of(to.business_id, to.followup_id)
        return found is not None and found.gateway is None

    def send(self, to: To, text: str, key: str) -> Gone:
        """Say it there, and its files after it."""
        found = talk_of(to.business_id, to.followup_id)
        assert found is not None
        talk = Talk.objects.select_for_update(of=("self",)).get(pk=found.pk)
        rows = chosen(to.member_id, to.business_id, to.files) if to.files else []
        files = [shared(one) for one in rows]
        row = answer_talk(talk, text=text, key=key, member_id=to.member_id, at=clock.now(), files=files)
        for one in rows:
            one.delete()
        there = [
            {"name": one["name"], "href": f"/api/talks/{talk.pk}/files/{one['key']}", "size": one["size"]}
            for one in files
        ]
        return Gone({"talk": talk.pk, "message": row.pk} | ({"enclosed": there} if there else {}))

    def sent(self, to: To, key: str) -> bool:
        """Whether it was said already."""
        return Message.objects.filter(talk__followup_id=to.followup_id, client_id=f"us-{key}").exists()

    def take_back(self, to: To, key: str) -> bool:
        """Never: it stands there at once."""
        return False

    def receipt(self, business_id: int, data: dict[str, Any]) -> str:
        """Whether they have it."""
        row = (
            Message.objects.select_related("talk", "talk__gateway")
            .filter(business_id=business_id, pk=data.get("message") or 0)
            .first()
        )
        if row is None:
            return ""
        sent = Delivery.objects.filter(message=row).first()
        if sent is not None and row.talk.gateway is not None:
            return (
                f"{row.talk.gateway.name}: {_STATES[sent.state]}{f' — {sent.reason}' if sent.reason else ''}"
            )
        if row.mailed:
            return "mailed, since they had left"
        return "they have it" if row.n <= row.talk.given else "in the page, not seen yet"


_STATES = {
    Delivery.WAITING: "on its way", Delivery.ACCEPTED: "taken", Delivery.DELIVERED: "delivered",
    Delivery.FAILED: "not delivered",
}  # fmt: skip
register(InTheTalk())
