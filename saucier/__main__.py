"""``python -m saucier``: the core without Django and without a server."""

import argparse
import json
import os
import sys
from pathlib import Path
from typing import Any, NoReturn

from saucier.check import CheckedSheet, check
from saucier.errors import BadInput
from saucier.sheet import Sheet, json_schema, parse_json, read_sheet, write_sheet
from saucier.sheet.reading import MAX_BYTES
from saucier.strict import load
from saucier.version import VERSION
from saucier.words import plain


def main(arguments: list[str] | None = None) -> int:
    """Run the command line; the exit status is 0, or 2 for bad input."""
    options = _parser().parse_args(arguments)
    try:
        status = int(options.run(options))
        sys.stdout.flush()
    except BadInput as bad:
        print(f"saucier: {bad.problems[0]}", file=sys.stderr)
        return 2
    except BrokenPipeError:
        # Whoever read our output (head, a pager) has seen enough; nothing more can be said there.
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    return status


class _Parser(argparse.ArgumentParser):
    """Says what is wrong with the arguments in one line, as with any bad input."""

    def error(self, message: str) -> NoReturn:
        print(f"saucier: {message} (see {self.prog} --help)", file=sys.stderr)
        sys.exit(2)


def _parser() -> argparse.ArgumentParser:
    parser = _Parser(
        prog="saucier", description="Check and solve sauce sheets. Predictions are estimates."
    )
    parser.add_argument("--version", action="version", version=f"saucier {VERSION}")
    commands = parser.add_subparsers(required=True, metavar="COMMAND")

    checking = commands.add_parser("check", help="the state of the pot after every step")
    checking.set_defaults(run=_check)

    solving = commands.add_parser("solve", help="re-proportion and scale to a target")
    solving.add_argument("--grade", help="pouring, light-coat, nappe, binding, spreading, panade")
    solving.add_argument("--volume", help="yield, such as 2L or 1.5kg")
    solving.add_argument("--salt", help="salt target, g per 100 g")
    solving.add_argument(
        "--have", help="the one ingredient there is: KEY=AMOUNT, stock-light=900mL"
    )
    solving.add_argument("--round", action="store_true", help="round to what a kitchen weighs")
    solving.set_defaults(run=_solve)

    sure = commands.add_parser("sure", help="the chance of its grade, and what mends the doubt")
    sure.set_defaults(run=_sure)

    for command in (checking, solving, sure):
        command.add_argument("sheet", help="a sheet in JSON, or - for standard input")
        command.add_argument("--json", action="store_true", help="print JSON instead of words")

    cooling = commands.add_parser(
        "cooling", help="what readings of a cooling prove, and how it goes on"
    )
    cooling.add_argument("case", help="a cooling in JSON, or - for standard input")
    cooling.add_argument("--json", action="store_true", help="print JSON instead of words")
    cooling.set_defaults(run=_cooling)

    reading = commands.add_parser("read", help="a recipe from elsewhere, as a sheet")
    reading.add_argument("recipe", help="JSON-LD, a saved page or plain text, or -")
    reading.add_argument("--json", action="store_true", help="print JSON instead of words")
    reading.set_defaults(run=_read_recipe)

    exporting = commands.add_parser("export", help="a sheet as a recipe or as Markdown")
    exporting.add_argument("sheet", help="a sheet in JSON, or - for standard input")
    exporting.add_argument("--as", dest="form", default="json-ld", help="json-ld, markdown, sheet")
    exporting.set_defaults(run=_export)

    schema = commands.add_parser("schema", help="the JSON Schema of the sheet")
    schema.set_defaults(run=_schema)
    return parser


def _read(name: str) -> bytes:
    try:
        if name == "-":
            return sys.stdin.buffer.read(MAX_BYTES + 1)
        with Path(name).open("rb") as file:
            return file.read(MAX_BYTES + 1)
    except (OSError, ValueError) as trouble:
        reason = getattr(trouble, "strerror", None) or str(trouble)
        raise BadInput.at("sheet", "cannot-be-opened", name=name, why=reason) from None


def _check(options: argparse.Namespace) -> int:
    checked = check(_sheet(options.sheet))
    _print(checked, {}, options.json)
    return 0


def _sure(options: argparse.Namespace) -> int:
    from saucier.sure import how_sure

    found = how_sure(_sheet(options.sheet))
    if found is None:
        raise BadInput.at("target.grade", "has-no-grade-to-be-sure-of")
    if options.json:
        told = plain(found)
        for mend in (*told["mends"], *([told["surest"]] if told["surest"] else [])):
            mend.pop("sheet")
        print(json.dumps(told, indent=2, ensure_ascii=False))
        return 0
    print(f"{100 * found.chance:.0f} % {found.grade}")
    for one in found.doubts:
        print(f"  {100 * one.share:3.0f} % of the doubt: {one.name}")
    for mend in (*found.mends, *([found.surest] if found.surest else [])):
        print(f"  -> {100 * mend.chance:.0f} %: {mend.do}")
    return 0


