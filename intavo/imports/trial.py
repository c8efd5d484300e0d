"""What taking a file would do, without doing it."""

from collections import Counter
from dataclasses import dataclass, field

from intavo.accounts.actor import Actor, Refused
from intavo.accounts.scope import own
from intavo.core.importing import Entry, Line
from intavo.core.rights import Right

from .models import Import
from .rows import AT_ONCE, addresses_of, agrees, batches, keys_of, read_first

MOST_TRIED, MOST_SHOWN = 20_000, 100


@dataclass(slots=True)
class Trial:
    """What taking a file would do: how many are new, join somebody, or are refused; and the first rows,
    each.
    """

    rows: int = 0
    new: int = 0
    joining: int = 0
    refused: int = 0
    agreed: int = 0
    whole: bool = True
    reasons: Counter[str] = field(default_factory=Counter)
    lines: list[tuple[int, str, str]] = field(default_factory=list)


def try_out(actor: Actor, *, import_id: int) -> Trial:
    """What taking the file would do, without doing it; of a long one its first 20,000 rows."""
    actor.needs(Right.FOLLOW_UP)
    row = own(actor, Import.objects.select_related("business"), import_id)
    if row.state != Import.READ:
        raise Refused(("state", "This has been done already."))
    trial, seen = Trial(), dict[tuple[str, str], int]()
    try:
        entries, trial.whole = read_first(row, MOST_TRIED)
    except FileNotFoundError:
        raise Refused(("file", "The file is not here any more: please choose it again.")) from None
    for batch in batches(entries, AT_ONCE):
        _try_batch(row, batch, trial, seen)
    return trial


def _try_batch(
    row: Import,
    entries: list[tuple[Line, Entry | None, str]],
    trial: Trial,
    seen: dict[tuple[str, str], int],
) -> None:
    known = _known(row.business_id, [entry for _, entry, _ in entries if entry is not None])
    for line, entry, wrong in entries:
        trial.rows += 1
        if entry is None:
            trial.refused += 1
            trial.reasons[wrong] += 1
            _shown(trial, line, "refused", wrong)
            continue
        keys = keys_of(entry)
        first = next((seen[key] for key in keys if key in seen), None)
        there = next((known[key] for key in keys if key in known), None)
        if there is not None or first is not None:
            trial.joining += 1
            _shown(
                trial,
                line,
                "joining",
                f"row {first}" if first is not None else there or "somebody on your list",
            )
        else:
            trial.new += 1
            _shown(trial, line, "new", entry.name or (entry.email or entry.phone).shown)  # type: ignore[union-attr]
        for key in keys:
            seen.setdefault(key, line.number)
        trial.agreed += agrees(row, entry) or any(one.withdrawn_at is None for one in entry.agreements)


def _shown(trial: Trial, line: Line, what: str, words: str) -> None:
    """The first rows are shown, and the first of those that are refused."""
    if sum(one[1] == what for one in trial.lines) < MOST_SHOWN // 2:
        trial.lines.append((line.number, what, words))


def _known(business_id: int, entries: list[Entry]) -> dict[tuple[str, str], str]:
    return {(one.kind, one.key): one.person.name or one.shown for one in addresses_of(business_id, entries)}
