"""What a mail host found of where a mail is from."""

import pytest

from intavo.core.mailin import fails

OURS = "mx.otterwick.example"


@pytest.mark.parametrize(
    ("said", "does"),
    [
        (f"{OURS}; dmarc=fail header.from=post.example", True),
        (f"{OURS.upper()} 1; spf=pass; DMARC = Fail (p=none; dis=none)", True),
        (f"{OURS};\r\n\tspf=pass;\r\n\tdmarc=fail", True),
        (f"{OURS}; dmarc=pass (was dmarc=fail)", False),
        (f"{OURS}; spf=fail; dkim=fail", False),
        (f"{OURS}; dmarc=failing", False),
        ("mx.elsewhere.example; dmarc=fail", False),
        (f"({OURS}); dmarc=fail", False),
        (OURS, False),
        ("", False),
    ],
)
def test_only_the_operators_own_host_is_believed(said: str, does: bool) -> None:
    assert fails([said], OURS) is does
    assert not fails([said], "")
