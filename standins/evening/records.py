"""What is written down of an evening, line by line against what truly happened: the record of temperatures, the journal,
what is said to stand in the fridge, and that each task of the run-up was done."""

import re
from collections.abc import Iterator
from datetime import datetime
from typing import Any

from standins.evening.app import App
from standins.evening.cooking import Cooked, Kitchen, PutAway

Line = dict[str, Any]

_CLOCK_MIN = 0.1
"""How far two clocks may be apart."""
_SCATTERS = 4.0
"""How many scatters a weighing may be off."""
_ROUNDED_G = 1.0
_PROBE_C = 2.0
"""How far a probe may be off, °C: five of its scatters."""
_POURED_SHARE = 0.02
_ALLERGENS = frozenset({"milk", "gluten", "celery", "fish", "mustard", "egg", "soya", "sulphites"})
"""Of what food may bring, what a label has to name."""


def false_lines(kitchen: Kitchen) -> Iterator[str]:
    """Each line that is not true, in words; and each that is not there."""
    app = kitchen.app
    pots = {pot.batch: pot for pot in kitchen.cooked}
    yield from _of_journal(app, pots)
    yield from _of_record(app, pots, {kept.batch: kept for kept in kitchen.put_away})
    for kept in kitchen.put_away:
        yield from _of_fridge(app, kept)
    yield from _of_run_up(kitchen)


def _minute(app: App, at: str) -> float:
    return (datetime.fromisoformat(at) - app.began).total_seconds() / 60.0


def _near(minute: float, truly: float | None) -> bool:
    return truly is not None and abs(minute - truly) <= _CLOCK_MIN


# -- the journal


def _of_journal(app: App, pots: dict[int, Cooked]) -> Iterator[str]:
    entries = (app.ask("GET", "/journal") or {"entries": []})["entries"]
    of_batch = {entry["batch_id"]: entry for entry in entries}
    if len(entries) != len(of_batch):
        yield "the journal: a batch is in it twice"
    for pot in pots.values():
        if pot.done_min is not None and pot.batch not in of_batch:
            yield f"the journal: nothing of {pot.name}"
    for batch, entry in of_batch.items():
        pot, name = pots[batch], f"the journal of {entry['name']}"
        actual = entry["actual"]
        if actual["mass_g"] != pot.said_g:
            yield f"{name}: {actual['mass_g']} g, {pot.said_g} g were weighed"
        if actual["viscosity_pa_s"] != pot.said_pa_s:
            yield f"{name}: {actual['viscosity_pa_s']} Pa·s, {pot.said_pa_s} were judged"
        if pot.done_min is None or not _near(actual["minutes"], pot.done_min - pot.began_min):
            yield f"{name}: {actual['minutes']} min"
        if len(entry["mends"]) != pot.mended:
            yield f"{name}: mended {len(entry['mends'])} times, {pot.mended} in truth"
        if not _near(_minute(app, entry["made_at"]), pot.done_min):
            yield f"{name}: made at {entry['made_at']}"


# -- the record of temperatures


def _of_record(app: App, pots: dict[int, Cooked], kept: dict[int, PutAway]) -> Iterator[str]:
    first, last = app.began.date(), app.moment.date()
    lines: list[Line] = app.ask("GET", f"/keeping/records?first={first}&last={last}") or []
    seen: set[tuple[str, int]] = set()
    for line in lines:
        batch, minute = int(line["code"].removeprefix("B")), _minute(app, line["at"])
        kind, said = _said_false(line, minute, pots[batch], kept.get(batch), pots)
        seen.add((kind, batch))
        if said:
            yield f"the record of {line['name']}: {line['what']} {line['value']} {line['met']}: {said}"
    wanted = {("began", batch) for batch in pots}
    wanted |= {("done", batch) for batch, pot in pots.items() if pot.done_min is not None}
    wanted |= {("put away", batch) for batch in kept}
    for kind, batch in sorted(wanted - seen):
        yield f"the record: {pots[batch].name} was {kind}, and no line says so"


