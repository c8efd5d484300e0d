"""Writes the rules of the server in front (`deploy/nginx.conf`): for the start command, and for a machine in
earnest.

`python -m scripts.front --name intavo.example.org --certificate /etc/…/cert.pem --key /etc/…/key.pem`
"""

import argparse
import resource
import shutil
from pathlib import Path

from .cluster import ROOT

RULES = ROOT / "deploy" / "nginx.conf"
# A connection costs two files: the client's and the application's.
CONNECTIONS = 8192
# How many requests of one client are under way at most.
EACH = 512
_TLS = """\
  server {{
    listen 80 default_server;
    listen [::]:80 default_server;
    return 301 https://{name}$request_uri;
  }}
  server {{
    listen 443 ssl http2 default_server;
    listen [::]:443 ssl http2 default_server;
    server_name {name};
    ssl_certificate {certificate};
    ssl_certificate_key {key};
    ssl_protocols TLSv1.2 TLSv1.3;
    ssl_session_cache shared:tls:10m;
"""


class FrontError(RuntimeError):
    """nginx is not installed."""


def program() -> str:
    """Where nginx is; FrontError where it is not installed."""
    found = shutil.which("nginx", path="/usr/sbin:/usr/local/sbin:/usr/bin:/opt/homebrew/bin")
    if found is None:
        raise FrontError("nginx is not installed; run make demo or make test")
    return found


def rules(*, server: str, application: str, folder: Path, head: str, files: int = 2 * CONNECTIONS) -> str:
    """The rules with everything filled in; `server` is the beginning of its block."""
    given = {
        "server": server.rstrip(), "application": application, "folder": str(folder), "head": head,
        "files": str(files), "connections": str(min(CONNECTIONS, files // 2)), "each": str(EACH),
    }  # fmt: skip
    text = RULES.read_text()
    for name, value in given.items():
        text = text.replace("{{" + name + "}}", value)
    return text


def on_loopback(port: int, application_port: int, folder: Path) -> Path:
    """Write the rules for one port of loopback into a folder; the file's path."""
    folder.mkdir(parents=True, exist_ok=True)
    most, hard = resource.getrlimit(resource.RLIMIT_NOFILE)
    files = min(2 * CONNECTIONS, hard if hard != resource.RLIM_INFINITY else 2 * CONNECTIONS)
    path = folder / "nginx.conf"
    text = rules(
        server=f"  server {{\n    listen 127.0.0.1:{port} backlog=1024;\n",
        application=f"127.0.0.1:{application_port}",
        folder=folder,
        head="daemon off;\nmaster_process off;",
        files=max(files, most if most > 0 else 0),
    )
    path.write_text(text)
    return path


def main() -> None:
    """Print the rules for a machine in earnest."""
    words = argparse.ArgumentParser(description=__doc__)
    words.add_argument("--name", required=True, help="the host's name")
    words.add_argument("--certificate", required=True)
    words.add_argument("--key", required=True)
    words.add_argument("--application", default="127.0.0.1:8401", help="where the application listens")
    words.add_argument(
        "--folder", type=Path, default=Path("/var/lib/intavo/front"), help="where what is under way waits"
    )
    said = words.parse_args()
    server = _TLS.format(name=said.name, certificate=said.certificate, key=said.key)
    print(
        rules(server=server, application=said.application, folder=said.folder, head="user www-data;"), end=""
    )


if __name__ == "__main__":
    main()
