"""The house in order: what is said of the project in one place agrees with another."""

import re
import tomllib

from scripts.cluster import ROOT


def test_the_version_is_the_changelogs_newest() -> None:
    version = tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]["version"]
    newest = re.search(r"^## (\S+)$", (ROOT / "CHANGELOG.md").read_text(), re.MULTILINE)
    assert newest is not None
    assert newest[1] == version
