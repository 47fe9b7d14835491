"""A release: everything checked, the version set, the changes dated, committed and tagged.

``make release VERSION=0.2.0``. Nothing is pushed.
"""

import argparse
import datetime
import re
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
PROJECT = ROOT / "pyproject.toml"
CHANGES = ROOT / "CHANGELOG.md"
NOTES = ROOT / "var" / "release-notes.md"
UNRELEASED = "## Unreleased\n"


class NotNow(Exception):
    """Why there can be no release, and what to do."""


def dated(changes: str, version: str, day: datetime.date) -> tuple[str, str]:
    """CHANGELOG.md with what is unreleased under ``version``, and that part alone. Raises
    :class:`NotNow` where nothing is written down or the version is there already."""
    before, heading, after = changes.partition(UNRELEASED)
    notes, next_heading, older = after.partition("\n## ")
    if not heading or not notes.strip():
        raise NotNow("Nothing stands under “Unreleased” in CHANGELOG.md: write what changed")
    if f"\n## {version} " in changes:
        raise NotNow(f"{version} is in CHANGELOG.md already: take the next number")
    title = f"## {version} ({day.isoformat()})\n"
    text = f"{before}{heading}\n{title}{notes.rstrip()}\n{next_heading}{older}"
    return text, notes.strip() + "\n"


def numbered(project: str, version: str) -> str:
    """pyproject.toml with ``version``. Raises :class:`NotNow` unless it is a later one."""
    if not re.fullmatch(r"\d+\.\d+\.\d+", version):
        raise NotNow(f"“{version}” is no version: write three numbers, as 0.2.0")
    now = re.search(r'^version = "([\d.]+)"$', project, re.MULTILINE)
    assert now is not None
    if [int(n) for n in version.split(".")] <= [int(n) for n in now[1].split(".")]:
        raise NotNow(f"{version} is not after {now[1]}")
    return project.replace(now[0], f'version = "{version}"', 1)


def git(*words: str) -> str:
    return subprocess.run(
        ["git", *words], cwd=ROOT, check=True, capture_output=True, text=True
    ).stdout.strip()


def release(version: str) -> None:
    """Checks, then writes, commits and tags. Raises :class:`NotNow`."""
    if git("status", "--porcelain"):
        raise NotNow("There are changes not committed: commit or put them away first")
    if version in {tag.removeprefix("v") for tag in git("tag").split()}:
        raise NotNow(f"v{version} is tagged already: take the next number")
    project = numbered(PROJECT.read_text(encoding="utf-8"), version)
    changes, notes = dated(CHANGES.read_text(encoding="utf-8"), version, datetime.date.today())
    if subprocess.run([".ci/run"], cwd=ROOT, check=False).returncode:
        raise NotNow("The checks did not pass: see above")
    PROJECT.write_text(project, encoding="utf-8")
    CHANGES.write_text(changes, encoding="utf-8")
    subprocess.run([sys.executable, "-m", "tools.generate"], cwd=ROOT, check=True)
    NOTES.parent.mkdir(exist_ok=True)
    NOTES.write_text(notes, encoding="utf-8")
    git("commit", "--all", "--no-verify", "--message", f"Release {version}")
    # Headings of the notes begin with #, which git would take for comments.
    git("tag", "--annotate", "--cleanup=whitespace", f"v{version}", "--file", str(NOTES))
    print(f"v{version} is tagged; the notes are in {NOTES.relative_to(ROOT)}. Nothing was pushed.")


def main() -> int:
    parser = argparse.ArgumentParser(prog="tools.release")
    parser.add_argument("version", help="three numbers, as 0.2.0")
    try:
        release(parser.parse_args().version)
    except NotNow as why:
        print(f"No release: {why}.", file=sys.stderr)
        return 2
    return 0


if __name__ == "__main__":
    sys.exit(main())
