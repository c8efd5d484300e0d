"""What an attached file is, by its bytes: what a mail calls it decides nothing."""

import re

_BEGINNINGS: tuple[tuple[bytes, str], ...] = (
    (b"%PDF-", "application/pdf"), (b"\x89PNG\r\n\x1a\n", "image/png"), (b"\xff\xd8\xff", "image/jpeg"),
    (b"GIF87a", "image/gif"), (b"GIF89a", "image/gif"), (b"PK\x03\x04", "application/zip"),
    (b"\x1f\x8b", "application/gzip"), (b"Rar!", "application/vnd.rar"),
    (b"7z\xbc\xaf\x27\x1c", "application/x-7z-compressed"),
    (b"{\\rtf", "application/rtf"), (b"\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1", "application/x-ole-storage"),
    (b"ID3", "audio/mpeg"), (b"OggS", "audio/ogg"),
    (b"BEGIN:VCALENDAR", "text/calendar"), (b"BEGIN:VCARD", "text/vcard"),
    (b"MZ", "application/vnd.microsoft.portable-executable"), (b"\x7fELF", "application/x-executable"),
    (b"\xcf\xfa\xed\xfe", "application/x-mach-binary"), (b"\xca\xfe\xba\xbe", "application/x-mach-binary"),
    (b"#!", "text/x-script"), (b"L\x00\x00\x00\x01\x14\x02\x00", "application/x-ms-shortcut"),
)  # fmt: skip
_RUNS = {
    "application/vnd.microsoft.portable-executable", "application/x-executable", "application/x-mach-binary",
    "text/x-script", "application/x-ms-shortcut", "text/html", "image/svg+xml", "text/xml",
}  # fmt: skip
_RUNS_BY_NAME = re.compile(
    r"\.(exe|com|scr|pif|bat|cmd|msi|msp|jar|js|jse|vbs?|vbe|wsf|wsh|ps1|hta|lnk|reg|cpl|dll|app|dmg|pkg|sh|apk|iso|img"
    r"|html?|xhtml|shtml|mht|mhtml|svg|xml|docm|xlsm|pptm|chm|url|desktop)\W*$",
    re.IGNORECASE,
)
_PAGE = re.compile(rb"<(!doctype\s+html|html|head|body|script|iframe|svg|\?xml|!--)", re.IGNORECASE)
_PIECES = {
    b"ftypavif": "image/avif",
    b"ftypheic": "image/heic",
    b"ftypmif1": "image/heic",
    b"ftyp": "video/mp4",
}


def type_of(content: bytes) -> str:
    """The media type that the bytes have; text/plain for text, application/octet-stream for what is not
    known.
    """
    for beginning, name in _BEGINNINGS:
        if content.startswith(beginning):
            return name
    if content[:4] == b"RIFF" and content[8:12] in {b"WEBP", b"WAVE", b"AVI "}:
        return {b"WEBP": "image/webp", b"WAVE": "audio/wav", b"AVI ": "video/x-msvideo"}[content[8:12]]
    for piece, name in _PIECES.items():
        if content[4:12].startswith(piece):
            return name
    head = content[:2048]
    found = _PAGE.search(head.lstrip(b"\xef\xbb\xbf \t\r\n")[:1024])
    if found:
        what = found[1].lower()
        return "image/svg+xml" if b"<svg" in head.lower() else "text/xml" if what == b"?xml" else "text/html"
    return "text/plain" if b"\x00" not in head else "application/octet-stream"


def is_risky(name: str, kind: str) -> bool:
    """Whether it could run, or is a page, by its bytes or by its name."""
    return kind in _RUNS or bool(_RUNS_BY_NAME.search(name))
