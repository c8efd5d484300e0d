"""What some parts need besides their document: times for a call, the week, questions & answers, a code."""

from datetime import datetime, timedelta
from zoneinfo import ZoneInfo

from django.core.cache import cache
from django.http import HttpRequest, HttpResponse

from intavo.accounts.actor import Refused, visitor_of
from intavo.core.hours import AnyHours, OpenStretch, is_open, open_stretches
from intavo.core.replies import open_words
from intavo.core.say import beside_words, day_name, short_date, time_words, zone_words
from intavo.core.tongues import Phrase, Tongue, in_tongue
from intavo.core.touchpoint import Document
from intavo.intake.actions.slots import free_slots
from intavo.intake.guard import a_piece_of_work
from intavo.touchpoints.actions import give_code, tell_helped
from intavo.touchpoints.onsite import LiveSite
from intavo.touchpoints.queries import has_code, kept_revision, next_code, questions_of
from intavo.touchpoints.revisions import document_of, published_revision

from .asking import Helped, Wanted
from .reaching import ways_of
from .rehearsing import As
from .wire import DayOpen, Extras, WeekDrawn

CODES_A_DAY, _DAY_SECONDS = 5, 24 * 60 * 60
_CLOSED = Phrase("closed")


def more(site: LiveSite, wanted: Wanted, at: datetime, sender: str) -> Extras:
    """Everything that the parts of a revision need; Refused if it was never live.

    Who has given no address gets one code, and all at one address (`sender`, a mark of it) a few of a
    touchpoint a day.
    """
    seen = published_revision(site.business.pk, wanted.touchpoint, wanted.revision)
    if seen is None:
        raise Refused(("revision", "This revision was never live."))
    document = document_of(seen.revision)
    given = extras(site.business.pk, document, site, seen.touchpoint, at, zone_of(wanted.zone))
    if wanted.code and gives_code_freely(document):
        to = f"visitor:{wanted.visitor}"[:80]
        kept = document.after.code
        each = kept.kind == "each" and wanted.visitor
        if each:
            known = has_code(seen.touchpoint, to)
            may = known or _a_few(f"codes-{seen.touchpoint}-{sender}-{at.date()}")
            actor = visitor_of(site.business.pk)
            given["code"] = give_code(actor, touchpoint_id=seen.touchpoint, to=to) if may else None
        else:
            given["code"] = kept.shared or None
    if document.guard.work:
        given["work"] = a_piece_of_work()
    return given


def _a_few(key: str) -> bool:
    cache.add(key, 0, _DAY_SECONDS)
    return cache.incr(key) <= CODES_A_DAY


def rehearsed_more(site: LiveSite, wanted: Wanted, seen_as: As, at: datetime) -> Extras:
    """The same for the visitor of a link, at their time, and what they would be told had they sent it.

    Drafts have what their parts need as well. The code that they would be given is shown, and stays where it
    is.
    """
    row = kept_revision(site.business.pk, wanted.touchpoint, wanted.revision)
    if row is None:
        raise Refused(("revision", "There is no such revision."))
    document = Document.model_validate(row.document)
    site, at = seen_as.site(site), at + seen_as.ahead
    said = site.answers(document, at, seen_as.visitor.language, None, wanted.touchpoint)
    given = extras(site.business.pk, document, site, row.touchpoint_id, at, zone_of(wanted.zone))
    shown = document.after.code.show and not document.after.confirm.on
    code = sample_code(document, row.touchpoint_id) if shown else None
    given["says"], given["given"] = said.told if said else None, code
    if gives_code_freely(document):
        given["code"] = code
    return given


def sample_code(document: Document, touchpoint_id: int) -> str | None:
    """The code as a visitor would be given it: the one for everybody, or the next of the list, which stays in
    it.
    """
    kept = document.after.code
    if kept.kind == "each":
        return next_code(touchpoint_id) or None
    return kept.shared or None if kept.kind == "shared" else None


def gives_code_freely(document: Document) -> bool:
    """Whether the code stands on the first step, where nothing has to be sent for it, and is to be shown."""
    shown = any(part.kind == "code" and not part.hidden for part in document.steps[0].parts)
    return (
        shown
        and document.after.code.show
        and document.after.code.kind != "none"
        and not document.after.confirm.on
    )


def zone_of(name: str | None) -> ZoneInfo | None:
    """The zone of a name that a browser gives; None for what is none."""
    try:
        return ZoneInfo(name) if name else None
    except (ValueError, OSError, KeyError):
        return None


