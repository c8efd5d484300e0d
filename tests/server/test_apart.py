"""What strangers sent is read in a process of its own."""

import time

import pytest

from intavo.apart import Unreadable, apart
from intavo.core.mailin import TooBig, read_mail


def test_what_its_reader_does_to_itself_it_does_to_nobody_else() -> None:
    assert apart(read_mail, 60, b"Subject: Boats\r\n\r\nIs there a boat?").subject == "Boats"
    with pytest.raises(TooBig):
        apart(read_mail, 60, b"Subject: Boats\r\n\r\n" + b"x" * 26 * 1024 * 1024)
    with pytest.raises(Unreadable):
        apart(time.sleep, 0.2, 60)
    with pytest.raises(Unreadable):
        apart(bytes, 60, 3_000_000_000)
    # The reader that came in its place reads on.
    assert apart(read_mail, 60, b"Subject: Canoes\r\n\r\nIs there a canoe?").subject == "Canoes"
