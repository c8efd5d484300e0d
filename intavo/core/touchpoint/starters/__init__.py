"""Starters: whole documents with words worth keeping, to begin a touchpoint from."""

from .build import Asks, Starter
from .inquiries import INQUIRIES
from .offers import OFFERS
from .others import OTHERS
from .signups import SIGN_UPS

STARTERS: tuple[Starter, ...] = (*SIGN_UPS, *INQUIRIES, *OFFERS, *OTHERS)

__all__ = ["STARTERS", "Asks", "Starter"]
