"""Made-up people: names in many languages and scripts, with addresses at reserved domains."""

import random
from collections.abc import Iterator
from dataclasses import dataclass

_FIRST = [
    "Ife",
    "Rosalind",
    "Tomasz",
    "Perpetua",
    "Ansel",
    "Maren",
    "Oluwaseun",
    "Bríd",
    "Søren",
    "Zofia",
    "Anahera",
    "Mehmet",
    "Lucía",
    "Henrike",
    "Tadhg",
    "Noor",
    "Ilse",
    "Wren",
    "Koharu",
    "Dafydd",
    "Aurélie",
    "Piet",
    "Jadranka",
    "Emeka",
    "Sunniva",
    "Mateus",
    "Yasmin",
    "Agnieszka",
    "Björn",
    "Caoimhe",
    "Leilani",
    "Farah",
    "Ottilie",
    "Gwen",
    "Rasmus",
    "Thandiwe",
    "Viktor",
    "Xanthe",
    "Yuki",
    "Zeynep",
]
_LAST = [
    "Dunmore",
    "Achterberg",
    "Wielgosz",
    "Lindqvist",
    "Brightwater",
    "Oyelaran",
    "Fitzsimmons",
    "Kowalczyk",
    "Tremayne",
    "Nakashima",
    "Vandermeer",
    "Ferreira",
    "Hollis",
    "Ó-Dálaigh",
    "Şahin",
    "Castellanos",
    "Bergström",
    "Pengelly",
    "Adeyemi",
    "Whitlock",
    "Jovanović",
    "Tāmihana",
    "Rasmussen",
    "Carbery",
    "Dvořáková",
]
_SCRIPTS = (
    ("小林 さくら", "sakura.kobayashi"), ("Олена Коваленко", "olena.kovalenko"), ("محمد الحسن", "m.alhassan"),
    ("Ελένη Παππά", "eleni.pappa"), ("김하늘", "haneul.kim"), ("אורי לוי", "uri.levi"), ("प्रिया नायर", "priya.nair"),
    ("李思远", "siyuan.li"), ("Անի Սարգսյան", "ani.sargsyan"), ("ნინო ბერიძე", "nino.beridze"),
    ("สมชาย ใจดี", "somchai.jaidee"), ("Nguyễn Thị Lan", "lan.nguyen"),
)  # fmt: skip
_DOMAINS = (
    ("post.example",) * 8 + ("mail.example",) * 5 + ("fen-letters.example",) * 2 + ("harbour-school.example",)
)
_FOLD = str.maketrans("íøūéáÓşŞćāřöäüčśłźáěóúõãç", "ioueaossCaroaucslzaeouoac")


@dataclass(frozen=True, slots=True)
class SomeBody:
    """A made-up person."""

    name: str
    email: str


def _local(text: str) -> str:
    folded = text.translate(_FOLD).lower().replace(" ", ".").replace("-", "")
    return "".join(mark for mark in folded if mark.isascii() and (mark.isalnum() or mark == "."))


def everybody(count: int) -> Iterator[SomeBody]:
    """`count` people, the same ones every time, no two with the same address."""
    chance = random.Random(417)  # noqa: S311  # made-up data, not a secret
    for name, local in _SCRIPTS:
        yield SomeBody(name, f"{local}@{chance.choice(_DOMAINS)}")
    seen: set[str] = set()
    while len(seen) < count - len(_SCRIPTS):
        first, last = chance.choice(_FIRST), chance.choice(_LAST)
        email = f"{_local(first)}.{_local(last)}@{chance.choice(_DOMAINS)}"
        if email not in seen:
            seen.add(email)
            # Half of those who join a list leave no name.
            yield SomeBody(f"{first} {last}" if chance.random() < 0.6 else "", email)
