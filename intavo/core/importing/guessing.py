"""What a file of people is, from its beginning: encoding, delimiter, header, and what each column holds.

It is a proposal that the owner can change: nothing is refused here, and nothing is kept.
"""

import csv
import re
from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum

from ..people import email_address, phone_number

MOST_LOOKED_AT = 1024 * 1024
_MOST_ROWS, _MOST_COLUMNS = 200, 500
_DELIMITERS = (",", ";", "\t", "|")


class Column(StrEnum):
    """What a column of the file becomes."""

    NAME = "name"
    EMAIL = "email"
    PHONE = "phone"
    TAG = "tag"
    CONSENT = "consent"
    NOTE = "note"
    OWN = "own"
    DATA = "data"
    IGNORED = "ignored"


@dataclass(frozen=True, slots=True)
class Guess:
    """What a file was taken for.

    `encoding` is a name that Python decodes by; `header` whether the first row names the columns; `columns`
    has one for each, in their order, and `titles` what the header calls them ("" without one).
    """

    encoding: str
    delimiter: str
    header: bool
    columns: tuple[Column, ...]
    titles: tuple[str, ...]


# Titles as spreadsheets and address books write them; compared without case, spaces and signs.
_TITLES: dict[Column, str] = {
    Column.EMAIL: """
        email emailaddress mail mailaddress emailadresse mailadresse eaddress adressemail courriel
        adresseemail correo correoelectronico emailadres epost epostadress sahkoposti primaryemail
        contactemail indirizzoemail posta""",
    Column.PHONE: """
        phone phonenumber telephone tel telefon telefonnummer mobile mobilephone mobil handy
        handynummer cell cellphone cellular telephonenumber telefono telefonnr telefoon movil
        portable gsm numerodetelephone mobilenumber telefone celular telephonemobile primaryphone
        contactphone matkapuhelin puhelin""",
    Column.NAME: """
        name fullname firstname lastname surname forename givenname familyname firstnames vorname
        nachname familienname nom prenom nomcomplet nombre apellido apellidos nome cognome naam
        voornaam achternaam contact contactname displayname customer customername person kunde navn
        fornavn etternavn efternamn fornamn imie nazwisko nimi""",
    Column.TAG: """
        tag tags label labels group groups category categories list lists segment segments gruppe
        gruppen kategorie schlagwort schlagworte etiquette etiquettes etiqueta etiquetas gruppo
        groepen grupo grupos""",
    Column.CONSENT: """
        consent optin optedin newsletter subscribed permission marketing marketingconsent
        emailconsent emailmarketingconsent einwilligung zustimmung consentement consentimiento
        consenso toestemming gdpr acceptsmarketing agreed""",
    Column.NOTE: """
        note notes comment comments remark remarks message memo bemerkung bemerkungen notiz notizen
        kommentar remarque remarques commentaire nota notas opmerking opmerkingen observaciones""",
}
_BY_TITLE = {word: column for column, words in _TITLES.items() for word in words.split()}
_DAY = re.compile(r"([0-9]{4}[-./][0-9]{1,2}[-./][0-9]{1,2}|[0-9]{1,2}[-./][0-9]{1,2}[-./][0-9]{2,4})\b.*")
_YES = {
    "yes",
    "no",
    "true",
    "false",
    "y",
    "n",
    "1",
    "0",
    "ja",
    "nein",
    "oui",
    "non",
    "si",
    "x",
    "opted in",
    "opted out",
}


def guess(head: bytes) -> Guess:
    """What a file of people is, by its first bytes (a megabyte of them is looked at); never raises.

    Source: RFC 4180 for what a CSV is; what spreadsheets write in its place is understood as well.
    """
    head = head[:MOST_LOOKED_AT]
    encoding = _encoding(head)
    text = head.decode(encoding, "replace").replace("\x00", "")
    if len(head) == MOST_LOOKED_AT and "\n" in text:
        text = text[: text.rfind("\n")]
    named = re.match(r"sep=(.)\r?\n", text)
    if named and named[1] in _DELIMITERS:
        text = text[named.end() :]
    delimiter = named[1] if named else _delimiter(text)
    rows = [row for row in _rows(text, delimiter) if any(cell.strip() for cell in row)][:_MOST_ROWS]
    width = min(_MOST_COLUMNS, max((len(row) for row in rows), default=0))
    header = _has_header(rows)
    titles = tuple(" ".join(cell.split())[:200] for cell in rows[0]) if header else ()
    titles = (*titles, *[""] * width)[:width]
    body = rows[1:] if header else rows
    if DATA_TITLE in titles:
        return Guess(encoding, delimiter, header, _exported(titles), titles)
    columns = [_column(titles[at], [row[at] for row in body if at < len(row)]) for at in range(width)]
    return Guess(encoding, delimiter, header, tuple(_once(columns)), titles)


# By this column an export of ours is known again; what follows it are the owner's own fields.
DATA_TITLE = "as data"
_EXPORTED = {
    "name": Column.NAME,
    "email": Column.EMAIL,
    "other emails": Column.EMAIL,
    "phone": Column.PHONE,
    "other phones": Column.PHONE,
    "tags": Column.TAG,
    "notes": Column.NOTE,
    DATA_TITLE: Column.DATA,
}


def _exported(titles: tuple[str, ...]) -> tuple[Column, ...]:
    last = titles.index(DATA_TITLE)
    return tuple(
        Column.OWN if at > last else _EXPORTED.get(title, Column.IGNORED) for at, title in enumerate(titles)
    )


