"""The console's API on hours, what visitors are told, and who is at the counter."""

from . import counter, sets, told
from .router import router

__all__ = ["counter", "router", "sets", "told"]