def extras(
    business_id: int,
    document: Document,
    site: LiveSite,
    touchpoint_id: int,
    at: datetime,
    theirs: ZoneInfo | None = None,
) -> Extras:
    """Times for a call by the field's name, the week, and the questions; only what the document shows. Times
    are by the visitor's own clock, where that is known, with ours beside them where they differ.
    """
    tongue = site.tongue(document.language)
    kinds = {part.kind for part in document.parts() if not part.hidden}
    given: Extras = {"slots": {}, "hours": None, "questions": []}
    if offered := document.channels():
        given["channels"] = ways_of(site, offered, tongue.language, at)
    for field in document.fields("slot"):
        free = free_slots(site, touchpoint_id, field, document.after.follows, at)
        ours = site.hours_for(document.after.follows).zone
        given["slots"][field.name] = [
            {"value": slot.start.isoformat(), "day": short_date(day, tongue), "time": words}
            for slot in free[:200]
            for day, words in (beside_words(slot.start, ours, theirs, tongue),)
        ]
    if "hours" in kinds:
        given["hours"] = _week(site, document.after.follows, at, tongue, theirs)
    groups = {part.group for part in document.parts() if part.kind == "questions" and not part.hidden}
    # In a conversation any of them may be what somebody is about to ask.
    groups |= {""} if "talk" in kinds else set()
    if groups:
        rows = questions_of(business_id, next(iter(groups)) if len(groups) == 1 else "")
        given["questions"] = [
            {"id": row.pk, "group": row.group, "question": row.question, "answer": row.answer} for row in rows
        ]
    return given


def _week(
    site: LiveSite,
    follows: tuple[int | None, ...],
    at: datetime,
    tongue: Tongue,
    theirs: ZoneInfo | None = None,
) -> WeekDrawn:
    """Whether it is open, and the seven days from today as they really are, odd days too."""
    hours = site.hours_for(follows)
    away = theirs is not None and at.astimezone(theirs).utcoffset() != at.astimezone(hours.zone).utcoffset()
    zone = theirs if theirs is not None and away else hours.zone
    local = at.astimezone(zone)
    today = local.replace(hour=0, minute=0, second=0, microsecond=0, fold=0)
    days: list[DayOpen] = []
    for ahead in range(7):
        start = (today + timedelta(days=ahead)).replace(fold=0)
        stretches = _of_day(hours, start, today)
        spans = [_span(s.start, s.end, zone, hours.zone, tongue) for s in stretches]
        spans = spans or [in_tongue(_CLOSED, tongue)]
        days.append(
            {
                "day": day_name(start.weekday(), tongue),
                "spans": spans,
                "label": next((s.label for s in stretches if s.label), ""),
            }
        )
    offset = local.utcoffset() if away else None
    minutes = int(offset.total_seconds()) // 60 if offset is not None else None
    says = open_words(hours, at, hours.zone, minutes, tongue)
    return {"open": is_open(hours, at), "days": days, "says": says}


def _of_day(hours: AnyHours, start: datetime, today: datetime) -> list[OpenStretch]:
    """When it is open on the day that begins at `start`: what goes on past midnight is of the day on
    which it begins, or of today where it began yesterday; what goes on for days is of each of them.
    """
    day = timedelta(days=1)
    around = open_stretches(hours, start - day, start + 2 * day)
    whole = [one for one in around if one.end - one.start < day]
    mine = [one for one in whole if start <= one.start < start + day or one.start < start == today < one.end]
    return mine + [one for one in open_stretches(hours, start, start + day) if not _inside(one, whole)]


def _inside(part: OpenStretch, whole: list[OpenStretch]) -> bool:
    return any(one.start <= part.start and part.end <= one.end for one in whole)


def _span(start: datetime, end: datetime, zone: ZoneInfo, ours: ZoneInfo, tongue: Tongue) -> str:
    """From when to when it is open, by a clock elsewhere with ours beside it where that differs."""

    def by(clock: ZoneInfo) -> str:
        times = (one.astimezone(clock).time() for one in (start, end))
        return "–".join(time_words(one, tongue) for one in times)

    if start.astimezone(zone).utcoffset() == start.astimezone(ours).utcoffset():
        return by(ours)
    return f"{by(zone)} ({by(ours)} {zone_words(ours, tongue)})"


def count_helped(request: HttpRequest, site: LiveSite, said: Helped) -> HttpResponse:
    """Count whether an answer helped."""
    if not tell_helped(visitor_of(site.business.pk), question_id=said.question, helped=said.helped):
        raise Refused(("question", "There is no such question."))
    return HttpResponse(status=204)
