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
    """``volume_ml`` to make for so many ``portions``, ``each`` of what the use counts in a portion
    (``count`` in all), and ``lines`` with the arithmetic that led there."""

    use: SauceUse
    volume_ml: float
    lines: tuple[Sentence, ...]
    portions: float
    each: float
    count: float


@dataclass(frozen=True, slots=True)
class Enough:
    """How many ``portions`` a volume is enough for, as the sauce is asked for, and how it is told."""

    portions: float
    told: Sentence


def need_for(serves: Serves, kitchen: Kitchen = DEFAULT_KITCHEN) -> Need:
    """The sauce to make for ``serves``: count × amount each, the margin, the film on the pot.

    Raises :class:`BadInput` (field ``use``).

    >>> need_for(Serves(use="nap", portions=10, margin_pct=0)).volume_ml
    580.0
    """
    use = use_named(serves.use, kitchen)
    per = use.per_ml if serves.per_ml is None else serves.per_ml
    each = use.each if serves.each is None else serves.each
    if serves.portions is not None:
        portions, count = serves.portions, serves.portions * each
    else:  # a sheet from before portions were asked
        count = serves.count or 0.0
        portions = count / each
    plain = count * per
    margin = plain * serves.margin_pct / 100.0
    lines = []
    if each != 1.0:
        lines.append(
            say("need-portions", portions=portions, each=each, unit=use.counted_in, count=count)
        )
    lines.append(say("need-counted", count=count, unit=use.counted_in, per_ml=per, ml=plain))
    if margin:
        lines.append(say("need-margin", margin_pct=serves.margin_pct, ml=margin))
    lines.append(say("need-film", ml=kitchen.film_ml))
    return Need(use, plain + margin + kitchen.film_ml, tuple(lines), portions, each, count)


def enough_for(volume_ml: float, serves: Serves, kitchen: Kitchen = DEFAULT_KITCHEN) -> Enough:
    """How many portions ``volume_ml`` is enough for, with the margin and film of ``serves`` kept.

    Raises :class:`BadInput` (field ``use``).

    >>> str(enough_for(580.0, Serves(use="nap", portions=4, margin_pct=0)).told)
    'enough for 10 portions'
    """
    need = need_for(serves, kitchen)
    per_portion = (need.volume_ml - kitchen.film_ml) / need.portions
    portions = max(0.0, volume_ml - kitchen.film_ml) / per_portion
    whole = float(int(portions + 1e-9))
    return Enough(whole, say("enough-for" if whole else "enough-for-none", portions=whole))


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
