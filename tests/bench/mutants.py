"""How many small faults in the rules the core's tests would catch: `python -m tests.bench.mutants [how many]`.

Mutants are made and run by cosmic-ray, in a copy of the code: a sample of them, by one seed, over hours,
promise, showing and merging. At least 85 of 100 are caught.
"""

import json
import random
import re
import shutil
import sqlite3
import subprocess
import sys
from pathlib import Path

from scripts.cluster import ROOT
from scripts.stack import BIN, RUN

FOLDER = RUN / "mutants"
AT_LEAST, SAMPLE, SEED = 0.85, 300, 29
MODULES = (
    "intavo/core/hours",
    "intavo/core/replies",
    "intavo/core/showing",
    "intavo/core/people",
    "intavo/core/followup.py",
)
TESTS = (
    "hours", "hours_formats", "written_hours", "typed_times", "opening", "replies", "followup", "showing", "who", "during",
    "steps", "explaining", "vectors", "people", "merging", "people_reading", "presence", "edits", "worklist", "meeting",
)  # fmt: skip
_CONFIG = """[cosmic-ray]
module-path = {modules}
timeout = 120.0
excluded-modules = []
test-command = "{test}"

[cosmic-ray.distributor]
name = "local"
"""


def prepare() -> Path:
    """A copy of the code that may be made wrong, and the settings for it."""
    shutil.rmtree(FOLDER, ignore_errors=True)
    for place in ("intavo", "tests", "demo", "standins", "scripts"):
        skip = shutil.ignore_patterns("node_modules", "__pycache__", "dist", "browser")
        shutil.copytree(ROOT / place, FOLDER / place, ignore=skip)
    # Beside the tests stands what they look for upwards: else they would find the code that is right.
    for name in ("pyproject.toml", "manage.py"):
        shutil.copy(ROOT / name, FOLDER)
    tests = " ".join(f"tests/core/test_{name}.py" for name in TESTS)
    config = FOLDER / "mutants.toml"
    test = f"{BIN / 'python'} -m pytest -x -q -p no:randomly {tests}"
    config.write_text(_CONFIG.format(modules=json.dumps(list(MODULES)), test=test))
    return config


def draw(session: Path, count: int) -> int:
    """Leave so many mutants of all that there are, the same ones every time; says how many there were."""
    with sqlite3.connect(session) as work:
        jobs = [
            row[0] for row in work.execute("SELECT job_id FROM mutation_specs ORDER BY module_path, job_id")
        ]
        # Ids are made anew each time: what is drawn goes by the place of the fault.
        places = work.execute(
            "SELECT job_id FROM mutation_specs ORDER BY module_path, start_pos_row, start_pos_col, operator_name, occurrence"
        ).fetchall()
        keep = set(random.Random(SEED).sample([row[0] for row in places], min(count, len(jobs))))
        for job in jobs:
            if job not in keep:
                work.execute("DELETE FROM mutation_specs WHERE job_id = ?", [job])
                work.execute("DELETE FROM work_items WHERE job_id = ?", [job])
        return len(jobs)


def run(count: int = SAMPLE) -> tuple[int, int, list[str]]:
    """How many were made, how many were caught, and those that were not, by where they stand."""
    config, session = prepare(), FOLDER / "session.sqlite"
    env = {
        "PATH": "/usr/bin:/bin",
        "DATABASE_URL": "postgres://nobody@127.0.0.1/none",
        "INTAVO_SECRET_KEY": "x",
    }
    ray = str(BIN / "cosmic-ray")
    subprocess.run([ray, "init", str(config), str(session)], cwd=FOLDER, env=env, check=True)
    draw(session, count)
    subprocess.run([ray, "exec", str(config), str(session)], cwd=FOLDER, env=env, check=True)
    with sqlite3.connect(session) as work:
        rows = work.execute(
            "SELECT s.module_path, s.start_pos_row, s.operator_name, r.test_outcome FROM mutation_specs AS s"
            " JOIN work_results AS r ON r.job_id = s.job_id"
        ).fetchall()
    left = [
        f"{path}:{line} {operator}"
        for path, line, operator, outcome in rows
        if "SURVIVED" in str(outcome).upper()
    ]
    return len(rows), len(rows) - len(left), sorted(left)


def main() -> int:
    """Say it; 1 where too many go uncaught."""
    made, caught, left = run(int(sys.argv[1]) if len(sys.argv) > 1 else SAMPLE)
    for line in left:
        print(f"  not caught: {re.sub(r'core/', '', line, count=1)}")
    print(f"{caught} of {made} faults are caught ({caught / max(1, made):.0%}; at least {AT_LEAST:.0%})")
    return int(caught < AT_LEAST * made)


if __name__ == "__main__":
    sys.exit(main())