def _solve(options: argparse.Namespace) -> int:
    from saucier.sheet.salting import with_salt_target
    from saucier.solve import Have, goal_of, rounded_for_kitchen, solve
    from saucier.units import read_amount

    sheet = _sheet(options.sheet)
    have = None
    if options.have is not None:
        key, _, text = options.have.partition("=")
        have = Have(key, _under("have", read_amount, text))
    volume = None if options.volume is None else _under("volume", read_amount, options.volume)
    goal = goal_of(sheet, options.grade, volume, have)
    if options.salt is not None:
        sheet = with_salt_target(sheet, options.salt)
    solved = solve(sheet, goal).sheet
    if options.round:
        solved = rounded_for_kitchen(solved, goal).sheet
    checked = check(solved)
    _print(checked, {"sheet": write_sheet(solved)}, options.json)
    return 0


def _cooling(options: argparse.Namespace) -> int:
    from saucier.keeping.case import case_told, judged, read_case

    found = judged(read_case(_under("case", load, _read(options.case))))
    if options.json:
        print(json.dumps(case_told(found), indent=2, ensure_ascii=False))
        return 0
    for stage in found.facts.stages:
        read = ", ".join(f"{one.celsius:g} °C at {one.at_min:g} min" for one in stage.rests_on)
        print(f"{stage.verdict}: {stage.shown_by}" + (f" ({read})" if read else ""))
    if found.forecast is not None:
        for ahead in found.forecast.stages:
            at = "not within a day" if ahead.at_min is None else f"about minute {ahead.at_min:.0f}"
            print(f"  forecast: {ahead.to_c:g} °C {at}, {100 * ahead.chance:.0f} % in time")
        if found.forecast.words is not None:
            print(f"  note: {found.forecast.words}")
    return 0


def _read_recipe(options: argparse.Namespace) -> int:
    from saucier.exchange import read_recipe
    from saucier.kitchen import Kitchen

    try:
        text = _read(options.recipe).decode("utf-8")
    except UnicodeDecodeError:
        raise BadInput.at("text", "is-not-utf-8") from None
    reading = read_recipe(text, Kitchen())
    if options.json:
        told = {**plain(reading), "sheet": write_sheet(reading.sheet) if reading.sheet else None}
        print(json.dumps(told, indent=2, ensure_ascii=False))
        return 0
    print(reading.name)
    for line in reading.lines:
        print(f"  {line.status:7} {line.text}" + (f"  ({line.why})" if line.why else ""))
    for note in (*reading.assumed, *reading.beside):
        print(f"  note: {note}")
    return 0


def _export(options: argparse.Namespace) -> int:
    from saucier.exchange import written
    from saucier.kitchen import Kitchen

    print(written(_sheet(options.sheet), Kitchen(), options.form).text)
    return 0


def _sheet(name: str) -> Sheet:
    """The sheet in a file; amounts may be in the shipped kitchen measures."""

    document = parse_json(_read(name))
    return read_sheet(document)


def _schema(options: argparse.Namespace) -> int:
    print(json.dumps(json_schema(), indent=2, ensure_ascii=False))
    return 0


def _under(field: str, read: Any, text: str | bytes) -> Any:
    try:
        return read(text)
    except BadInput as bad:
        raise bad.under(field) from None


def _print(checked: CheckedSheet, beside: dict[str, Any], as_json: bool) -> None:
    final = checked.figures
    if as_json:
        whole = {
            **beside,
            **plain(final),
            "assumed": checked.assumed,
            "pan": checked.pan,
            "steps": [state.figures for state in checked.steps],
        }
        print(json.dumps(plain(whole), indent=2, ensure_ascii=False))
        return
    print(checked.sheet.name)
    for number, (step, state) in enumerate(zip(checked.sheet.steps, checked.steps, strict=True)):
        thick = state.figures.grade or f"({state.figures.reason})"
        if not state.figures.cooked_out and state.figures.now:
            thick = str(state.figures.now)
        print(f"  {number + 1}. {step.op:8} {state.figures.mass_g:8.0f} g  {thick}")
    if final.viscosity_pa_s is not None:
        print(
            f"{final.mass_g:.0f} g, {final.volume_ml:.0f} mL, {final.grade} "
            f"({final.viscosity_pa_s:.2g} Pa·s, likely "
            f"{final.viscosity_low_pa_s:.2g}–{final.viscosity_high_pa_s:.2g}), "
            f"salt {final.salt_pct:.2f} %, {final.emulsion}"
        )
    for note in (*final.warnings, *checked.assumed):
        print(f"  note: {note}")


if __name__ == "__main__":
    sys.exit(main())
