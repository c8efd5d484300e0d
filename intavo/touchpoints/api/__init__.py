"""The console's API on touchpoints and on what they use."""

from ninja import Router

from intavo.accounts.auth import MemberAuth

from .afterwards import router as afterwards
from .assets import router as assets
from .editing import router as editing
from .history import router as history
from .questions import router as questions

router = Router(tags=["touchpoints"], auth=MemberAuth())
for one in (editing, history, afterwards, assets, questions):
    router.add_router("", one)
