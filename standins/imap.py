"""A mailbox that is read by IMAP, kept in memory: as much of RFC 3501 as reading what is new takes."""

import re
import socketserver
import threading
from dataclasses import dataclass, field


@dataclass
class Box:
    """A mailbox: who may open it, and its mails by their number, with those that were seen."""

    user: str
    password: str
    mails: dict[int, bytes] = field(default_factory=dict)
    seen: set[int] = field(default_factory=set)

    def put(self, raw: bytes) -> None:
        """Put a mail in."""
        self.mails[len(self.mails) + 1] = raw


class _Talk(socketserver.StreamRequestHandler):
    server: "Server"

    def handle(self) -> None:
        self._say("* OK ready")
        while line := self.rfile.readline(8192):
            tag, _, rest = line.decode("utf-8", "replace").strip().partition(" ")
            if not self._do(tag, rest):
                return

    def _say(self, text: str) -> None:
        self.wfile.write(f"{text}\r\n".encode())

    def _do(self, tag: str, said: str) -> bool:
        box, what = self.server.box, said.upper()
        if what.startswith("CAPABILITY"):
            self._say("* CAPABILITY IMAP4rev1")
        elif what.startswith("LOGIN"):
            words = re.findall(r'"((?:[^"\\]|\\.)*)"|(\S+)', said[5:])
            user, password = [re.sub(r"\\(.)", r"\1", quoted) or bare for quoted, bare in words][:2]
            if (user, password) != (box.user, box.password):
                self._say(f"{tag} NO [AUTHENTICATIONFAILED] no such mailbox")
                return True
        elif what.startswith("SELECT"):
            if "INBOX" not in what:
                self._say(f"{tag} NO [NONEXISTENT] no such folder")
                return True
            self._say(f"* {len(box.mails)} EXISTS")
        elif what.startswith("UID SEARCH"):
            new = " ".join(str(one) for one in sorted(set(box.mails) - box.seen))
            self._say(f"* SEARCH {new}".rstrip())
        elif found := re.match(r"UID FETCH (\d+) \((.*)\)", what):
            self._fetch(int(found[1]), found[2])
        elif found := re.match(r"UID STORE (\d+) \+FLAGS", what):
            box.seen.add(int(found[1]))
        elif what.startswith("LOGOUT"):
            self._say("* BYE")
            self._say(f"{tag} OK done")
            return False
        self._say(f"{tag} OK done")
        return True

    def _fetch(self, number: int, items: str) -> None:
        raw = self.server.box.mails.get(number)
        if raw is None:
            return
        if "BODY" in items:
            self.wfile.write(
                f"* {number} FETCH (UID {number} BODY[] {{{len(raw)}}}\r\n".encode() + raw + b")\r\n"
            )
        else:
            self._say(f"* {number} FETCH (UID {number} RFC822.SIZE {len(raw)})")


class Server(socketserver.ThreadingTCPServer):
    """Listens on loopback, on a free port; `box` is what it has."""

    allow_reuse_address, daemon_threads = True, True

    def __init__(self, box: Box) -> None:
        super().__init__(("127.0.0.1", 0), _Talk)
        self.box = box

    @property
    def port(self) -> int:
        """Where it listens."""
        return int(self.server_address[1])

    def __enter__(self) -> "Server":
        threading.Thread(target=self.serve_forever, daemon=True).start()
        return self

    def __exit__(self, *about: object) -> None:
        self.shutdown()
        self.server_close()
