"""From a use and a count to a volume."""

from dataclasses import dataclass

from saucier.check import DEFAULT_KITCHEN
from saucier.demand.uses import SauceUse, use_named
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.sheet import Serves, Sheet
from saucier.sheet.salting import with_salt_target
from saucier.units import Amount, kitchen_round
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class Need:
    """``volume_ml`` to make, and ``lines`` with the arithmetic that led there."""

    use: SauceUse
    volume_ml: float
    lines: tuple[Sentence, ...]


def need_for(serves: Serves, kitchen: Kitchen = DEFAULT_KITCHEN) -> Need:
    """The sauce to make for ``serves``: count × amount each, the margin, the film on the pot.

    Raises :class:`BadInput` (field ``use``).

    >>> need_for(Serves(use="nap", count=10, margin_pct=0)).volume_ml
    580.0
    """
    use = use_named(serves.use, kitchen)
    per = use.per_ml if serves.per_ml is None else serves.per_ml
    plain = serves.count * per
    margin = plain * serves.margin_pct / 100.0
    lines = [say("need-counted", count=serves.count, unit=use.counted_in, per_ml=per, ml=plain)]
    if margin:
        lines.append(say("need-margin", margin_pct=serves.margin_pct, ml=margin))
    lines.append(say("need-film", ml=kitchen.film_ml))
    return Need(use, plain + margin + kitchen.film_ml, tuple(lines))


def with_serves(
    sheet: Sheet, serves: Serves, kitchen: Kitchen = DEFAULT_KITCHEN
) -> tuple[Sheet, Need]:
    """``sheet`` with its yield set by ``serves``; where the use changes, or the sheet has no
    grade yet, grade, salt and serving temperature follow it. Raises :class:`BadInput` under
    ``target.serves``."""
    try:
        need = need_for(serves, kitchen)
    except BadInput as bad:
        raise bad.under("target.serves") from None
    volume = kitchen_round(Amount(need.volume_ml / 1000.0, "L"))
    changes: dict[str, object] = {"serves": serves, "volume": volume}
    before = sheet.target.serves
    if before is None or before.use != serves.use or sheet.target.grade is None:
        changes |= {"grade": need.use.grade, "serving_c": need.use.serving_c}
        sheet = with_salt_target(sheet, need.use.salt_pct, put_step=False)
    return sheet.model_copy(update={"target": sheet.target.model_copy(update=changes)}), need