def _said_false(
    line: Line, minute: float, pot: Cooked, kept: PutAway | None, pots: dict[int, Cooked]
) -> tuple[str, str]:
    """Of which kind a line is, and what is not true of it ("" where it all is)."""
    words = line["what"]
    if words == "began":
        return "began", "" if _near(minute, pot.began_min) else f"in truth at {pot.began_min:.1f}"
    if words == "done":
        return "done", "" if _near(minute, pot.done_min) else f"in truth at {pot.done_min}"
    if kept is None:
        return words, "nothing of it was put away"
    if words.startswith("put away"):
        grams = _figure(line["value"], "g")
        off = abs(grams - kept.grams) > _SCATTERS * kept.scale_g + _ROUNDED_G
        late = not _near(minute, kept.at_min)
        return (
            "put away",
            f"in truth {kept.grams:.0f} g at {kept.at_min:.1f}" if off or late else "",
        )
    if words.startswith("down to"):
        return "cooled", _cooling_false(line, kept)
    if words.startswith("warmed through"):
        return "warmed", _warming_false(line, minute, pots)
    if words.startswith("set aside"):
        return "set aside", ""
    return words, "nobody did that"


def _figure(words: str, unit: str) -> float:
    match = re.search(rf"(-?[\d.]+) {unit}\b", words)
    return float(match.group(1)) if match else float("nan")


def _cooling_false(line: Line, kept: PutAway) -> str:
    """Whether it is said to have cooled in time and did not, or the other way round: as the tray was, a probe's
    scatter aside."""
    cold_c, limit = _figure(line["what"], "°C"), _figure(line["rule"], "min")
    from_c = max(celsius for celsius in (63.0, 60.0) if celsius <= kept.tray.was[0][1])
    quickest = _took(kept, from_c - _PROBE_C, cold_c + _PROBE_C)
    longest = _took(kept, from_c + _PROBE_C, cold_c - _PROBE_C)
    verdict = line["met"]
    if "missed" in verdict and longest is not None and longest <= limit:
        return f"it took {longest:.0f} min at most"
    if "not shown" in verdict or "missed" in verdict:
        return ""
    if quickest is None or quickest > limit:
        return f"it took {quickest or float('inf'):.0f} min at least"
    return ""


def _took(kept: PutAway, from_c: float, to_c: float) -> float | None:
    begin, end = kept.tray.passed(from_c), kept.tray.passed(to_c)
    return None if end is None else end - (kept.at_min if begin is None else begin)


def _warming_false(line: Line, minute: float, pots: dict[int, Cooked]) -> str:
    read = [pair for pot in pots.values() for pair in pot.middles]
    truly = min(read, key=lambda pair: abs(pair[0] - minute), default=None)
    if truly is None or not _near(minute, truly[0]):
        return "nobody read anything then" if line["value"] != "nobody read it" else ""
    if abs(_figure(line["value"], "°C") - truly[1]) > _PROBE_C:
        return f"it was {truly[1]:.1f} °C"
    if line["met"] == "met" and truly[1] < _figure(line["rule"], "°C") - _PROBE_C:
        return f"it was {truly[1]:.1f} °C"
    return ""


# -- the fridge


def _of_fridge(app: App, truth: PutAway) -> Iterator[str]:
    kept = app.ask("GET", f"/keeping/{truth.kept}")
    if kept is None:
        yield "the fridge: what was put away is not there"
        return
    name, pot = f"the fridge: {kept['name']}", truth.tray.pot
    near_g = _SCATTERS * truth.scale_g + _ROUNDED_G + _POURED_SHARE * truth.grams
    if abs(kept["left_g"] - pot.grams) > near_g:
        yield f"{name}: {kept['left_g']:.0f} g are left, {pot.grams:.0f} g in truth"
    if missing := (pot.brings() & _ALLERGENS) - set(kept["allergens"]):
        yield f"{name}: its label is silent about {', '.join(sorted(missing))}"


# -- the run-up


def _of_run_up(kitchen: Kitchen) -> Iterator[str]:
    """Every task was done: by the cook's mark, or at the stove."""
    if kitchen.run_up is None:
        return
    run_up = kitchen.app.ask("GET", f"/run-ups/{kitchen.run_up['id']}")
    days = run_up["planned"]["days"] if run_up and run_up["planned"] else []
    for block in (block for day in days for block in day["blocks"]):
        if block["state"] != "done":
            yield f"the run-up: {block['name']} is {block['state']}"
