"""What somebody wrote now, apart from what their mail program put below or above it.

When in doubt nothing is hidden: only what stands in one piece at the end (or, answered below, at the
beginning), and begins as mail programs begin it, is taken for quoted.
"""

import re
from collections.abc import Iterator

FORWARD = re.compile(
    r"^\W*(begin )?(forwarded message|weitergeleitete nachricht|message transféré|mensaje reenviado"
    r"|messaggio inoltrato|doorgestuurd bericht|videresendt|mensagem encaminhada|przekazana wiadomość"
    r"|رسالة معاد توجيهها|الرسالة المعاد توجيهها)",
    re.IGNORECASE,
)
# "-----Original Message-----" in any language: what tells is the heads of a mail below it.
RULE = re.compile(r"^\s*(-{3,}[^-]{3,60}-{3,}|_{10,})\s*$")
HEAD = re.compile(r"^\s*\*?[^\W\d_][\w .-]{0,24}\*?\s?:\*?\s*\S")
FROM = re.compile(r"^\s*\*?(from|von|de|da|van|från|fra|od|lähettäjä|من)\*?\s?:\*?\s*\S", re.IGNORECASE)
SUBJECT = re.compile(
    r"^\s*\*?(subject|betreff|objet|asunto|oggetto|onderwerp|assunto|ämne|emne|temat|předmět|aihe|الموضوع)\*?\s?:",
    re.IGNORECASE,
)
# "On 24 Nov 2026, at 14:05, Ife <ife@…> wrote:" in any language: a date or an address, and a colon at the
# end.
_WROTE = re.compile(
    r"\b(wrote|writes|schrieb|a écrit|escribió|ha scritto|schreef|escreveu|skrev|"
    r"napisał\w*|napsal\w*|kirjoitti)\b"
    r"[^:]{0,80}:\s*$",
    re.IGNORECASE,
)
_DATED = re.compile(r"[0-9]|[^\s@<]+@[^\s@>]+")
_MOST_LINES = 3


def said_and_quoted(text: str) -> tuple[str, str]:
    """What they wrote now, and the rest; both without blank lines around them.

    Together they have every line of the text. A text of nothing but quotes, a forwarded mail, and one that
    answers between the lines is said as a whole.
    """
    lines = text.replace("\r\n", "\n").replace("\r", "\n").split("\n")
    at = next(iter(_beginnings(lines)), None)
    if at is not None and any(line.strip() and not _is_quote(line) for line in lines[:at]):
        return _joined(lines[:at]), _joined(lines[at:])
    below = _answered_below(lines)
    if below is not None:
        return _joined(lines[below:]), _joined(lines[:below])
    return _joined(lines), ""


def _joined(lines: list[str]) -> str:
    first = next((at for at, line in enumerate(lines) if line.strip()), len(lines))
    last = next((at for at in range(len(lines), 0, -1) if lines[at - 1].strip()), 0)
    return "\n".join(line.rstrip() for line in lines[first:last])


def _is_quote(line: str) -> bool:
    return line.lstrip().startswith(">")


def _beginnings(lines: list[str]) -> Iterator[int]:
    """Where what is quoted to the end of the text begins, the nearest to the top first."""
    ends_quoted = _quoted_to_the_end(lines)
    for at, line in enumerate(lines):
        if FORWARD.match(line):
            return
        if _heads_follow(lines, at):
            yield at
        length = _attribution(lines, at)
        if length:
            after = next((n for n in range(at + length, len(lines)) if lines[n].strip()), None)
            if after is None or not _is_quote(lines[after]) or after >= ends_quoted:
                yield at
        if at == ends_quoted:
            yield at


def _quoted_to_the_end(lines: list[str]) -> int:
    """The first line from which on every line is a quote or blank; past the end where the last is none."""
    at = len(lines)
    while at > 0 and (not lines[at - 1].strip() or _is_quote(lines[at - 1])):
        at -= 1
    while at < len(lines) and not _is_quote(lines[at]):
        at += 1
    return at if at < len(lines) else len(lines) + 1


def _heads_follow(lines: list[str], at: int) -> bool:
    """Whether the heads of a mail stand here: below a rule, or by themselves with a sender and a subject."""
    ruled = bool(RULE.match(lines[at]))
    if not ruled and not FROM.match(lines[at]):
        return False
    start = at + 1 if ruled else at
    while ruled and start < len(lines) and not lines[start].strip():
        start += 1
    heads = []
    for line in lines[start : start + 8]:
        if not HEAD.match(line):
            break
        heads.append(line)
    if len(heads) < (2 if ruled else 3) or not FROM.match(heads[0]):
        return False
    return any(SUBJECT.match(line) for line in heads) or (ruled and any("@" in line for line in heads))


def _attribution(lines: list[str], at: int) -> int:
    """How many lines the words before a quote take, which mail programs break; 0 where none begin here."""
    if not lines[at].strip() or _is_quote(lines[at]) or (at > 0 and lines[at - 1].strip()):
        return 0
    for length in range(1, _MOST_LINES + 1):
        piece = lines[at : at + length]
        if len(piece) < length or not piece[-1].strip() or _is_quote(piece[-1]):
            return 0
        words = " ".join(one.strip() for one in piece)
        if words.endswith(":") and len(words) <= 300:
            quoted = at + length < len(lines) and any(
                _is_quote(line) for line in lines[at + length : at + length + 2]
            )
            if _DATED.search(words) and (_WROTE.search(words) or quoted):
                return length
            return 0
    return 0


def _answered_below(lines: list[str]) -> int | None:
    """Where the answer begins, when all that is quoted stands in one piece above it."""
    at = 0
    while at < len(lines) and not lines[at].strip():
        at += 1
    at += _attribution(lines, at) if at < len(lines) else 0
    start = at
    while at < len(lines) and (_is_quote(lines[at]) or not lines[at].strip()):
        at += 1
    if not any(_is_quote(line) for line in lines[start:at]) or at == len(lines):
        return None
    return None if any(_is_quote(line) for line in lines[at:]) else at
