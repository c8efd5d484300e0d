"""Words of opening hours in the languages that ship, said in English for `read_hours`."""

import re
from functools import cache

_SPOKEN: dict[str, dict[str, str]] = {
    "de": {
        "closed": "ruhetag, geschlossen, zu",
        "daily": "täglich, jeden tag, alle tage",
        "weekdays": "werktags, wochentags, an werktagen",
        "weekend": "am wochenende, wochenende, wochenends",
        "from": "von, ab, jeweils, geöffnet, öffnungszeiten",
        "also": "auch, außerdem, zusätzlich",
        "midnight": "mitternacht",
        "noon": "mittag",
        "round the clock": "rund um die uhr",
        "all day": "ganztägig, ganztags",
    },
    "fr": {
        "closed": "fermé, fermée, fermés, clos",
        "daily": "tous les jours, chaque jour, quotidien, quotidiennement",
        "weekdays": "en semaine, jours ouvrables, jours ouvrés",
        "weekend": "week-end, weekend, le week-end",
        "from": "de, dès, ouvert, ouverte, du, le, les",
        "to": "à, au, jusqu'à, jusqu’à",
        "and": "et",
        "also": "aussi",
        "midnight": "minuit",
        "noon": "midi",
        "round the clock": "jour et nuit",
    },
    "es": {
        "closed": "cerrado, cerrada",
        "daily": "todos los días, cada día, diario, a diario, diariamente",
        "weekdays": "entre semana, días laborables, laborables",
        "weekend": "fin de semana, fines de semana, los fines de semana",
        "from": "de, desde, desde las, de las, abierto, abierta",
        "to": "a, hasta, a las, hasta las",
        "and": "y, e",
        "also": "también",
        "midnight": "medianoche",
        "noon": "mediodía",
    },
    "it": {
        "closed": "chiuso, chiusa",
        "daily": "tutti i giorni, ogni giorno, quotidianamente",
        "weekdays": "giorni feriali, feriali, in settimana",
        "weekend": "fine settimana, nel fine settimana, weekend",
        "from": "dalle, dal, da, ore, aperto, aperta, dalle ore",
        "to": "alle, al, a, fino alle, alle ore",
        "and": "e",
        "also": "anche",
        "midnight": "mezzanotte",
        "noon": "mezzogiorno",
    },
    "nl": {
        "closed": "gesloten, dicht",
        "daily": "dagelijks, elke dag, alle dagen",
        "weekdays": "doordeweeks, werkdagen, op werkdagen",
        "weekend": "in het weekend, weekend",
        "from": "van, vanaf, uur, geopend",
        "to": "tot",
        "and": "en",
        "also": "ook",
        "midnight": "middernacht",
    },
    "pl": {
        "closed": "zamknięte, nieczynne, zamknięty",
        "daily": "codziennie, każdego dnia",
        "weekdays": "w dni robocze, dni robocze, w tygodniu",
        "weekend": "w weekendy, w weekend, weekend, weekendy",
        "from": "od, godz, otwarte, czynne, w godzinach",
        "to": "do",
        "and": "i, oraz",
        "also": "także, również",
        "midnight": "północ, północy",
        "noon": "południe, południa",
    },
    "pt": {
        "closed": "fechado, fechada, encerrado",
        "daily": "todos os dias, diariamente, cada dia",
        "weekdays": "dias úteis, nos dias úteis, durante a semana",
        "weekend": "fim de semana, fins de semana, aos fins de semana",
        "from": "das, de, desde, desde as, aberto, aberta",
        "to": "às, até, até às, a, as",
        "and": "e",
        "also": "também",
        "midnight": "meia-noite",
        "noon": "meio-dia",
    },
    "ar": {
        "closed": "مغلق, مغلقة",
        "daily": "يوميا, يوميًا, يومياً, كل يوم",
        "from": "من, الساعة",
        "to": "إلى, الى, حتى",
        "midnight": "منتصف الليل",
        "noon": "الظهر",
    },
}


@cache
def _table(language: str) -> tuple[dict[str, str], re.Pattern[str]] | None:
    spoken = _SPOKEN.get(language.casefold().replace("_", "-").partition("-")[0])
    if spoken is None:
        return None
    words = {one.strip(): meant for meant, said in spoken.items() for one in said.split(",")}
    longest = sorted(words, key=len, reverse=True)
    # "a.m." is no word of another language.
    pattern = rf"(?<![\w'’])(?:{'|'.join(map(re.escape, longest))})(?![\w'’]|\.?\s?m\b)"
    return words, re.compile(pattern)


def in_english(text: str, language: str) -> str:
    """A text in small letters with its words of opening hours in English; names of days stay as they are."""
    table = _table(language)
    if table is None:
        return text
    words, pattern = table
    return pattern.sub(lambda found: words[found[0]], text)
