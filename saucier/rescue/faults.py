"""What mends everything but thickness and salt: lumps, splits, grains, a dull green, a flat taste."""

from collections.abc import Callable
from functools import partial

from saucier import constants as K
from saucier.check import State
from saucier.heat import evaporation_g_per_min
from saucier.larder import Ingredient
from saucier.rescue.case import Case
from saucier.rescue.dose import after
from saucier.rescue.in_grade import dosed
from saucier.rescue.remedy import Remedy, refused, remedy_of
from saucier.rescue.thickness import thicken, yolks_of
from saucier.seasoning import salt_pct
from saucier.steps import Add, AnyStep, Finish, InnerSauce, Mend, Season, Simmer, Use
from saucier.units import Amount, kitchen_round
from saucier.words import Sentence, say


def _g(grams: float) -> Amount:
    return kitchen_round(Amount(max(grams, 0.5), "g"))


def _lost(case: Case, how: str) -> float:
    return K.CLINGS[how] * _sauce_g(case)


def _sauce_g(case: Case) -> float:
    """g of the sauce itself, without the pieces in it: what doses go by."""
    return case.pot.balance.mass_g


def _sieve(case: Case, title: Sentence, then: Sentence) -> Remedy:
    lost = _lost(case, "sieve")
    do = (say("sieve.press"), say("sieve.stays", grams=lost), then)
    return remedy_of(case, "sieve", title, do, loses_g=lost, minutes=3.0)


def lumps(case: Case) -> list[Remedy]:
    blended = _lost(case, "blend")
    return [
        remedy_of(case, "whisk", say("whisk.title"), (say("whisk.do"),), minutes=1.0),
        remedy_of(
            case,
            "blend",
            say("blender.title"),
            (
                say("blender.do"),
                say("blender.stays", grams=blended),
            ),
            loses_g=blended,
            minutes=3.0,
        ),
        _sieve(
            case,
            say("sieve.title"),
            say("sieve.lumps"),
        ),
    ]


def raw_flour(case: Case) -> list[Remedy]:
    """Simmer on, with the liquid that boils off put back."""
    title = say("simmer-on.name")
    if not case.pot.balance.flour:
        return [refused("simmer", title, say("simmer-on.no-flour"))]
    if case.pot.delicate - {"cheese"}:
        return [refused("simmer", title, say("simmer-on.must-not-boil"))]
    minutes = max(5.0, 8.0 - case.pot.boiled_min)
    stove = case.setting.stove
    lost = evaporation_g_per_min(case.pot.total_ml, "bare-simmer", stove, False) * minutes
    liquid = case.liquid
    amount = kitchen_round(Amount(max(1.0, lost / liquid.density), "mL"))
    steps: list[AnyStep] = [
        Add(ingredient=liquid.key, amount=amount, temperature_c=K.MENDING_HOT_C),
        Simmer(minutes=minutes, heat="bare-simmer", lid=False),
    ]
    do = (
        say("simmer-on.liquid", ml=amount.value, name=liquid.spoken_name),
        say("simmer-on.do", minutes=minutes),
    )
    return [remedy_of(case, "simmer", say("simmer-on.title", minutes=minutes), do, steps)]


def caught(case: Case) -> list[Remedy]:
    lost = _lost(case, "decant")
    do = (
        say("decant.off"),
        say("decant.pour"),
        say("decant.leave", grams=lost),
    )
    return [remedy_of(case, "decant", say("decant.title"), do, loses_g=lost, minutes=2.0)]


def stringy_cheese(case: Case) -> list[Remedy]:
    """A little acid and hot liquid, whisked: casein lets go of itself."""
    mass = _sauce_g(case)
    liquid = case.liquid
    hot = _g(0.04 * mass)
    ways = []
    for key, share in (("wine-white-dry", 0.02), ("lemon-juice", 0.006)):
        row = case.kitchen.larder[key]
        sharp = _g(share * mass)
        steps: list[AnyStep] = [
            Add(ingredient=key, amount=sharp),
            Add(ingredient=liquid.key, amount=hot, temperature_c=K.MENDING_HOT_C),
        ]
        do = (
            say(
                "sharp.do",
                sour=sharp,
                sour_name=row.spoken_name,
                hot=hot,
                liquid=liquid.spoken_name,
            ),
            say("sharp.whisk"),
        )
        title = say(
            "sharp.title", sour=sharp, sour_name=row.spoken_name, hot=hot, liquid=liquid.spoken_name
        )
        ways.append(remedy_of(case, f"sharp-{key}", title, do, steps, minutes=2.0))
    blend = (say("blender.hot"),)
    lost = _lost(case, "blend")
    return [*ways, remedy_of(case, "blend", say("blender.title"), blend, loses_g=lost, minutes=3.0)]


