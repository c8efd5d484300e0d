"""How the console's API knows who calls: the session's user, as a member of a business."""

from django.http import HttpRequest
from ninja.security import SessionAuth

from intavo.core.say import READER, Tongue

from .actor import Actor, member_actor
from .models import User
from .queries import membership


class UserAuth(SessionAuth):
    """Signed in; perhaps without a business yet."""

    def authenticate(self, request: HttpRequest, key: str | None) -> User | None:
        """The signed-in user."""
        return request.user if isinstance(request.user, User) and request.user.is_active else None


class MemberAuth(UserAuth):
    """Signed in as a member; `request.auth` is the Actor."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Actor | None:  # type: ignore[override]
        """The member as an actor."""
        user = super().authenticate(request, key)
        member = membership(user, request.session.get("business")) if user else None
        if member is not None:
            READER.set(Tongue("en", member.business.region))
        return member_actor(member) if member else None


class MemberRequest(HttpRequest):
    """A request of a member."""

    auth: Actor


class UserRequest(HttpRequest):
    """A request of a signed-in user."""

    auth: User
