"""Where something is: coordinates and street addresses as people paste them."""

import re

_DECIMAL = re.compile(
    r"^\s*(?P<lat>[-+\u2212]?[0-9]{1,2}(?:\.[0-9]{1,12})?)\s*°?\s*(?P<ns>[NS])?\s*[,;\s]\s*"
    r"(?P<lon>[-+\u2212]?[0-9]{1,3}(?:\.[0-9]{1,12})?)\s*°?\s*(?P<ew>[EWO])?\s*$",
    re.IGNORECASE,
)


def coordinates(text: str) -> tuple[str, str] | None:
    """Latitude and longitude in degrees, as text without needless signs; None for what is none. Source: RFC
    5870.
    """
    found = _DECIMAL.match(text.removeprefix("geo:"))
    if found is None or not re.search(r"[,;°NSEWO]|\..*\.", text, re.IGNORECASE):
        return None
    lat, lon = (found[name].replace("\u2212", "-").removeprefix("+") for name in ("lat", "lon"))
    lat = f"-{lat.lstrip('-')}" if (found["ns"] or "").upper() == "S" else lat
    lon = f"-{lon.lstrip('-')}" if (found["ew"] or "").upper() == "W" else lon
    return (lat, lon) if abs(float(lat)) <= 90 and abs(float(lon)) <= 180 else None


def looks_like_a_street(text: str) -> bool:
    """Words and a number, or words with a comma between them; what has no space in it is none."""
    if not re.search(r"\s", text.strip()):
        return False
    words = re.findall(r"[^\W\d_]{2,}", text)
    return len(words) >= 2 and (bool(re.search(r"[0-9]", text)) or "," in text or "\n" in text)