def yolk_grains(case: Case) -> list[Remedy]:
    cream = case.kitchen.larder["cream-35"]
    balance = case.pot.balance
    # Enough cold cream to bring the pot to 70 °C: m·c·(70 − 5) = M·C·(T − 70), both near 3.6.
    grams = _g(case.pot.total_g * max(0.03, (case.pot.temperature_c - 70.0) / 65.0))
    sieved = _sieve(case, say("cream-sieve.name"), say("cream-sieve.grains"))
    if balance.yolk_protein <= 0.0:
        return [refused("sieve", sieved.title, say("cream-sieve.no-yolk"))]
    step = Finish(ingredient=cream.key, amount=grams, temperature_c=K.FRIDGE_C)
    do = (
        say("cream-sieve.cream", amount=grams),
        *sieved.do,
    )
    return [
        remedy_of(
            case,
            "cream-sieve",
            say("cream-sieve.title", amount=grams),
            do,
            (step,),
            loses_g=sieved.loses_g,
            minutes=4.0,
        )
    ]


def oily_cream(case: Case) -> list[Remedy]:
    """Water back until the fat takes less room than where a cream gets risky. One that has split
    does not come back by stirring: it is whisked by drops into what goes in."""
    balance = case.pot.balance
    fat_ml = balance.fat / K.DENSITY_FAT
    need_ml = fat_ml / (K.EMULSION_CAUTION - 0.02) - balance.volume_ml
    title = say("water-back.name")
    if case.pot.split:
        need_ml = max(need_ml, K.MEND_SPOON_SHARE * balance.volume_ml)
    elif need_ml <= 0.5:
        share = 100.0 * fat_ml / max(balance.volume_ml, 1e-9)
        return [refused("water", title, say("water-back.holds", share_pct=share))]
    ways = []
    for key in dict.fromkeys(("water", case.liquid.key)):
        row = case.kitchen.larder[key]
        if row.per_gram.fat > 0.1:
            continue
        amount = kitchen_round(Amount(need_ml / row.per_gram.volume_ml / row.density, "mL"))
        told = say("water-back.amount", ml=amount.value, name=row.spoken_name)
        if case.pot.split:
            step: AnyStep = Mend(ingredient=key, amount=amount)
            do = (
                say("water-back.clean-pan", told=told),
                say("water-back.by-drops"),
                say("water-back.no-boil"),
            )
        else:
            step = Add(ingredient=key, amount=amount, temperature_c=60.0)
            do = (
                say("water-back.off"),
                say("water-back.by-spoonfuls", told=told),
                say("water-back.no-boil"),
            )
        title = say("water-back.title", ml=amount.value, name=row.spoken_name)
        minutes = K.MEND_MINUTES if case.pot.split else 2.0
        ways.append(remedy_of(case, f"back-{key}", title, do, (step,), minutes=minutes))
    return ways


def split_soft_cream(case: Case) -> list[Remedy]:
    return [_slurry_blend(case, 0.008, say("slurry-blend.warmed"))]


def curdled(case: Case) -> list[Remedy]:
    return [
        _slurry_blend(case, 0.01, say("slurry-blend.title")),
        _sieve(case, say("sieve.title"), say("sieve.whey")),
    ]


def _slurry_blend(case: Case, share: float, title: Sentence) -> Remedy:
    starch = _g(share * _sauce_g(case))
    water = Amount(2.0 * starch.value, "g")
    steps: list[AnyStep] = [
        Add(ingredient="corn-starch", amount=starch),
        Add(ingredient="water", amount=water),
        Simmer(minutes=K.STARCH_RAW_MIN, heat="bare-simmer", lid=True),
    ]
    do = (
        say("slurry-blend.stir", starch=starch, water=water),
        say("slurry-blend.warm"),
        say("slurry-blend.after"),
    )
    return remedy_of(case, "slurry", title, do, steps, minutes=4.0)


def dull_green(case: Case) -> list[Remedy]:
    green = case.most_of("puree", "herb")
    key = green.key if green and not green.piece else "spinach-puree"
    row = case.kitchen.larder[key]
    grams = _g(0.08 * _sauce_g(case))
    step = Finish(ingredient=key, amount=grams, temperature_c=20.0)
    do = (say("fresh-green.do", grams=grams, name=row.spoken_name),)
    title = say("fresh-green.title", grams=grams, name=row.spoken_name)
    return [remedy_of(case, "fresh-green", title, do, (step,), minutes=1.0)]


def grey(case: Case) -> list[Remedy]:
    return [
        refused("grey", say("grey.name"), say("grey.stays")),
        remedy_of(
            case,
            "move",
            say("grey.move"),
            (
                say("grey.into-stainless"),
                say("grey.taste"),
            ),
            minutes=1.0,
        ),
    ]


