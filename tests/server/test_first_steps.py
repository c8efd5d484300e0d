"""What a new owner is shown first: each step is true by looking, and it goes by itself."""

from intavo.accounts.models import Business
from intavo.mail.models import OutgoingMail
from intavo.touchpoints.actions import turn_off

from .conftest import Visitor, World, sending
from .test_mail_in import hand_in, mail


def done(world: World) -> dict[str, bool]:
    """Which steps are done."""
    return {one["key"]: one["done"] for one in world.console().get("/api/first-steps").json()}


def test_each_step_is_true_by_looking_and_all_go_once_they_are_done(
    otterwick: World, visitor: Visitor
) -> None:
    console = otterwick.console()
    Business.objects.update(hours_looked_at=False)
    before = done(otterwick)
    assert list(before) == ["touchpoint", "line", "hours", "sent", "answered", "back"]
    assert before["touchpoint"]
    assert [one for one, is_done in before.items() if is_done] == ["touchpoint"]
    visitor.plan()
    assert done(otterwick)["line"]
    console.post("/api/hours/looked-at")
    assert done(otterwick)["hours"]
    document = otterwick.touchpoint
    assert visitor.post("intake", sending(document)).status_code == 201
    assert done(otterwick)["sent"]
    item = console.get("/api/follow-ups").json()
    first = (
        next(one for lane in item["lanes"] for one in lane["items"]) if item["lanes"] else item["sign_ups"][0]
    )
    console.post(
        f"/api/follow-ups/{first['id']}/finish", {"outcome": "answered"}, content_type="application/json"
    )
    assert [one for one, is_done in done(otterwick).items() if not is_done] == ["back"]
    thanks = OutgoingMail.objects.latest("pk")
    hand_in(otterwick, mail("Thank you.", sender=thanks.to, In_Reply_To=thanks.message_id))
    assert done(otterwick) == {}


def test_a_touchpoint_that_is_off_is_not_on_yet_and_the_steps_can_be_put_away(otterwick: World) -> None:
    turn_off(otterwick.owner, touchpoint_id=otterwick.touchpoint.pk)
    assert done(otterwick)["touchpoint"] is False
    assert otterwick.console().delete("/api/first-steps").status_code == 204
    assert done(otterwick) == {}
