"""Mutations of a room of the core, and how many of them a test notices: ``make mutants ROOM=heat``.

mutmut changes one operator, number or word at a time and runs the tests that reach it. What survives is
listed: a test is missing, or the change makes no difference. Slow (seconds a mutation), so it is no
part of ``make test``; ``SAMPLE=60`` takes so many at random. Works on a copy in ``var/mutants``.
"""

import argparse
import json
import random
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
addopts = "-q -m 'not hypothesis' {left_out}"
"""
LEFT_OUT = (
    # Starts a Python of its own, in which mutmut's warnings come up.
    "--ignore=saucier/tests/test_command_line.py",
    # These read the source, which the mutants stand in.
    "--ignore=saucier/words/tests/test_catalogue.py",
    "--deselect=saucier/tests/test_examples.py::Examples",
)
"""Left out, beside tests that draw their own examples."""
KILLED = ("killed", "timeout", "segfault", "suspicious")


def prepared(room: str) -> Path:
    """A copy of what the run needs, with only ``room`` to be mutated."""
    folder = WORK / Path(room).stem
    shutil.rmtree(folder, ignore_errors=True)
    folder.mkdir(parents=True)
    for name in ALSO:
        shutil.copytree(ROOT / name, folder / name, ignore=shutil.ignore_patterns("__pycache__"))
    also = json.dumps(list(ALSO))
    (folder / "pyproject.toml").write_text(
        CONFIG.format(room=room, also=also, left_out=" ".join(LEFT_OUT)), encoding="utf-8"
    )
    return folder


def run(folder: Path, *mutants: str, quiet: bool = False) -> int:
    """Tries ``mutants``, or all; what mutmut ends with. It shows its progress unless ``quiet``."""
    asked = [sys.executable, "-m", "mutmut", "run", *mutants]
    return subprocess.run(asked, cwd=folder, check=False, capture_output=quiet).returncode


def results(folder: Path) -> dict[str, str]:
    """Every mutant, and what became of it."""
    asked = [sys.executable, "-m", "mutmut", "results", "--all", "true"]
    told = subprocess.run(asked, cwd=folder, capture_output=True, text=True, check=True).stdout
    rows = (line.strip().rpartition(": ") for line in told.splitlines() if "__mutmut_" in line)
    return {name: status for name, _, status in rows}


def main() -> int:
    parser = argparse.ArgumentParser(prog="tools.mutants")
    parser.add_argument("room", help="a room of the core: heat, thickness, solve, what_if.py")
    parser.add_argument("--sample", type=int, default=0, help="so many at random; 0: all")
    given = parser.parse_args()
    room = given.room
    if not (ROOT / "saucier" / room).exists():
        print(f"there is no room saucier/{room}", file=sys.stderr)
        return 2
    folder = prepared(room)
    chosen: list[str] = []
    if given.sample:
        run(folder, "none-of-this-name", quiet=True)  # makes the mutants, tries none
        names = sorted(results(folder))
        chosen = random.Random(1).sample(names, min(given.sample, len(names)))
    code = run(folder, *chosen)
    if code:
        print(f"mutmut gave up with {code}: nothing is known of {room}", file=sys.stderr)
        return code
    found = results(folder)
    tried = chosen or sorted(found)
    survived = [name for name in tried if found[name] not in KILLED]
    print()
    for name in survived:
        print(f"survived: {name}")
    killed = len(tried) - len(survived)
    share = 100 * killed / max(1, len(tried))
    print(
        f"mutants of {room}: {killed} of {len(tried)} killed, {share:.0f} % ({len(found)} in all)"
    )
    return 0


if __name__ == "__main__":
    sys.exit(main())