def too_sharp(case: Case) -> list[Remedy]:
    """Sugar by small steps, or cream and unsalted base against the acid itself."""
    if case.pot.balance.mass_g <= 0.0:
        return [refused("sugar", say("sugar.name"), say("sugar.no-sauce"))]
    mass, balance = _sauce_g(case), case.pot.balance
    sugar = _g(0.002 * mass)
    ways = [
        remedy_of(
            case,
            "sugar",
            say("sugar.title", amount=sugar),
            (
                say("sugar.do", amount=sugar),
                say("sugar.covers"),
            ),
            (Season(ingredient="sugar-white", amount=sugar),),
            minutes=1.0,
        )
    ]
    acid = 100.0 * balance.acid / balance.mass_g
    goal = 0.8 * acid
    for row in {r.key: r for r in (case.kitchen.larder["cream-35"], case.liquid)}.values():
        own = 100.0 * row.per_gram.acid
        if own >= 0.9 * goal:
            continue
        grams = balance.mass_g * (acid - goal) / (goal - own)
        ways.append(dosed(case, partial(_against_acid, case, row), _acid_pct_of, goal, grams))
    return ways


def _against_acid(case: Case, row: Ingredient, dose_g: float) -> Remedy:
    grams = _g(dose_g)
    do = (say("less-sharp.do", amount=grams, name=row.spoken_name),)
    step = Add(ingredient=row.key, amount=grams, temperature_c=K.MENDING_HOT_C)
    title = say("less-sharp.title", grams=grams, name=row.spoken_name)
    return remedy_of(case, f"dilute-{row.key}", title, do, (step,), minutes=1.0)


def _acid_pct_of(state: State) -> float:
    balance = state.pot.balance
    return 100.0 * balance.acid / balance.mass_g if balance.mass_g else 0.0


def flat(case: Case) -> list[Remedy]:
    """Salt up to its target, then lemon by small steps."""
    mass = _sauce_g(case)
    target = case.salt_target_pct or 0.8
    ways = []
    if salt_pct(case.pot.balance) < target - 0.03:
        step = Season.model_validate({"op": "season", "amount": {"to_salt_pct": target}})
        grams = after(case, (step,)).balance.salt - case.pot.balance.salt
        do = (say("salt-up.do", grams=grams, target_pct=target),)
        ways.append(
            remedy_of(case, "salt-up", say("salt-up.title", grams=grams), do, (step,), minutes=1.0)
        )
    lemon = _g(0.006 * mass)
    drops = (
        say("lemon.do", amount=lemon),
        say("lemon.not-into-milk"),
    )
    step = Season(ingredient="lemon-juice", amount=lemon)
    ways.append(
        remedy_of(case, "lemon", say("lemon.title", amount=lemon), drops, (step,), minutes=1.0)
    )
    return ways


def weeps(case: Case) -> list[Remedy]:
    do = (say("weeps.do"),)
    lost = _lost(case, "blend")
    flour = case.pot.balance.flour
    waxy = flour / 3.0 / case.kitchen.larder["rice-flour-waxy"].power
    ways = [remedy_of(case, "whisk-blend", say("weeps.title"), do, loses_g=lost, minutes=6.0)]
    bound = thicken(case, "slurry")
    if bound.refused is None:
        ways.append(bound)
    if flour:
        ways.append(
            remedy_of(
                case,
                "waxy-next-time",
                say("waxy.title", grams=waxy),
                (say("waxy.do", flour=flour, less=flour * 2 / 3, grams=waxy),),
                minutes=0.0,
            )
        )
    return ways


def _spoons(case: Case, share: float) -> Amount:
    """Water by the spoon: whole tablespoons, one at least."""
    spoons = max(1, round(share * _sauce_g(case) / K.SPOON_OF_WATER_G))
    return Amount(spoons * K.SPOON_OF_WATER_G, "mL")


def too_hot(case: Case) -> list[Remedy]:
    """Pepper, chilli, ginger: plain base, or the fat of cream, which carries the heat away."""
    cream = case.kitchen.larder["cream-35"]
    return [_plain_base(case, _is_kin("hot-spice", "mustard")), _thinned(case, cream)]


def too_mustardy(case: Case) -> list[Remedy]:
    """A boil takes the bite of mustard; plain base the rest of it."""
    ways = [_plain_base(case, _is_kin("mustard"))]
    if not case.pot.delicate - {"cheese"}:
        minutes = K.MENDING_BOIL_MIN
        step = Simmer(minutes=minutes, heat="bare-simmer", lid=True)
        do = (say("boil-off-bite.do", minutes=minutes),)
        ways.append(remedy_of(case, "boil-off-bite", say("boil-off-bite.title"), do, (step,)))
    return ways