def _encoding(head: bytes) -> str:
    """By its mark, else UTF-16 where every other byte is NUL, else UTF-8 where it holds,
    else Windows-1252.
    """
    for mark, name in ((b"\xef\xbb\xbf", "utf-8-sig"), (b"\xff\xfe", "utf-16"), (b"\xfe\xff", "utf-16")):
        if head.startswith(mark):
            return name
    sample = head[:4096]
    if len(sample) > 3:
        even, odd = sample[0::2].count(0), sample[1::2].count(0)
        if odd > len(sample) // 5 and even < odd // 4:
            return "utf-16-le"
        if even > len(sample) // 5 and odd < even // 4:
            return "utf-16-be"
    try:
        head.decode("utf-8")
    except UnicodeDecodeError as error:
        # What was cut off in the middle of a letter is no fault of the file's.
        if error.start < len(head) - 3 or error.reason != "unexpected end of data":
            return "windows-1252"
    return "utf-8"


def _rows(text: str, delimiter: str) -> list[list[str]]:
    rows: list[list[str]] = []
    reader = csv.reader(text.splitlines(keepends=True), delimiter=delimiter)
    while len(rows) <= _MOST_ROWS:
        try:
            rows.append(next(reader)[:_MOST_COLUMNS])
        except StopIteration:
            break
        except csv.Error:
            continue
    return rows


def _delimiter(text: str) -> str:
    """The one that cuts most rows into equally many pieces; a comma where none does."""
    best, most = ",", 0.0
    for one in _DELIMITERS:
        widths = Counter(len(row) for row in _rows(text, one) if row)
        widths.pop(0, None)
        if not widths:
            continue
        width, rows = max(widths.items(), key=lambda item: (item[1] * (item[0] > 1), item[0]))
        score = 0.0 if width < 2 else rows / sum(widths.values()) + min(width, 20) / 1000
        if score > most:
            best, most = one, score
    return best


def _plain(title: str) -> str:
    folded = title.casefold().translate(str.maketrans("äöüáàâéèêëíìîóòôúùûñçåø", "aouaaaeeeeiiiooouuuncao"))
    return re.sub(r"[\W_]+", "", folded)


def _titled(title: str) -> Column | None:
    plain = _plain(title)
    return _BY_TITLE.get(plain) or _BY_TITLE.get(re.sub(r"[0-9]+(value)?$", "", plain))


def _has_header(rows: list[list[str]]) -> bool:
    """Whether the first row names columns: it has a known title, or no address in it where those below have
    one.
    """
    if not rows:
        return False
    first = [cell for cell in rows[0] if cell.strip()]
    if any(_is_email(cell) or _is_phone(cell) for cell in first):
        return False
    if any(_titled(cell) for cell in first):
        return True
    below = [cell for row in rows[1:20] for cell in row]
    return len(rows) > 1 and any(_is_email(cell) or _is_phone(cell) for cell in below)


def _column(title: str, cells: Iterable[str]) -> Column:
    filled = [cell.strip() for cell in cells if cell.strip()]
    named = _titled(title) if title else None
    emails = sum(map(_is_email, filled))
    if filled and emails >= 0.6 * len(filled):
        return Column.EMAIL
    if named is not None and not (
        named in {Column.EMAIL, Column.PHONE} and filled and not _fits(named, filled)
    ):
        return named
    if not filled:
        return Column.IGNORED
    if sum(map(_is_phone, filled)) >= 0.6 * len(filled):
        return Column.PHONE
    if title:
        return Column.OWN
    if all(cell.casefold() in _YES for cell in filled):
        return Column.OWN
    return Column.NAME if sum(map(_is_name, filled)) >= 0.6 * len(filled) else Column.OWN


def _fits(column: Column, filled: list[str]) -> bool:
    """Whether a column that is called so holds any of what its title says."""
    holds = _is_email if column is Column.EMAIL else _is_phone
    return any(map(holds, filled))


def _once(columns: list[Column]) -> list[Column]:
    """A second email or phone, and notes after the first, are fields of the owner's own; names and tags add
    up.
    """
    once: list[Column] = []
    for one in columns:
        again = one in once and one in {Column.EMAIL, Column.PHONE, Column.NOTE, Column.CONSENT}
        once.append(Column.OWN if again else one)
    return once


def _is_email(cell: str) -> bool:
    if "@" not in cell or len(cell) > 320:
        return False
    try:
        email_address(cell)
    except ValueError:
        return False
    return True


def _is_phone(cell: str) -> bool:
    text = cell.strip().lstrip("'")
    if not re.fullmatch(r"[+(]?[0-9][0-9\s()/.\-\u00a0]{5,24}", text) or sum(map(str.isdigit, text)) < 7:
        return False
    # A day or an amount is none.
    if re.fullmatch(
        r"[0-9]{4}[-./][0-9]{1,2}[-./][0-9]{1,2}.*|[0-9]{1,2}[-./][0-9]{1,2}[-./][0-9]{2,4}.*|[0-9]+[.,][0-9]+",
        text,
    ):
        return False
    try:
        phone_number(text, "GB")
    except ValueError:
        return len(re.sub(r"\D", "", text)) >= 7 and text[0] in "+0("
    return text[0] in "+0("


def _is_name(cell: str) -> bool:
    words = cell.split()
    return 1 <= len(words) <= 5 and not re.search(r"[0-9@/_=]", cell) and words[0][:1].isupper()
