"""Mutations of a room of the core, and how many of them a test notices: ``make mutants ROOM=heat``.

mutmut changes one operator, number or word at a time and runs the tests that reach it. What survives is
listed: a test is missing, or the change makes no difference. Slow (a mutation or two a second), so
it is no part of ``make test``. Works on a copy in ``var/mutants``.
"""

import argparse
import json
import shutil
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
WORK = ROOT / "var" / "mutants"
ALSO = ("saucier", "demo", "docs")
CONFIG = """\
[project]
name = "{room}"
version = "0.0.0"

[tool.mutmut]
paths_to_mutate = ["saucier/{room}"]
do_not_mutate = ["*/tests/*"]
tests_dir = ["saucier/"]
also_copy = {also}

[tool.pytest.ini_options]
python_files = "test_*.py"
addopts = "-q -m 'not hypothesis' --ignore=saucier/tests/test_command_line.py"
"""
"""Left out: tests that draw their own examples, and those that start a Python of their own, in which
mutmut's warnings come up."""
KILLED = ("killed", "timeout", "segfault", "suspicious")


def prepared(room: str) -> Path:
    """A copy of what the run needs, with only ``room`` to be mutated."""
    folder = WORK / Path(room).stem
    shutil.rmtree(folder, ignore_errors=True)
    folder.mkdir(parents=True)
    for name in ALSO:
        shutil.copytree(ROOT / name, folder / name, ignore=shutil.ignore_patterns("__pycache__"))
    also = json.dumps(list(ALSO))
    (folder / "pyproject.toml").write_text(CONFIG.format(room=room, also=also), encoding="utf-8")
    return folder


def score(folder: Path) -> tuple[int, int, list[str]]:
    """Mutants killed, mutants in all, and the names of those that survived."""
    mutmut = [sys.executable, "-m", "mutmut", "results", "--all", "true"]
    told = subprocess.run(mutmut, cwd=folder, capture_output=True, text=True, check=True).stdout
    rows = [line.strip().rpartition(": ") for line in told.splitlines() if "__mutmut_" in line]
    survived = [name for name, _, status in rows if status not in KILLED]
    return len(rows) - len(survived), len(rows), survived


def main() -> int:
    parser = argparse.ArgumentParser(prog="tools.mutants")
    parser.add_argument("room", help="a room of the core: heat, thickness, solve, what_if.py")
    room = parser.parse_args().room
    if not (ROOT / "saucier" / room).exists():
        print(f"there is no room saucier/{room}", file=sys.stderr)
        return 2
    folder = prepared(room)
    run = subprocess.run([sys.executable, "-m", "mutmut", "run"], cwd=folder, check=False)
    if run.returncode:
        print(f"mutmut gave up with {run.returncode}: nothing is known of {room}", file=sys.stderr)
        return run.returncode
    killed, whole, survived = score(folder)
    print()
    for name in survived:
        print(f"survived: {name}")
    print(f"mutants of {room}: {killed} of {whole} killed, {100 * killed / max(1, whole):.0f} %")
    return 0


if __name__ == "__main__":
    sys.exit(main())
