"""Whether a page can be used by everybody."""

import json

from playwright.sync_api import Page

from scripts.cluster import ROOT

AXE = (ROOT / "node_modules/axe-core/axe.min.js").read_text()
RULES = json.dumps({"runOnly": ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]})


def violations(page: Page) -> list[str]:
    """What axe finds against WCAG 2.2 AA, by rule and place."""
    page.evaluate(AXE)
    broken = page.evaluate(f"axe.run(document, {RULES}).then((r) => r.violations)")
    return [f"{rule['id']}: {node['html'][:160]}" for rule in broken for node in rule["nodes"]]
