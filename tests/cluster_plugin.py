"""The database of the tests: Intavo's own cluster, started where DATABASE_URL names no other."""

import os

import pytest

from scripts.cluster import Cluster

_cluster: Cluster | None = None
if "DATABASE_URL" not in os.environ:
    _cluster = Cluster("test")
    os.environ["DATABASE_URL"] = _cluster.start()
os.environ.setdefault("INTAVO_SECRET_KEY", "for the tests alone")
os.environ["INTAVO_DB_POOL"] = "false"
os.environ["INTAVO_PLAN_RATE"] = os.environ["INTAVO_INTAKE_RATE"] = "100000"


def pytest_unconfigure(config: pytest.Config) -> None:
    """Stop the cluster that was started for this run."""
    if _cluster is not None and _cluster.started_here:
        _cluster.stop()
