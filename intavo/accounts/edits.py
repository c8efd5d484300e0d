"""A document that several may have open at once, put together with what stands there by now."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, TypeVar

from pydantic import ValidationError

from intavo.core.refusals import wrongs

from .actor import Changed, Refused

Value = TypeVar("Value")


@dataclass(frozen=True, slots=True)
class Edit:
    """What something is to be, as people type it, and what that was made from (None: whatever stands there).
    Of what somebody else changed differently meanwhile, `all_the_same` keeps this.
    """

    document: dict[str, Any]
    based_on: dict[str, Any] | None = None
    all_the_same: bool = False

    def over(
        self,
        stands: Value,
        read: Callable[[dict[str, Any]], Value],
        together: Callable[[Value, Value, Value], tuple[Value, tuple[str, ...]]],
    ) -> Value:
        """What comes of it; what others have changed since stays. Refused as `read` refuses; Changed where
        both changed the same, in the words of `together`, which is given what it was made from, this, and
        what stands there. What comes of both together may be refused as well.
        """
        value = read(self.document)
        if self.based_on is None:
            return value
        try:
            base = read(self.based_on)
        except Refused:
            raise Refused(("based_on", "This is not what it can have been made from.")) from None
        try:
            both, clashes = together(base, value, stands)
        except ValidationError as error:
            raise Refused(*wrongs(error.errors(), "document", whole="document")) from error
        if clashes and not self.all_the_same:
            raise Changed(f"Somebody else has changed the same meanwhile: {', '.join(clashes)}.")
        return both
