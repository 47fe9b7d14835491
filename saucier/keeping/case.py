"""A cooling as a document of its own: a rule, when it left the fire, what was read (docs/formats/cooling.md)."""

from collections.abc import Mapping
from dataclasses import asdict, dataclass
from typing import Annotated, Any

from pydantic import BeforeValidator, Field

from saucier.document import Part, no_bool
from saucier.errors import BadInput, Problem, problem
from saucier.keeping.facts import CoolingFacts, CoolingReading, StageFact, cooling_facts
from saucier.keeping.forecast import Forecast, forecast
from saucier.keeping.rules import Rules, read_rules, shipped_rules
from saucier.sheet.reading import read_part
from saucier.words import plain

MOST_READINGS = 5000
Clock = Annotated[float, BeforeValidator(no_bool), Field(ge=-100_000, le=1_000_000)]
Middle = Annotated[float, BeforeValidator(no_bool), Field(ge=-60, le=150)]


class OneStage(Part):
    """A rule of one stage: from ``from_c`` down to ``to_c`` within ``minutes``."""

    from_c: float
    to_c: float
    minutes: float


class CoolingCase(Part):
    """``rule`` is a key of rules.toml, or one stage; ``off_fire_min`` the end of cooking and ``put_away_min`` when
    it went to cool (None: unknown), ``readings`` [minute, °C] of its middle, and ``now_min``: minutes on one
    clock."""

    rule: str | OneStage
    off_fire_min: Clock | None = None
    put_away_min: Clock | None = None
    readings: Annotated[tuple[tuple[Clock, Middle], ...], Field(max_length=MOST_READINGS)] = ()
    now_min: Clock


@dataclass(frozen=True, slots=True)
class CaseJudged:
    """What is proved of a case, and how it goes on (None: nothing was read)."""

    facts: CoolingFacts
    forecast: Forecast | None


def read_case(data: Any) -> CoolingCase:
    """The case in ``data``. Raises :class:`BadInput` by field: a moment past ``now_min``, and being put away
    before the end of cooking, make no sense."""
    if not isinstance(data, Mapping):
        raise BadInput.at("case", "case-is-no-object")
    rule = data.get("rule")
    if isinstance(rule, Mapping):
        rule = read_part(OneStage, rule, "rule")
    elif "rule" in data:
        _shipped(rule)
    case = read_part(CoolingCase, {**data, "rule": rule} if "rule" in data else data, "")
    problems: list[Problem] = []
    for field, at_min in (
        ("off_fire_min", case.off_fire_min),
        ("put_away_min", case.put_away_min),
        *((f"readings[{n}][0]", reading[0]) for n, reading in enumerate(case.readings)),
    ):
        if at_min is not None and at_min > case.now_min:
            problems.append(problem(field, "is-past-now", now_min=case.now_min))
    off_fire, put_away = case.off_fire_min, case.put_away_min
    if off_fire is not None and put_away is not None and put_away < off_fire:
        problems.append(problem("put_away_min", "put-away-on-the-fire", off_fire_min=off_fire))
    if problems:
        raise BadInput(*problems)
    rules_of(case)
    return case


def rules_of(case: CoolingCase) -> Rules:
    """The rules a case goes by. Raises :class:`BadInput` (``rule``)."""
    rule = case.rule
    if isinstance(rule, str):
        return _shipped(rule)
    stage = {"to_c": rule.to_c, "minutes": rule.minutes}
    own = {"name": "own", "from_c": rule.from_c, "stages": [stage], "hot_c": 63, "reheat_c": 74}
    try:
        return read_rules(own)
    except BadInput as bad:
        raise BadInput(
            *(
                problem(
                    f"rule.{each.field.replace('stages[0].', '').replace('stages', 'to_c')}",
                    each.code,
                    **each.facts,
                )
                for each in bad.problems
            )
        ) from None


def _shipped(key: object) -> Rules:
    rules = shipped_rules()
    if not isinstance(key, str) or key not in rules:
        raise BadInput.at("rule", "is-no-shipped-rule", key=str(key)[:40], keys=tuple(rules))
    return rules[key]


def judged(case: CoolingCase) -> CaseJudged:
    """What the readings of ``case`` prove, and how it is likely to go on."""
    rules = rules_of(case)
    facts = cooling_facts(rules, case.readings, case.off_fire_min, case.now_min)
    begin = case.off_fire_min
    if begin is None and case.readings:
        begin = min(at_min for at_min, _ in case.readings)
    ahead = None
    if begin is not None:
        ahead = forecast(rules, facts, case.readings, begin, case.now_min, None, case.put_away_min)
    return CaseJudged(facts, ahead)


def case_told(case: CaseJudged) -> dict[str, Any]:
    """``case`` as plain data for JSON."""
    return {
        "stages": [_stage_told(stage) for stage in case.facts.stages],
        "coolings": [[_stage_told(stage) for stage in cooling] for cooling in case.facts.coolings],
        "forecast": None if case.forecast is None else plain(asdict(case.forecast)),
    }


def _stage_told(stage: StageFact) -> dict[str, Any]:
    return {
        "to_c": stage.to_c,
        "limit_min": stage.limit_min,
        "verdict": stage.verdict,
        "at_least_min": _tenth(stage.at_least_min),
        "at_most_min": _tenth(stage.at_most_min),
        "proved": stage.proved,
        "due_min": _tenth(stage.due_min),
        "rests_on": [_reading_told(reading) for reading in stage.rests_on],
        "warmed_again": [_reading_told(reading) for reading in stage.warmed_again],
        "says": str(stage.shown_by),
    }


def _reading_told(reading: CoolingReading) -> list[float]:
    return [reading.at_min, reading.celsius]


def _tenth(minutes: float | None) -> float | None:
    return None if minutes is None else round(minutes, 2)
