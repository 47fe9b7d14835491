"""When each remark is rightly made, by rules written apart from the code: from a cook's knowledge and what is in the pot
before and after the step, not from how the steps decide."""

from collections.abc import Callable, Iterator
from typing import Any, NamedTuple

from saucier.check import CheckedSheet, check
from saucier.larder import Ingredient, shipped_larder
from saucier.pot import Balance, Pot
from saucier.words import Sentence

ROWS = shipped_larder()
BOILS = ("simmer", "reduce")


class Said(NamedTuple):
    """A remark of step ``number`` of ``checked``."""

    checked: CheckedSheet
    number: int
    sentence: Sentence

    @property
    def step(self) -> Any:
        return self.checked.sheet.steps[self.number]

    @property
    def row(self) -> Ingredient:
        return ROWS[self.step.ingredient]

    @property
    def before(self) -> Pot:
        return self.checked.steps[self.number - 1].pot if self.number else Pot()

    @property
    def after(self) -> Pot:
        return self.checked.steps[self.number].pot

    @property
    def final(self) -> Pot:
        return self.checked.steps[-1].pot

    @property
    def steps_so_far(self) -> list[Any]:
        return list(_flat(self.checked.sheet.steps[: self.number + 1]))

    def fact(self, name: str) -> Any:
        return self.sentence.facts[name]


def _flat(steps: Any) -> Iterator[Any]:
    """``steps`` with those of the sauces made inside them."""
    for step in steps:
        if step.inside is not None:
            yield from _flat(step.inside.steps)
        yield step


def all_said(checked: CheckedSheet) -> Iterator[Said]:
    """Every remark of ``checked``; those of a sauce made inside it at that sauce's own steps, as they are said of it
    made by itself."""
    for number, (step, state) in enumerate(zip(checked.sheet.steps, checked.steps, strict=True)):
        inside: dict[str, Said] = {}
        if step.inside is not None:
            inside = {said.sentence.code: said for said in all_said(_made_by_itself(checked, step))}
        for sentence in state.warnings:
            yield inside.get(sentence.code, Said(checked, number, sentence))


def _made_by_itself(checked: CheckedSheet, step: Any) -> CheckedSheet:
    inside = step.inside
    fields = ("name", "method", "pan", "burner", "lid", "steps")
    return check(checked.sheet.model_copy(update={name: getattr(inside, name) for name in fields}))


def _grams(said: Said, part: Any) -> float:
    return ROWS[part.ingredient].grams(part.amount)


def _liquid(balance: Balance) -> float:
    return balance.water + balance.alcohol


def _went_in(said: Said, *roles: str) -> bool:
    """Whether something of ``roles`` went in so far, by itself or with a liaison."""
    return any(ROWS[key].role in roles for step in said.steps_so_far for key in step.names())


def _flour_by_water(balance: Balance) -> float:
    return balance.thickener / balance.water if balance.water else 0.0


def _boils(said: Said) -> bool:
    return any(step.op in BOILS for step in _flat([said.step]))


def _salt_pct(pot: Pot) -> float:
    return 100.0 * pot.balance.salt / pot.balance.mass_g if pot.balance.mass_g else 0.0


def _phi(pot: Pot) -> float:
    volume = pot.balance.volume_ml
    return pot.balance.fat / 0.9 / volume if volume else 0.0


def _full(said: Said) -> float:
    return said.after.total_ml / said.checked.pan.capacity_ml


def _thin_dairy(row: Ingredient) -> bool:
    return row.role in ("milk", "cream", "soft-cream") and row.per_gram.fat < 0.30


def _yolk_cooked(pot: Pot) -> bool:
    return pot.hottest_c >= 75.0


def _stood_dry(said: Said) -> bool:
    """Nothing liquid to work with yet."""
    return not said.before.wetted


def _has_piece(said: Said) -> bool:
    wanted = said.step.ingredient if said.step.op in ("lift", "blend") else None
    return any(wanted in (None, piece.key) for piece in said.before.pieces)


def _stays_raw(said: Said) -> bool:
    """Flour in the finished sauce that was never long enough at the boil, told where it can still be boiled."""
    final = said.final
    return final.balance.thickener > 0.0 and final.boiled_min < said.fact("full_min") <= 3.0


