"""A thousand variants of one sauce: the core beside the same formulas in a headless spreadsheet.

The spreadsheet (LibreOffice Calc, started without a screen) is given one row of formulas a variant,
written here from docs/model.md alone, and has to come to the same viscosities. Its time is one whole
run: start, load, calculate, write, as a cook would wait for it; ours is reading the sheet, preparing and
playing it in a running core, as the app does.
"""

import csv
import math
import re
import shutil
import statistics
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from xml.sax.saxutils import escape

from saucier import constants as K
from saucier.check import Prepared, prepare
from saucier.larder import shipped_larder
from saucier.sheet import Sheet, read_sheet
from saucier.sure.doubts import Doubt, doubts_of
from saucier.sure.variants import Variants, stratified
from saucier.thickness import raw_viscosity_of

MANY = 1000
AGREES_TO = 1e-6


def sauce() -> Sheet:
    """A cheese sauce boiled down to a weight: measured, so that every doubt is one of an amount."""
    return read_sheet(
        {
            "name": "race",
            "steps": [
                {
                    "op": "roux",
                    "fat": {"ingredient": "butter-unsalted", "amount": "60 g"},
                    "flour": {"ingredient": "wheat-flour", "amount": "60 g"},
                },
                {"op": "add", "ingredient": "milk-whole", "amount": "1030 g"},
                {"op": "reduce", "to": {"mass": "1100 g"}},
                {"op": "melt", "ingredient": "cheese-hard-alpine", "amount": "120 g"},
                {"op": "add", "ingredient": "cream-35", "amount": "60 g"},
            ],
        }
    )


def played() -> list[float]:
    """η of every variant, by the core."""
    prepared, doubts, draws = _drawn()
    variants = Variants(prepared, doubts)
    return [raw_viscosity_of(pot) for pot in variants.plays(draws) if pot is not None]


def _drawn() -> tuple[Prepared, list[Doubt], list[tuple[float, ...]]]:
    prepared = prepare(sauce())
    doubts = [one for one in doubts_of(prepared) if one.kind == "measure"]
    return prepared, doubts, stratified(len(doubts), MANY)


# --- the same in a spreadsheet ---------------------------------------------------------

_PARTS = ("water", "fat", "thickening_protein", "solids", "salt")
_ORDER = ("butter-unsalted", "wheat-flour", "milk-whole", "cheese-hard-alpine", "cream-35")


def _formulas(row: int) -> list[str]:
    """One variant: amounts stand in A to E; from F on what the formula goes by."""
    larder = shipped_larder()

    def of(part: str) -> str:
        told = [
            f"{letter}{row}*{getattr(larder[key].per_gram, part)!r}"
            for letter, key in zip("ABCDE", _ORDER, strict=True)
            if getattr(larder[key].per_gram, part)
        ]
        return "+".join(told) or "0"

    before = f"A{row}+B{row}*{_mass('wheat-flour')!r}+C{row}"
    return [
        f"({of('water')})-MAX(0;{before}-1100)",  # F water
        of("fat"),  # G
        of("thickening_protein"),  # H
        of("solids"),  # I
        of("salt"),  # J
        f"B{row}",  # K flour
        f"F{row}/{K.DENSITY_WATER}+G{row}/{K.DENSITY_FAT}+({K.DRY_SHARE_OF_FLOUR}*K{row}+H{row}+I{row}"
        f"+{of('insoluble')})/{K.DENSITY_DRY}+J{row}/{K.DENSITY_SALT}",  # L volume
        f"G{row}/{K.DENSITY_FAT}/L{row}",  # M φ
        f"{K.FAT_CROWDING}*M{row}+{K.PROTEIN_CROWDING_ML_PER_G}*H{row}/L{row}",  # N x
        f"IF(N{row}<=0.6;N{row};0.78-0.18*EXP(-(N{row}-0.6)/0.18))",  # O f
        f"EXP(2.5*O{row}/(1-O{row}))",  # P G
        f"100*K{row}/F{row}",  # Q c
        f"{K.FLOUR_FACTOR}*Q{row}^{K.FLOUR_EXPONENT}",  # R S
        f"{K.VISCOSITY_BASE}*EXP(5*I{row}/(F{row}+I{row}))"
        f"*(P{row}+R{row}*P{row}^0.72*(1-O{row})^0.28)",  # S η
        f'IF(S{row}<0.03;"liquid";IF(S{row}<0.12;"pouring";IF(S{row}<0.4;"light-coat";'
        f'IF(S{row}<1.2;"nappe";IF(S{row}<4;"binding";IF(S{row}<15;"spreading";"panade"))))))',  # T
    ]


