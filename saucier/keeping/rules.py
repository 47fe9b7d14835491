"""Rule sets for cooling, holding and heating again: data, one chosen by each kitchen, each to be changed."""

import tomllib
from collections.abc import Mapping
from functools import cache
from itertools import pairwise
from pathlib import Path
from typing import Annotated, Any

from pydantic import Field

from saucier.document import Part
from saucier.errors import BadInput
from saucier.sheet.reading import read_part
from saucier.words import degrees_in

_HERE = Path(__file__).parent
USUAL = "one-step-10"
"""What a kitchen goes by that has not said so: one of the strict ones."""
Degrees = Annotated[float, Field(ge=-5, le=100)]
Limit = Annotated[float, Field(gt=0, le=1440)]


class Stage(Part):
    """Down to ``to_c`` within ``minutes`` from where the clock of the rule begins."""

    to_c: Degrees
    minutes: Limit


class Rules(Part):
    """A rule set; ``rules.toml`` says what each figure is."""

    key: Annotated[str, Field(min_length=1, max_length=40)] = "own"
    name: Annotated[str, Field(min_length=1, max_length=80)]
    from_c: Degrees
    stages: Annotated[tuple[Stage, ...], Field(min_length=1, max_length=4)]
    hot_c: Degrees
    reheat_c: Degrees
    reheat_minutes: Limit = 120.0
    reheat_hold_minutes: Annotated[float, Field(ge=0, le=60)] = 0.0
    chilled_c: Degrees = 5.0
    chilled_days: Annotated[int, Field(ge=0, le=14)] = 2

    @property
    def told(self) -> "Rules":
        """With its name in the kitchen's degrees, where it is a shipped one."""
        return (
            self if self.key == "own" else self.model_copy(update={"name": degrees_in(self.name)})
        )


@cache
def shipped_rules() -> dict[str, Rules]:
    """The rule sets as they ship, by key."""
    table = tomllib.loads((_HERE / "rules.toml").read_text(encoding="utf-8"))
    return {key: Rules.model_validate({**row, "key": key}) for key, row in table.items()}


def read_rules(data: Mapping[str, Any]) -> Rules:
    """A kitchen's own rule set. Raises :class:`BadInput` by field.

    >>> own = {"name": "ours", "from_c": 60, "stages": [{"to_c": 8, "minutes": 90}], "hot_c": 65, "reheat_c": 75}
    >>> read_rules(own).stages[0].minutes
    90.0
    """
    rules = read_part(Rules, data, "")
    falls = [rules.from_c, *(stage.to_c for stage in rules.stages)]
    if any(later >= sooner for sooner, later in pairwise(falls)):
        raise BadInput.at("stages", "stages-do-not-fall")
    if any(later.minutes <= sooner.minutes for sooner, later in pairwise(rules.stages)):
        raise BadInput.at("stages", "stages-do-not-follow")
    return rules
