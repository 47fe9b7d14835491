"""Runs every suite and closes with one line: ``tests: N passed, M failed``.

``make test`` runs them all; ``make test SUITE=core`` one of core, server, web, browser.
"""

import re
import subprocess
import sys
import time
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
SETTINGS = ["--settings", "kestrel.test_settings"]
SUITES: dict[str, tuple[list[str], Path]] = {
    "core": ([sys.executable, "-m", "unittest", "discover", "-s", "saucier", "-t", "."], ROOT),
    "server": ([sys.executable, "manage.py", "test", "kestrel", *SETTINGS], ROOT),
    "web": (["npx", "vitest", "run", "--no-color"], ROOT / "web"),
    "browser": ([sys.executable, "manage.py", "test", "browser_tests", *SETTINGS], ROOT),
}

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


def run(name: str) -> tuple[int, int]:
    """Run one suite, showing its output; a suite that breaks off counts as a failure."""
    command, folder = SUITES[name]
    print(f"== {name}", flush=True)
    started = time.monotonic()
    if name in BEFORE and subprocess.run(BEFORE[name], cwd=ROOT, check=False).returncode:
        return 0, 1
    process = subprocess.Popen(
        command, cwd=folder, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True
    )
    assert process.stdout is not None
    lines = []
    for line in process.stdout:
        lines.append(line)
        print(line, end="", flush=True)
    status = process.wait()
    passed, failed = counts("".join(lines))
    if (status != 0 and not failed) or (status == 0 and not passed):
        failed += 1
    print(f"== {name}: {passed} passed, {failed} failed, {time.monotonic() - started:.0f} s")
    return passed, failed


def main() -> int:
    wanted = sys.argv[1:] or list(SUITES)
    unknown = [name for name in wanted if name not in SUITES]
    if unknown:
        print(f"No suite {unknown[0]}: use {', '.join(SUITES)}", file=sys.stderr)
        return 2
    results = [run(name) for name in wanted]
    passed, failed = (sum(column) for column in zip(*results, strict=True))
    print(f"tests: {passed} passed, {failed} failed")
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(main())