_POURED = ("milk", "cream", "soft-cream", "stock", "water", "wine", "spirit", "juice", "acid")

RULES: dict[str, Callable[[Said], bool]] = {
    # A step that has nothing to work on.
    "nothing-to-boil": _stood_dry,
    "nothing-to-infuse": _stood_dry,
    "nothing-to-strain": lambda s: not s.before.pieces or s.before.balance.mass_g == 0.0,
    "nothing-to-lift": lambda s: not _has_piece(s),
    "nothing-to-blend": lambda s: not _has_piece(s),
    "nothing-lifted": lambda s: all(p.key != s.step.ingredient for p in s.before.lifted),
    "nothing-split": lambda s: not s.before.split,
    "nothing-burns": lambda s: s.before.balance.alcohol <= 0.04 * _liquid(s.before.balance),
    "nothing-to-correct": lambda s: s.checked.steps[s.number].figures.grade is None,
    "no-sauce": _stood_dry,
    "not-a-liquid": lambda s: s.row.role not in _POURED,
    "not-cheese": lambda s: s.row.role != "cheese",
    "not-butter": lambda s: s.row.role != "fat",
    "no-yolk": lambda s: "yolk" not in s.step.yolk.ingredient,
    "no-flour": lambda s: ROWS[s.step.flour.ingredient].per_gram.thickener == 0.0,
    "splits-again": lambda s: s.after.split and s.step.op == "mend",
    # Fat, flour, lumps.
    "no-fat": lambda s: s.before.balance.fat < 0.5,
    "lean-dust": lambda s: s.fact("fat_g") < 0.6 * s.fact("flour_g"),
    "lean-roux": lambda s: s.fact("fat_g") < 0.6 * s.fact("flour_g") and s.step.colour != "raw",
    "flour-into-hot": lambda s: (
        s.before.temperature_c > 60.0 and s.before.balance.water > 2.0 * _grams(s, s.step)
    ),
    "fat-smokes": lambda s: s.step.op == "sear" and _smokes(s.step.fat.ingredient),
    "wet-pan": lambda s: s.before.wetted,
    "spits": lambda s: s.before.temperature_c > 100.0 and s.before.balance.fat > 5.0,
    # What must not boil.
    "soft-cream-boiled": lambda s: _boils(s) and _dairy_went_in(s),
    "mounted-boiled": lambda s: _boils(s) and _op_so_far(s, "mount"),
    "liaison-boiled": lambda s: _boils(s) and _went_in(s, "egg"),
    "cheese-boiled": lambda s: _boils(s) and _went_in(s, "cheese") and _op_so_far(s, "melt"),
    "curdles": lambda s: (
        any(_thin_dairy(ROWS[key]) for key in s.step.names())
        and s.after.balance.acid > 0.0025 * s.before.balance.mass_g
        and s.before.balance.thickener == 0.0
    ),
    "root-starch-thins": lambda s: (
        _boils(s) and any(ROWS[k].thins_share > 0 for t in s.steps_so_far for k in t.names())
    ),
    # Yolk.
    "yolk-loose": lambda s: s.before.temperature_c > 60.0 and s.before.wetted,
    "yolk-grains": lambda s: s.after.hottest_c > 82.0 and s.after.flour_g_per_l < 45.0,
    "yolk-raw": lambda s: not _yolk_cooked(s.after) or not _yolk_cooked(s.final),
    "liaison-bare": lambda s: 1000 * _flour_by_water(s.after.balance) < 45.0,
    # Butter and creams at the end.
    "mounted": lambda s: s.after.balance.flour > 0.0,
    "mounted-bare": lambda s: (
        2.0 * s.after.balance.flour < s.after.balance.butter
        or _flour_by_water(s.before.balance) < 0.01
    ),
    "soft-cream": lambda s: s.row.per_gram.fat < 0.30 and s.before.balance.thickener == 0.0,
    "emulsion-caution": lambda s: _phi(s.after) >= 0.69 and _boils(s),
    "emulsion-oily": lambda s: _phi(s.after) >= 0.76,
    "emulsion-split": lambda s: s.after.split and not s.before.split,
    # Cheese.
    "no-starch": lambda s: _flour_by_water(s.before.balance) < 0.011,
    "hot-cheese": lambda s: s.step.heat == "low" and s.before.temperature_c > s.row.strings_c,
    "much-cheese": lambda s: _grams(s, s.step) > 0.4 * s.before.balance.mass_g,
    "too-cool": lambda s: s.after.temperature_c < s.row.melts_c,
    "does-not-melt": lambda s: s.row.melts_c == 0.0,
    # Food.
    "raw-in-sauce": lambda s: s.step.how == "raw" and s.step.takes_minutes < 12.0,
    "safe-middle": lambda s: s.after.temperature_c < 75.0 and _is_food(s.row),
    "flamed": lambda s: (
        s.fact("alcohol") < s.before.balance.alcohol
        and abs(s.fact("final") - s.final.balance.alcohol) < 0.1
    ),
    "brined": lambda s: s.fact("given") <= s.final.balance.salt + 1e-6 and s.fact("pct") >= 0.1,
    # Boiling down.
    "lid-on-a-reduction": lambda s: s.checked.sheet.lid or getattr(s.step, "lid", False),
    "not-on-this-ring": lambda s: s.after.minutes - s.before.minutes > 120.0,
    "already-less": lambda s: s.fact("total_g") <= s.before.total_g + 1.0,
    "thick-enough": lambda s: _same_mass(s),
    "two-rules": lambda s: abs(s.fact("said") - s.fact("minutes")) > 0.25 * s.fact("minutes"),
    "stop-out-of-reach": lambda s: (
        s.after.split
        or _liquid(s.after.balance) < 0.06 * _liquid(s.before.balance)
        or _phi(s.after) > 0.7
    ),
    "grade-out-of-reach": lambda s: s.checked.steps[s.number].figures.grade != _asked_grade(s),
    # Salt, pans, raw flour.
    "too-salty": lambda s: _salt_pct(s.before) > s.fact("target_pct"),
    "too-salty-for-none": lambda s: s.before.balance.salt > 0.0,
    "salted-too-soon": lambda s: (
        _salt_pct(s.final) > s.fact("target_pct")
        and s.step.op == "season"
        and any(step.op == "reduce" for step in s.checked.sheet.steps[s.number :])
    ),
    "thin-bottom": lambda s: not s.checked.pan.heavy and s.before.balance.flour > 0.0,
    "pan-full": lambda s: 0.8 < _full(s) <= 1.0,
    "pan-overflows": lambda s: _full(s) > 1.0,
    "reactive-pan": lambda s: s.checked.pan.reactive and _greys(s.after.balance),
    "not-boiled": lambda s: _stays_raw(s) and s.final.boiled_min == 0.0,
    "short-boil": lambda s: _stays_raw(s) and s.final.boiled_min > 0.0,
    "keeping": lambda s: s.step.op in ("cool", "hold", "reheat"),
}
"""By its code, whether a remark is true where it is made."""


