"""Every write on touchpoints and on what they use."""

from . import following as following
from .assets import add_asset, describe_asset, forget_asset
from .codes import add_codes, csv_address, drop_codes, give_code, revoke_csv
from .editing import (
    copy,
    make,
    name_revision,
    redo,
    rename,
    return_to,
    save_as_far,
    save_draft,
    take_in,
    turn_into,
    undo,
)
from .questions import drop_question, keep_question, order_questions, tell_helped
from .standing import note_lying_over
from .switching import (
    bring_back,
    clear_away,
    forget_showings,
    order,
    place,
    put_live,
    throw_away,
    turn_off,
    turn_on,
)

__all__ = [
    "add_asset", "add_codes", "bring_back", "clear_away", "copy", "csv_address", "describe_asset",
    "drop_codes", "drop_question", "forget_asset", "forget_showings", "give_code", "keep_question", "make",
    "name_revision", "note_lying_over", "order",
    "order_questions", "place", "put_live", "redo", "rename", "return_to", "revoke_csv", "save_as_far",
    "save_draft", "take_in", "tell_helped", "throw_away", "turn_into", "turn_off", "turn_on", "undo",
]  # fmt: skip