def _mass(key: str) -> float:
    return shipped_larder()[key].per_gram.mass_g


def _document() -> str:
    """The spreadsheet, as flat OpenDocument."""
    _prepared, doubts, draws = _drawn()
    at = {doubt.ingredient: number for number, doubt in enumerate(doubts)}
    written = {"butter-unsalted": 60, "wheat-flour": 60, "milk-whole": 1030}
    written |= {"cheese-hard-alpine": 120, "cream-35": 60}
    rows = []
    for number, draw in enumerate(draws, 1):
        cells = [
            _number(written[key] * math.exp(doubts[at[key]].spread * draw[at[key]]))
            for key in _ORDER
        ]
        cells += [
            f'<table:table-cell table:formula="of:={escape(_dotted(f), {chr(34): "&quot;"})}"/>'
            for f in _formulas(number)
        ]
        rows.append(f"<table:table-row>{''.join(cells)}</table:table-row>")
    return (
        '<?xml version="1.0" encoding="UTF-8"?>'
        '<office:document xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0"'
        ' xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0"'
        ' xmlns:of="urn:oasis:names:tc:opendocument:xmlns:of:1.2" office:version="1.3"'
        ' office:mimetype="application/vnd.oasis.opendocument.spreadsheet">'
        '<office:body><office:spreadsheet><table:table table:name="variants">'
        f"{''.join(rows)}</table:table></office:spreadsheet></office:body></office:document>"
    )


def _number(value: float) -> str:
    return f'<table:table-cell office:value-type="float" office:value="{value!r}"/>'


def _dotted(formula: str) -> str:
    """References as OpenFormula writes them: ``A1`` as ``[.A1]``."""
    return re.sub(r"\b([A-T])(\d+)\b", r"[.\1\2]", formula)


def spreadsheet(folder: Path) -> tuple[list[float], float]:
    """η of every variant by the spreadsheet, and the seconds of its run."""
    source = folder / "variants.fods"
    source.write_text(_document(), encoding="utf-8")
    # Full precision: a value as it is, not as it is shown.
    out = "csv:Text - txt - csv (StarCalc):44,34,76,1,,0,false,false"
    profile = f"-env:UserInstallation=file://{folder}/profile"
    command = ["soffice", profile, "--headless", "--convert-to", out, "--outdir", str(folder)]
    subprocess.run([*command, str(source)], check=True, capture_output=True)  # its first start
    started = time.perf_counter()
    subprocess.run([*command, str(source)], check=True, capture_output=True)
    took = time.perf_counter() - started
    with (folder / "variants.csv").open(encoding="utf-8", newline="") as file:
        return [float(row[18]) for row in csv.reader(file)], took


def race() -> tuple[float, float, float]:
    """Seconds of the spreadsheet's run and of ours, and the largest share the two differ by."""
    with tempfile.TemporaryDirectory() as folder:
        theirs, took = spreadsheet(Path(folder))
    found = []
    for _ in range(3):
        started = time.perf_counter()
        ours = played()
        found.append(time.perf_counter() - started)
    apart = max(abs(a / b - 1.0) for a, b in zip(theirs, ours, strict=True))
    return took, statistics.median(found), apart


def main() -> int:
    if shutil.which("soffice") is None:
        print(
            "LibreOffice Calc is missing. Run: sudo apt-get install libreoffice-calc",
            file=sys.stderr,
        )
        return 1
    theirs, ours, apart = race()
    print(
        f"{MANY} variants: spreadsheet {theirs:.2f} s, core {ours:.3f} s, {theirs / ours:.1f} times"
    )
    print(f"largest difference {apart:.1e}")
    return 0 if apart < AGREES_TO else 1


if __name__ == "__main__":
    sys.exit(main())