def _smokes(fat: str) -> bool:
    """Fats a cook does not sear in: butter, olive oil, lard and drippings."""
    return any(
        word in fat for word in ("butter-unsalted", "butter-salted", "olive", "pork", "nut")
    ) or (0.0 < ROWS[fat].smokes_c < 200.0)


def _is_food(row: Ingredient) -> bool:
    return row.role in ("meat", "fish", "seafood")


def _op_so_far(said: Said, op: str) -> bool:
    return any(step.op == op for step in said.steps_so_far)


def _dairy_went_in(said: Said) -> bool:
    return any(_thin_dairy(ROWS[key]) for step in said.steps_so_far for key in step.names())


def _same_mass(said: Said) -> bool:
    return abs(said.after.total_g - said.before.total_g) < 1e-6


def _asked_grade(said: Said) -> str | None:
    to = getattr(said.step, "to", None)
    return getattr(to, "grade", None)


def _greys(balance: Balance) -> bool:
    return (
        balance.alcohol > 0.0 or balance.yolk_protein > 0.0 or balance.acid > 0.001 * balance.mass_g
    )


# --- what must be said ---------------------------------------------------------------------


def _ends_with_raw_flour(checked: CheckedSheet) -> bool:
    """Flour the sheet itself put in, never at the boil, in a sauce that was one."""
    final = checked.final.pot
    root = any(
        ROWS[key].thins_share > 0 for step in _flat(checked.sheet.steps) for key in step.names()
    )
    dry = not final.wetted
    return final.balance.thickener > 0.0 and final.boiled_min == 0.0 and not root and not dry


