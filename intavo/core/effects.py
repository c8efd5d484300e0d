"""Effects upwards: an app tells those above it that something happened, without importing them."""

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Generic, TypeVar

T = TypeVar("T")


@dataclass
class Effect(Generic[T]):
    """A named happening. Handlers run in the order of registration, in the caller's transaction."""

    name: str
    _handlers: list[Callable[[T], None]] = field(default_factory=list)

    def register(self, handler: Callable[[T], None]) -> Callable[[T], None]:
        """Add a handler (also usable as a decorator); adding the same one again changes nothing."""
        if handler not in self._handlers:
            self._handlers.append(handler)
        return handler

    def tell(self, what: T) -> None:
        """Run every handler; an exception in one undoes the caller's transaction, as it should."""
        for handler in self._handlers:
            handler(what)
