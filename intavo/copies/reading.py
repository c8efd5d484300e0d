"""A business made anew from a copy: every row read, checked and given the ids of here, or nothing at all."""

import re
import shutil
import uuid
import zipfile
from collections import defaultdict
from collections.abc import Iterator
from pathlib import Path
from typing import Any, cast
from zoneinfo import available_timezones

from django.core.exceptions import ValidationError
from django.db import DataError, IntegrityError, transaction
from django.db.models import DateTimeField, Field, Model
from pydantic import TypeAdapter
from pydantic import ValidationError as NotValid

from intavo import clock
from intavo.accounts.models import AuditEntry, Business, Member
from intavo.accounts.secrets import sealed
from intavo.accounts.sender import is_theirs
from intavo.core.copies import Manifest, remapped, renamed
from intavo.core.door import NotLetIn, read_json
from intavo.core.times import Moment
from intavo.hours.models import HoursSet
from intavo.keeping import home, kept
from intavo.mail.models import OutgoingMail
from intavo.mailin.models import IncomingMail
from intavo.people.models import Person, TimelineEvent
from intavo.sites.models import Site
from intavo.talks.models import Gateway
from intavo.touchpoints.models import Touchpoint

from .checks import CHECKS
from .files import named_files
from .tables import LOOSE, REFERS, THEIR_MAIL, Carried, carried, columns
from .writing import ABOUT

MOST_OPENED, MOST_FILES, MOST_LINE = 20 * 1024**3, 200_000, 16 * 1024 * 1024
_AT_ONCE = 500
_MOMENT = TypeAdapter[Any](Moment)
_PART = re.compile(r"[A-Za-z0-9_][A-Za-z0-9_.-]{0,79}")
# What a row waits with until the rows are there that it names.
_HELD: dict[type[Model], dict[str, Any]] = {Touchpoint: {"state": "draft"}}


class Unreadable(Exception):
    """This is no copy that a business can be made from; nothing was written."""


def manifest_of(path: Path) -> Manifest:
    """The manifest of a copy. Unreadable for what is none, or holds more than is opened here."""
    try:
        with zipfile.ZipFile(path) as copy:
            infos = copy.infolist()
            if len(infos) > MOST_FILES or sum(one.file_size for one in infos) > MOST_OPENED:
                raise Unreadable(
                    "There is more in this file than is taken in: at most 20 GB in 200,000 files."
                )
            with copy.open("manifest.json") as file:
                manifest = Manifest.model_validate(read_json(file.read(MOST_LINE)))
    except Unreadable:
        raise
    except NotValid:
        raise Unreadable(
            "This copy was made by another version of Intavo, which this one cannot read."
        ) from None
    except (
        zipfile.BadZipFile,
        KeyError,
        NotLetIn,
        OSError,
        RuntimeError,
        NotImplementedError,
        EOFError,
        ValueError,
    ):
        raise Unreadable("This is not a copy of a business; choose the .zip that Intavo made.") from None
    known = {one.name for one in carried()}
    unknown = [one.name for one in manifest.tables if one.name not in known and one.rows]
    if unknown:
        raise Unreadable(f"This copy holds what this Intavo does not know: {', '.join(unknown[:3])}.")
    return manifest


def read_copy(business_id: int, path: Path) -> list[str]:
    """Make an empty business anew; says what was done and what could not be. Unreadable: nothing was."""
    manifest = manifest_of(path)
    try:
        with zipfile.ZipFile(path) as copy, transaction.atomic():
            return _Reading(business_id, copy, manifest).all()
    except (IntegrityError, DataError) as error:
        said = str(error).split("\n", maxsplit=1)[0][:200]
        raise Unreadable(f"Two rows of this copy do not go together: {said}") from None
    except (zipfile.BadZipFile, KeyError, OSError, RuntimeError, NotImplementedError, EOFError) as error:
        raise Unreadable(f"This copy is damaged: {str(error)[:200]}") from None