def too_sweet(case: Case) -> list[Remedy]:
    """Plain base, or lemon by small steps against it."""
    lemon = _g(0.006 * _sauce_g(case))
    step = Season(ingredient="lemon-juice", amount=lemon)
    do = (say("lemon.do", amount=lemon), say("lemon.not-into-milk"))
    title = say("lemon.title", amount=lemon)
    sharper = remedy_of(case, "lemon", title, do, (step,), minutes=1.0)
    return [_plain_base(case, _is_sweet), sharper]


TooMuch = Callable[[Ingredient], bool]


def _is_kin(*kin: str) -> TooMuch:
    return lambda row: bool(set(row.kin) & set(kin))


def _is_sweet(row: Ingredient) -> bool:
    return "sweet" in row.kin or (
        row.role in ("wine", "juice", "spirit") and row.per_gram.sugar >= K.SWEET_FROM
    )


def _more_g(case: Case) -> float:
    """Grams of plain base that bring what there is too much of down by a third."""
    return case.pot.balance.mass_g * (1.0 / K.TOO_MUCH_DOWN_TO - 1.0)


def _plain_base(case: Case, is_it: TooMuch) -> Remedy:
    """The same sauce made again without what there is too much of: a trial cup first, then the
    pot by what the cup took. Without a sheet that says so, its own liquid bound as thick."""
    larder, title = case.kitchen.larder, say("plain-base.name")
    if case.pot.balance.mass_g <= 0.0:
        return refused("plain-base", title, say("plain-base.no-sauce"))
    plain = tuple(
        step
        for step in case.sheet.steps
        if not (one := getattr(step, "ingredient", None)) or not is_it(larder[one])
    )
    if not plain or len(plain) > 60 or plain == case.sheet.steps:
        return _thinned(case, case.liquid)
    grams = _g(_more_g(case))
    name = str(say("plain-base.called", name=case.sheet.name[:100]))
    step = Use(sauce=InnerSauce(name=name, steps=plain), amount=grams)
    title = say("plain-base.title", grams=grams)
    return remedy_of(case, "plain-base", title, (*_trial(case), _for_all(grams)), (step,))


def _thinned(case: Case, row: Ingredient) -> Remedy:
    """``row`` by itself against it."""
    way, title = f"calm-{row.key}", say("calm.name", name=row.spoken_name)
    if case.pot.balance.mass_g <= 0.0:
        return refused(way, title, say("plain-base.no-sauce"))
    grams = _g(_more_g(case))
    step = Add(ingredient=row.key, amount=grams, temperature_c=K.MENDING_HOT_C)
    title = say("calm.title", grams=grams, name=row.spoken_name)
    do = (*_trial(case), _for_all(grams))
    return remedy_of(case, way, title, do, (step,), minutes=2.0)


def _trial(case: Case) -> tuple[Sentence, ...]:
    """On a cup first: what each spoon in it comes to for the pot."""
    per_spoon = K.TRIAL_SPOON_G * _sauce_g(case) / K.TRIAL_CUP_G
    return (
        say("trial.cup", cup_g=K.TRIAL_CUP_G, spoon_g=K.TRIAL_SPOON_G),
        say("trial.pot", per_spoon=_g(per_spoon)),
    )


def _for_all(grams: Amount) -> Sentence:
    return say("trial.a-third", grams=grams)


def emulsion_split(case: Case) -> list[Remedy]:
    drops = _spoons(case, K.EMULSION_COLD_SHARE)
    yolks = max(1, round(_sauce_g(case) / 300.0))
    return [
        remedy_of(
            case,
            "cold-drops",
            say("cold-drops.title", amount=drops),
            (
                say("cold-drops.off"),
                say("cold-drops.do", amount=drops),
            ),
            (Add(ingredient="water", amount=drops, temperature_c=K.FRIDGE_C),),
            minutes=2.0,
        ),
        remedy_of(
            case,
            "fresh-yolk",
            say("fresh-yolk.one" if yolks == 1 else "fresh-yolk.several", count=yolks),
            (
                say("fresh-yolk.do", yolks=yolks_of(yolks)),
                say("fresh-yolk.by-drops"),
            ),
            minutes=6.0,
        ),
    ]


def emulsion_tight(case: Case) -> list[Remedy]:
    drops = _spoons(case, K.EMULSION_HOT_SHARE)
    do = (
        say("hot-drops.do", amount=drops),
        say("hot-drops.keep"),
    )
    step = Add(ingredient="water", amount=drops, temperature_c=K.MENDING_HOT_C)
    title = say("hot-drops.title", amount=drops)
    return [remedy_of(case, "hot-drops", title, do, (step,), minutes=2.0)]
