"""A site's host in any spelling."""

import pytest

from intavo.core.hosts import host_of, normalise_host


@pytest.mark.parametrize(
    "spelling",
    [
        "otterwick.example",
        "http://otterwick.example",
        "https://WWW.Otterwick.Example/trips?x=1#y",
        "www.otterwick.example:8443/",
        "otterwick.example.",
        " otterwick.example ",
    ],
)
def test_scheme_www_port_path_and_capitals_never_matter(spelling: str) -> None:
    assert normalise_host(spelling) == "otterwick.example"


def test_an_international_host_is_kept_in_ascii() -> None:
    assert normalise_host("https://münchen.example/") == normalise_host("xn--mnchen-3ya.example")


@pytest.mark.parametrize(
    "nonsense",
    ["", "otter wick", "http://", "me@otterwick.example", "otterwick", "-x.example", "a..example", "ftp://x.example",
     "javascript:alert(1)", "http://x.example:99999", "1.2.3"],
)  # fmt: skip
def test_nonsense_is_refused_by_name(nonsense: str) -> None:
    with pytest.raises(ValueError, match="web site") as refused:
        normalise_host(nonsense)
    assert nonsense in str(refused.value)


def test_an_origin_has_a_host_and_null_has_none() -> None:
    assert host_of("http://otterwick.localhost:8401") == "otterwick.localhost"
    assert host_of("null") is None
    assert host_of("") is None
