"""Runs every suite and closes with one line: ``tests: N passed, M failed``.

``make test`` runs them all, the browser's beside the others and what is measured by the clock when those are
through; ``make test SUITE=core`` one of core, standins, server, web, browser, measured.
"""

import os
import re
import subprocess
import sys
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
DJANGO = [sys.executable, "manage.py", "test", "--settings", "kestrel.test_settings"]
SUITES: dict[str, tuple[list[str], Path]] = {
    "core": ([sys.executable, "-m", "unittest", "discover", "-s", "saucier", "-t", "."], ROOT),
    "standins": (
        [sys.executable, "-m", "unittest", "discover", "-s", "standins", "-t", "."],
        ROOT,
    ),
    "server": ([*DJANGO, "kestrel", "--exclude-tag", "measured"], ROOT),
    "web": (["npx", "vitest", "run", "--no-color", "--pool=threads"], ROOT / "web"),
    "browser": ([*DJANGO, "browser_tests", "--exclude-tag", "measured"], ROOT),
    "measured": ([*DJANGO, "kestrel", "browser_tests", "--tag", "measured"], ROOT),
}

SIDE_BY_SIDE = ("browser", "server", "core", "web", "standins")
"""What two workers take up in turn, the longest first: neither is long without work at the end."""
WORKERS = 2

ALONE = ("measured",)
"""What runs when nothing else does: its seconds are looked at."""

BEFORE = {"web": [sys.executable, "-m", "tools.answers"]}
"""What a suite needs made first."""


def counts(output: str) -> tuple[int, int]:
    """Passed and failed tests in what a runner printed; (0, 0) when it ran none."""
    ran = re.search(r"^Ran (\d+) tests?", output, re.MULTILINE)
    if ran:
        failed = sum(int(n) for n in re.findall(r"(?:failures|errors)=(\d+)", output))
        skipped = sum(int(n) for n in re.findall(r"skipped=(\d+)", output))
        # A class that cannot be set up fails without any of its tests having run.
        return max(0, int(ran[1]) - failed - skipped), failed
    line = re.search(r"^\s*Tests\s+(.*)$", output, re.MULTILINE)
    if not line:
        return 0, 0
    found = {word: int(n) for n, word in re.findall(r"(\d+) (passed|failed)", line[1])}
    return found.get("passed", 0), found.get("failed", 0)


def run(name: str, aloud: bool = True) -> tuple[int, int]:
    """Run one suite, showing its output as it comes (``aloud``) or when it is over; a suite that breaks
    off counts as a failure."""
    command, folder = SUITES[name]
    print(f"== {name}", flush=True)
    started = time.monotonic()
    if name in BEFORE and subprocess.run(BEFORE[name], cwd=ROOT, check=False).returncode:
        return 0, 1
    # Suites side by side do not share a database.
    env = {**os.environ, "KESTREL_TEST_DB": str(ROOT / "var" / f"test-{name}.sqlite3")}
    process = subprocess.Popen(
        command,
        cwd=folder,
        env=env,
        stdout=subprocess.PIPE,
        stderr=subprocess.STDOUT,
        text=True,
    )
    assert process.stdout is not None
    lines = []
    for line in process.stdout:
        lines.append(line)
        if aloud:
            print(line, end="", flush=True)
    status = process.wait()
    output = "".join(lines)
    passed, failed = counts(output)
    if (status != 0 and not failed) or (status == 0 and not passed):
        failed += 1
    told = "" if aloud else output
    took = time.monotonic() - started
    print(f"{told}== {name}: {passed} passed, {failed} failed, {took:.0f} s", flush=True)
    return passed, failed


def side_by_side() -> list[tuple[int, int]]:
    """Every suite, two at a time; then those that want the machine to themselves."""
    with ThreadPoolExecutor(WORKERS) as pool:
        results = list(pool.map(lambda name: run(name, aloud=False), SIDE_BY_SIDE))
    return results + [run(name, aloud=False) for name in ALONE]


def main() -> int:
    wanted = sys.argv[1:]
    unknown = [name for name in wanted if name not in SUITES]
    if unknown:
        print(f"No suite {unknown[0]}: use {', '.join(SUITES)}", file=sys.stderr)
        return 2
    results = [run(name) for name in wanted] if wanted else side_by_side()
    passed, failed = (sum(column) for column in zip(*results, strict=True))
    print(f"tests: {passed} passed, {failed} failed")
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(main())
