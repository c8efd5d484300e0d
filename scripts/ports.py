"""Ports on loopback, each claimed by one process before anything listens on it.

A port that is merely free when it is looked at can be taken by another before it is listened on, and two
web servers that both allow it (`SO_REUSEPORT`) then share it and answer each other's requests. So a port is
claimed first, by a name that only one process of this machine can hold, and that goes with the process
however it ends.
"""

import socket

HOST = "127.0.0.1"
_SPAN = 400
_claims: dict[int, socket.socket] = {}


class NoPort(RuntimeError):
    """No port is free in the span that was looked through."""


def claim_port(wanted: int) -> int:
    """The first port from `wanted` on that no process has claimed and nothing listens on; it is this
    process's then. Raises NoPort if there is none among the next few hundred.
    """
    for port in range(wanted, wanted + _SPAN):
        claim = _claimed(port)
        if claim is None:
            continue
        if _listened_on(port):
            claim.close()
            continue
        _claims[port] = claim
        return port
    raise NoPort(f"no port is free from {wanted} on")


def release_port(port: int) -> None:
    """Give a claimed port back, once nothing of ours listens on it any more."""
    claim = _claims.pop(port, None)
    if claim is not None:
        claim.close()


def _claimed(port: int) -> socket.socket | None:
    """A name in Linux's abstract namespace: there is no file to be left over, and one holder at a time."""
    if port in _claims:
        return None
    claim = socket.socket(socket.AF_UNIX)
    try:
        claim.bind(f"\0intavo-port-{port}")
    except OSError:
        claim.close()
        return None
    return claim


def _listened_on(port: int) -> bool:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((HOST, port))
        except OSError:
            return True
    return False