def _ends_with_raw_yolk(checked: CheckedSheet) -> bool:
    final = checked.final.pot
    return final.balance.yolk_protein > 0.0 and final.hottest_c < 70.0


def _a_boil_after(checked: CheckedSheet, put_in: Callable[[Any], bool]) -> bool:
    """A boil of a wet pot without flour, after something for which ``put_in`` holds, which is still in it."""
    there = False
    for step, state in zip(checked.sheet.steps, checked.steps, strict=True):
        if step.op == "strain":
            return False
        if (
            there
            and step.op in BOILS
            and state.pot.boiled_min > 0
            and state.pot.balance.thickener == 0
        ):
            return True
        there = there or put_in(step)
    return False


def _soured(step: Any) -> bool:
    return (
        step.op in ("add", "finish")
        and ROWS[step.ingredient].role == "soft-cream"
        and (ROWS[step.ingredient].per_gram.fat < 0.28)
    )


def _dry_roux(checked: CheckedSheet) -> bool:
    return any(
        step.op == "roux"
        and step.colour != "raw"
        and ROWS[step.fat.ingredient].grams(step.fat.amount)
        < 0.55 * ROWS[step.flour.ingredient].grams(step.flour.amount)
        for step in checked.sheet.steps
    )


def _covered_reduction(checked: CheckedSheet) -> bool:
    return checked.sheet.lid and any(
        step.op == "reduce" and after.pot.minutes - before.minutes > 1.0 and before.wetted
        for step, before, after in zip(
            checked.sheet.steps,
            (Pot(), *(state.pot for state in checked.steps)),
            checked.steps,
            strict=False,
        )
    )


def _over_salted(checked: CheckedSheet) -> bool:
    """Salted to a figure it is past already."""
    pots = (Pot(), *(state.pot for state in checked.steps))
    return any(
        step.op == "season"
        and getattr(step.amount, "to_salt_pct", None) is not None
        and _salt_pct(before) > step.amount.to_salt_pct + 0.05
        for step, before in zip(checked.sheet.steps, pots, strict=False)
    )


def _a_flame(checked: CheckedSheet) -> bool:
    pots = (Pot(), *(state.pot for state in checked.steps))
    return any(
        step.op == "flame" and before.balance.alcohol > 0.1 * _liquid(before.balance) > 0.0
        for step, before in zip(checked.sheet.steps, pots, strict=False)
    )


def _too_full(checked: CheckedSheet) -> bool:
    return any(state.pot.total_ml > checked.pan.capacity_ml for state in checked.steps)


def _meets_metal(checked: CheckedSheet) -> bool:
    return checked.pan.reactive and any(s.pot.balance.alcohol > 0.0 for s in checked.steps)


MUST: dict[tuple[str, ...], Callable[[CheckedSheet], bool]] = {
    ("not-boiled", "short-boil"): _ends_with_raw_flour,
    ("yolk-raw",): _ends_with_raw_yolk,
    ("soft-cream-boiled",): lambda c: _a_boil_after(c, _soured),
    ("mounted-boiled",): lambda c: (
        _a_boil_after(c, lambda s: s.op == "mount" and "butter" in s.ingredient) and not _creamy(c)
    ),
    ("liaison-boiled",): lambda c: _a_boil_after(c, lambda s: s.op == "liaison"),
    ("lean-roux",): _dry_roux,
    ("lid-on-a-reduction",): _covered_reduction,
    ("too-salty", "too-salty-for-none"): _over_salted,
    ("flamed",): _a_flame,
    ("pan-overflows",): _too_full,
    ("reactive-pan",): _meets_metal,
    ("emulsion-split", "splits-before-its-stop", "splits-again", "stop-out-of-reach"): lambda c: (
        c.final.pot.split
    ),
}
"""Codes of which at least one must be said of a sheet for which the rule holds."""


def _creamy(checked: CheckedSheet) -> bool:
    return any(
        ROWS[key].role in ("cream", "soft-cream")
        for step in _flat(checked.sheet.steps)
        for key in step.names()
    )
