"""Ready-made starting points: sheets in the open format, one file each."""

from pathlib import Path

from saucier.sheet import Sheet, read_sheet

STARTS: list[Sheet] = [
    read_sheet(path.read_bytes()) for path in sorted(Path(__file__).parent.glob("*.json"))
]