class _Reading:
    def __init__(self, business_id: int, copy: zipfile.ZipFile, manifest: Manifest) -> None:
        self.business_id, self.copy, self.manifest = business_id, copy, manifest
        self.ids: dict[type[Model], dict[int, int]] = defaultdict(dict)
        self.names: dict[str, str] = {}
        self.fresh: dict[str, str] = {}
        self.who: dict[int, str] = {}
        self.told: list[str] = []
        self.counts: dict[str, int] = {}
        self.later: list[tuple[Carried, int, dict[str, int], dict[str, Any]]] = []

    def all(self) -> list[str]:
        self._members()
        self._make_room()
        for table in carried():
            self._names_of(table)
        for table in carried():
            self._table(table)
        self._links()
        self._about()
        self._files()
        count = self.counts
        done = (
            f"{count.get('people.Person', 0):,} people, {count.get('followup.FollowUp', 0):,} follow-ups, "
            f"{count.get('touchpoints.Touchpoint', 0):,} touchpoints and "
            f"{count.get('people.TimelineEvent', 0):,} entries of timelines are here."
        )
        return [done, *dict.fromkeys(self.told)]

    def _members(self) -> None:
        """Members are those of here who have the same address; of the others the name stays."""
        here = {
            one.user.email.casefold(): one.pk
            for one in Member.objects.filter(business_id=self.business_id).select_related("user")
        }
        missing = []
        for _, row in self._lines("members.jsonl"):
            known, email = row.get("id"), row.get("email")
            if not isinstance(known, int) or not isinstance(email, str):
                raise Unreadable("members.jsonl names somebody without an id or an address.")
            self.who[known] = str(row.get("name") or email)[:120]
            if email.casefold() in here:
                self.ids[Member][known] = here[email.casefold()]
            else:
                missing.append(self.who[known])
        if missing:
            self.told.append(
                f"{', '.join(missing)} {'is' if len(missing) == 1 else 'are'} not in this business: what was "
                "theirs is everybody’s now, and what they did still says who it was."
            )

    def _make_room(self) -> None:
        """What a new business begins with gives way."""
        for table in reversed(carried()):
            if table.model is AuditEntry:
                continue
            rows = table.model._default_manager.filter(business_id=self.business_id)
            if table.model is HoursSet:
                rows.update(instead=None)
            rows.delete()

    def _lines(self, name: str) -> Iterator[tuple[int, dict[str, Any]]]:
        with self.copy.open(name) as file:
            number = 0
            while line := file.readline(MOST_LINE):
                number += 1
                try:
                    row = read_json(line)
                except NotLetIn as error:
                    raise Unreadable(f"{name}, line {number}: {error}") from None
                if not isinstance(row, dict):
                    raise Unreadable(f"{name}, line {number}: this is no row.")
                yield number, row

    def _table(self, table: Carried) -> None:
        known = next((one for one in self.manifest.tables if one.name == table.name), None)
        if known is None:
            return
        batch: list[tuple[int, dict[str, Any]]] = []
        for one in self._lines(known.file):
            batch.append(one)
            if len(batch) == _AT_ONCE:
                self._put(table, batch)
                batch = []
        if batch:
            self._put(table, batch)

    def _names_of(self, table: Carried) -> None:
        """New names are known before the first row is read that says one."""
        known = next((one for one in self.manifest.tables if one.name == table.name), None)
        if known is None or not table.unique:
            return
        batch: list[dict[str, Any]] = []
        for _, row in self._lines(known.file):
            batch.append(row)
            if len(batch) == _AT_ONCE:
                self._name_anew(table, batch)
                batch = []
        self._name_anew(table, batch)

    def _put(self, table: Carried, batch: list[tuple[int, dict[str, Any]]]) -> None:
        made: list[Model] = []
        old: list[int] = []
        for number, row in batch:
            try:
                values = self._row(table, row)
            except (NotValid, ValidationError, TypeError, ValueError) as error:
                said = _said_of(error)
                raise Unreadable(f"{table.file}, line {number}: {said[:200]}") from None
            if values is None:
                continue
            made.append(table.model(business_id=self.business_id, **values))
            old.append(_whole(row.get("id")))
        rows = table.model._default_manager.bulk_create(made)
        self.counts[table.name] = self.counts.get(table.name, 0) + len(rows)
        keep = self.ids[table.model]
        for was, now in zip(old, rows, strict=True):
            keep[was] = now.pk
        if table.later or table.model in _HELD:
            written = {_whole(row.get("id")): row for _, row in batch}
            held = _HELD.get(table.model, {})
            for was, now in zip(old, rows, strict=True):
                links = {
                    one.attname: written[was][one.attname]
                    for one in table.later
                    if written[was].get(one.attname)
                }
                self.later.append((table, now.pk, links, {name: written[was].get(name) for name in held}))

    def _row(self, table: Carried, row: dict[str, Any]) -> dict[str, Any] | None:
        """The values of a row as it is here; None where somebody it cannot be without is not here."""
        if set(row) - set(columns(table)):
            raise ValueError(f"there is no {min(set(row) - set(columns(table)))} in such a row")
        values: dict[str, Any] = {}
        refers = {key: self.ids[to] for key, to in REFERS.get(table.model, {}).items()}
        if table.model is TimelineEvent and row.get("kind") in THEIR_MAIL:
            refers["mail"] = self.ids[IncomingMail]
        for link in table.links:
            was = row.get(link.attname)
            now = self.ids[link.related_model].get(_whole(was)) if was is not None else None
            if now is None and not link.null:
                return None
            values[link.attname] = now
        for field in table.fields:
            value = row.get(field.name)
            if isinstance(value, dict | list):
                value = remapped(value, refers, self.names)
            elif isinstance(value, str):
                value = self.fresh.get(f"{table.name}.{field.name} {value}", renamed(value, self.names))
            elif (loose := LOOSE.get((table.model, field.name))) is not None:
                value = self.ids[loose].get(_whole(value))
                if value is None:
                    return None
            values[field.name] = self._cleaned(table, field, value)
        if table.model is TimelineEvent and row.get("member_id") in self.who and values["member_id"] is None:
            values["data"] = {**values["data"], "by": self.who[row["member_id"]]}
        if table.model is Gateway:
            values |= {"bearer": sealed(""), "secret": sealed(""), "down_since": clock.now()}
        return values | _HELD.get(table.model, {})

    def _cleaned(self, table: Carried, field: "Field[Any, Any]", value: Any) -> Any:
        check = CHECKS.get((table.model, field.name))
        if check is not None:
            check(value)
        if value is None and field.null:
            return None
        if isinstance(field, DateTimeField):
            return _MOMENT.validate_python(value)
        if value in ("", [], {}) and value is not None:
            # Empty is what many may be; a text must still be a text.
            return field.to_python(value)
        return field.clean(value, None)

    def _name_anew(self, table: Carried, rows: list[dict[str, Any]]) -> None:
        """What only one business may have is kept where it is free, else made anew."""
        for field in table.unique:
            said = {row[field.name]: None for row in rows if isinstance(row.get(field.name), str)}
            taken = table.model._default_manager.filter(**{f"{field.name}__in": list(said)})
            for was in taken.values_list(field.name, flat=True):
                now = _fresh(table.model, field, was)
                self.fresh[f"{table.name}.{field.name} {was}"] = now
                self.names[was] = now
                if (table.model, field.name) == (Site, "key"):
                    self.told.append(
                        "The line on your site has a new key: put it on the site again (Business)."
                    )
            if table.model is Gateway and field.name == "key" and said:
                self.told.append(
                    "What connects services outside has new secrets: enter them again (Hours & channels)."
                )

    def _links(self) -> None:
        for table, pk, links, held in self.later:
            values: dict[str, Any] = dict(held)
            for link in table.later:
                if link.attname in links:
                    values[link.attname] = self.ids[link.related_model].get(_whole(links[link.attname]))
            if values:
                table.model._default_manager.filter(pk=pk, business_id=self.business_id).update(**values)

    def _about(self) -> None:
        try:
            with self.copy.open("business.json") as file:
                said = read_json(file.read(MOST_LINE))
            values = {name: self._of_business(name, said[name]) for name in ABOUT}
            if values["timezone"] not in available_timezones():
                raise ValueError("there is no such time zone")
        except (NotLetIn, TypeError, KeyError, ValueError, ValidationError) as error:
            raise Unreadable(f"business.json: {str(error)[:200]}") from None
        Business.objects.filter(pk=self.business_id).update(
            **values,
            first_steps_away=True,
            hours_looked_at=True,
            # Who reads an address elsewhere has said nothing here.
            mail_confirmed=is_theirs(values["mail_address"], business_id=self.business_id),
        )

    @staticmethod
    def _of_business(name: str, value: Any) -> Any:
        field = Business._meta.get_field(name)
        return None if value is None and field.null else cast("Field[Any, Any]", field).clean(value, None)

    def _files(self) -> None:
        """The files that a row names, at the size that it says, once all rows are in: where that is undone,
        files that nobody names do no harm.
        """
        named = named_files(self.business_id)
        for info in self.copy.infolist():
            if not info.filename.startswith("files/") or info.is_dir():
                continue
            parts = info.filename.split("/")[1:]
            if not 1 <= len(parts) <= 4 or not all(_PART.fullmatch(one) for one in parts):
                raise Unreadable(f"A file of this copy has a name that is not taken: {info.filename[:80]}")
            here = [self._file_name(one) for one in parts]
            name = next((one for one in here if one in named), None)
            if name is None:
                continue
            if named[name] not in {None, info.file_size}:
                raise Unreadable(f"A file of this copy is not as large as it says: {info.filename[:80]}")
            path = home(self.business_id).joinpath(*here)
            with self.copy.open(info) as source, kept(path) as out:
                shutil.copyfileobj(source, out, 1024 * 1024)

    def _file_name(self, part: str) -> str:
        return self.names.get(part, renamed(part, self.names))


