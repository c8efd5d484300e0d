"""One router for all addresses on hours."""

from ninja import Router

from intavo.accounts.auth import MemberAuth

router = Router(tags=["hours"], auth=MemberAuth())
