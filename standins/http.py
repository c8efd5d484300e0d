"""What the small servers on loopback share: an answer in one call, and no log lines."""

from http.server import BaseHTTPRequestHandler


class Handler(BaseHTTPRequestHandler):
    """A request handler with `say`."""

    def say(self, status: int, kind: str, body: bytes) -> None:
        """Answer with a status, a content type and a body."""
        self.send_response(status)
        self.send_header("Content-Type", kind)
        self.send_header("Content-Length", str(len(body)))
        self.end_headers()
        self.wfile.write(body)

    def log_message(self, format: str, *args: object) -> None:  # http.server's name
        """Say nothing: what matters is on the pages."""