def _fresh(model: type[Model], field: "Field[Any, Any]", was: str) -> str:
    """Another value for what only one may have."""
    if model is OutgoingMail:
        return f"<{uuid.uuid4()}@{was.rpartition('@')[2].rstrip('>')}>"
    if field.name == "slug":
        return f"{was[:50]}-{uuid.uuid4().hex[:8]}"
    if field.has_default():
        return str(field.get_default())
    return uuid.uuid4().hex[: max(16, min(32, field.max_length or 32))]


def _said_of(error: Exception) -> str:
    """What is wrong, in a line."""
    if isinstance(error, ValidationError):
        return str(error.messages[0])
    if isinstance(error, NotValid):
        first = error.errors()[0]
        return f"{'.'.join(map(str, first['loc']))} {first['msg']}".strip()
    return str(error).split("\n", maxsplit=1)[0]


def _whole(value: Any) -> int:
    if not isinstance(value, int) or isinstance(value, bool):
        raise Unreadable("There is an id in this copy that is no whole number.")
    return value


def is_empty(business_id: int) -> bool:
    """Whether nothing has been done in a business yet that a copy would take the place of."""
    return (
        not any(model.objects.filter(business_id=business_id).exists() for model in (Person, Touchpoint))
        and not Site.objects.filter(business_id=business_id, seen_at__isnull=False).exists()
    )
