"""What mends everything but thickness and salt: lumps, splits, grains, a dull green, a flat taste."""

from saucier import constants as K
from saucier.heat import evaporation_g_per_min
from saucier.rescue.case import Case
from saucier.rescue.dose import after
from saucier.rescue.remedy import Remedy, refused, remedy_of
from saucier.rescue.thickness import thicken
from saucier.seasoning import salt_pct
from saucier.steps import Add, AnyStep, Finish, Mend, Season, Simmer
from saucier.units import Amount, kitchen_round

_CLINGS = {"whisk": 0.0, "blend": 0.01, "sieve": 0.04, "decant": 0.05}
"""Share of the pot that stays in the sieve, the blender, the caught pan."""
_SPOON_SHARE = 0.03
"""A spoon of water for a split sauce to be whisked into, as a share of it."""
_HOT_C = 80.0
_COLD_C = 5.0


def _g(grams: float) -> Amount:
    return kitchen_round(Amount(max(grams, 0.5), "g"))


def _lost(case: Case, how: str) -> float:
    return _CLINGS[how] * case.pot.total_g


def _sieve(case: Case, title: str, then: str) -> Remedy:
    lost = _lost(case, "sieve")
    do = ("Press it through a fine sieve with a ladle.", f"About {lost:.0f} g stays behind.", then)
    return remedy_of(case, "sieve", title, do, loses_g=lost, minutes=3.0)


def lumps(case: Case) -> list[Remedy]:
    blended = _lost(case, "blend")
    return [
        remedy_of(
            case, "whisk", "Whisk hard", ("Off the heat, whisk hard for a minute.",), minutes=1.0
        ),
        remedy_of(
            case,
            "blend",
            "Blend it",
            (
                "Blend hot in small amounts, the lid vented.",
                f"About {blended:.0f} g stays in the jug; it foams and looks paler for a while.",
            ),
            loses_g=blended,
            minutes=3.0,
        ),
        _sieve(
            case,
            "Sieve it",
            "The lumps held flour back: look at the spoon, it may be thinner than planned.",
        ),
    ]


def raw_flour(case: Case) -> list[Remedy]:
    """Simmer on, with the liquid that boils off put back."""
    title = "Simmer on"
    if not case.pot.balance.flour:
        return [refused("simmer", title, "there is no flour in it")]
    if case.pot.delicate - {"cheese"}:
        return [
            refused("simmer", title, "it must not boil any more: next time simmer before enriching")
        ]
    minutes = max(5.0, 8.0 - case.pot.boiled_min)
    stove = case.setting.stove
    lost = evaporation_g_per_min(case.pot.total_ml, "bare-simmer", stove, False) * minutes
    liquid = case.liquid
    amount = kitchen_round(Amount(max(1.0, lost / liquid.density), "mL"))
    steps: list[AnyStep] = [
        Add(ingredient=liquid.key, amount=amount, temperature_c=_HOT_C),
        Simmer(minutes=minutes, heat="bare-simmer", lid=False),
    ]
    do = (
        f"Whisk in {amount.value:g} mL hot {liquid.spoken_name}: as much as will boil off.",
        f"{minutes:.0f} min at the odd bubble, stirring; taste again.",
    )
    return [remedy_of(case, "simmer", f"Simmer {minutes:.0f} min more", do, steps)]


def caught(case: Case) -> list[Remedy]:
    lost = _lost(case, "decant")
    do = (
        "Off the heat. Do not stir, do not scrape.",
        "Pour what runs freely into a clean pan, then taste it: burnt goes through everything.",
        f"Leave about {lost:.0f} g behind.",
    )
    return [remedy_of(case, "decant", "Decant it", do, loses_g=lost, minutes=2.0)]


def stringy_cheese(case: Case) -> list[Remedy]:
    """A little acid and hot liquid, whisked: casein lets go of itself."""
    mass = case.pot.total_g
    liquid = case.liquid
    hot = _g(0.04 * mass)
    ways = []
    for key, share in (("wine-white-dry", 0.02), ("lemon-juice", 0.006)):
        row = case.kitchen.larder[key]
        sharp = _g(share * mass)
        steps: list[AnyStep] = [
            Add(ingredient=key, amount=sharp),
            Add(ingredient=liquid.key, amount=hot, temperature_c=_HOT_C),
        ]
        do = (
            f"Off the heat. Whisk in {sharp} {row.spoken_name}, then {hot} hot {liquid.spoken_name}.",
            "Whisk hard until it comes together.",
        )
        title = f"{sharp} {row.spoken_name} and {hot} hot {liquid.spoken_name}"
        ways.append(remedy_of(case, f"sharp-{key}", title, do, steps, minutes=2.0))
    blend = ("Blend it hot in small amounts, the lid vented.",)
    lost = _lost(case, "blend")
    return [*ways, remedy_of(case, "blend", "Blend it", blend, loses_g=lost, minutes=3.0)]


def yolk_grains(case: Case) -> list[Remedy]:
    cream = case.kitchen.larder["cream-35"]
    balance = case.pot.balance
    # Enough cold cream to bring the pot to 70 °C: m·c·(70 − 5) = M·C·(T − 70), both near 3.6.
    grams = _g(case.pot.total_g * max(0.03, (case.pot.temperature_c - 70.0) / 65.0))
    found = _sieve(case, "Sieve it, cool it with cream", "The grains do not come back.")
    if balance.yolk_protein <= 0.0:
        return [refused("sieve", found.title, "there is no yolk in it")]
    step = Finish(ingredient=cream.key, amount=grams, temperature_c=_COLD_C)
    do = (
        f"Off the heat at once, whisk in {grams} cold cream.",
        *found.do,
    )
    return [
        remedy_of(
            case,
            "cream-sieve",
            f"{grams} cold cream, then a sieve",
            do,
            (step,),
            loses_g=found.loses_g,
            minutes=4.0,
        )
    ]


def oily_cream(case: Case) -> list[Remedy]:
    """Water back until the fat takes less room than where a cream gets risky. One that has split
    does not come back by stirring: it is whisked by drops into what goes in."""
    balance = case.pot.balance
    fat_ml = balance.fat / K.DENSITY_FAT
    need_ml = fat_ml / (K.EMULSION_CAUTION - 0.02) - balance.volume_ml
    title = "Water back in"
    if case.pot.split:
        need_ml = max(need_ml, _SPOON_SHARE * balance.volume_ml)
    elif need_ml <= 0.5:
        share = 100.0 * fat_ml / max(balance.volume_ml, 1e-9)
        return [
            refused("water", title, f"fat takes {share:.0f} % of the room: it should hold as it is")
        ]
    ways = []
    for key in dict.fromkeys(("water", case.liquid.key)):
        row = case.kitchen.larder[key]
        if row.per_gram.fat > 0.1:
            continue
        amount = kitchen_round(Amount(need_ml / row.per_gram.volume_ml / row.density, "mL"))
        told = f"{amount.value:g} mL warm {row.spoken_name}"
        if case.pot.split:
            step: AnyStep = Mend(ingredient=key, amount=amount)
            do = (
                f"Off the heat. {told} in a clean pan.",
                "Whisk the split sauce in by drops, then in a thread, until it is creamy.",
                "Do not boil it again.",
            )
        else:
            step = Add(ingredient=key, amount=amount, temperature_c=60.0)
            do = (
                "Off the heat.",
                f"Whisk in {told} by spoonfuls until it turns creamy.",
                "Do not boil it again.",
            )
        title = f"{amount.value:g} mL {row.spoken_name} back in"
        minutes = K.MEND_MINUTES if case.pot.split else 2.0
        ways.append(remedy_of(case, f"back-{key}", title, do, (step,), minutes=minutes))
    return ways


def split_soft_cream(case: Case) -> list[Remedy]:
    return [_slurry_blend(case, 0.008, "Slurry, warmed while whisking")]


def curdled(case: Case) -> list[Remedy]:
    return [
        _slurry_blend(case, 0.01, "Slurry and blender"),
        _sieve(case, "Sieve it", "What ran through is whey and fat: bind it as a fresh sauce."),
    ]


def _slurry_blend(case: Case, share: float, title: str) -> Remedy:
    starch = _g(share * case.pot.total_g)
    water = Amount(2.0 * starch.value, "g")
    steps: list[AnyStep] = [
        Add(ingredient="corn-starch", amount=starch),
        Add(ingredient="water", amount=water),
    ]
    do = (
        f"Off the heat. Stir {starch} corn starch into {water} cold water.",
        "Whisk it in, warm gently until it just thickens, then blend.",
        "Finer, never quite as smooth as before.",
    )
    return remedy_of(case, "slurry", title, do, steps, minutes=4.0)


def dull_green(case: Case) -> list[Remedy]:
    green = case.most_of("puree", "herb")
    key = green.key if green and not green.piece else "spinach-puree"
    row = case.kitchen.larder[key]
    grams = _g(0.08 * case.pot.total_g)
    step = Finish(ingredient=key, amount=grams, temperature_c=20.0)
    do = (f"At the pass, off the heat, stir in {grams} fresh {row.spoken_name}; no lid.",)
    title = f"{grams} fresh {row.spoken_name} at the end"
    return [remedy_of(case, "fresh-green", title, do, (step,), minutes=1.0)]


def grey(case: Case) -> list[Remedy]:
    return [
        refused("grey", "Bring the colour back", "grey from bare metal does not go away again"),
        remedy_of(
            case,
            "move",
            "Move it to stainless",
            (
                "Into a stainless or enamel pan now, before it gets worse.",
                "Taste for metal: if it is there, begin again.",
            ),
            minutes=1.0,
        ),
    ]


def too_sharp(case: Case) -> list[Remedy]:
    """Sugar by small steps, or cream and unsalted base against the acid itself."""
    if case.pot.balance.mass_g <= 0.0:
        return [refused("sugar", "Sugar", "there is no sauce in it yet")]
    mass, balance = case.pot.total_g, case.pot.balance
    sugar = _g(0.002 * mass)
    ways = [
        remedy_of(
            case,
            "sugar",
            f"{sugar} sugar, taste, once more if need be",
            (
                f"Stir in {sugar} sugar (2 g a kilo) and taste; a second and third time at most.",
                "Sugar covers, it takes no acid away.",
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
        grams = _g(balance.mass_g * (acid - goal) / (goal - own))
        do = (f"Whisk in {grams} hot {row.spoken_name}: a fifth less sharp.",)
        step = Add(ingredient=row.key, amount=grams, temperature_c=_HOT_C)
        title = f"{grams} {row.spoken_name}"
        ways.append(remedy_of(case, f"dilute-{row.key}", title, do, (step,), minutes=1.0))
    return ways


def flat(case: Case) -> list[Remedy]:
    """Salt up to its target, then lemon by small steps."""
    mass = case.pot.total_g
    target = case.salt_target_pct or 0.8
    ways = []
    if salt_pct(case.pot.balance) < target - 0.03:
        step = Season.model_validate({"op": "season", "amount": {"to_salt_pct": target}})
        grams = after(case, (step,)).balance.salt - case.pot.balance.salt
        do = (f"Salt first: {grams:.1f} g brings it to {target:g} %.",)
        ways.append(remedy_of(case, "salt-up", f"{grams:.1f} g salt", do, (step,), minutes=1.0))
    lemon = _g(0.006 * mass)
    drops = (
        f"Off the heat, {lemon} lemon juice, taste; once more at most.",
        "Not into milk without flour: it curdles.",
    )
    step = Season(ingredient="lemon-juice", amount=lemon)
    ways.append(remedy_of(case, "lemon", f"{lemon} lemon juice", drops, (step,), minutes=1.0))
    return ways


def weeps(case: Case) -> list[Remedy]:
    do = ("Bring it to the boil whisking, then blend it in small amounts, the lid vented.",)
    lost = _lost(case, "blend")
    flour = case.pot.balance.flour
    waxy = flour / 3.0 / case.kitchen.larder["rice-flour-waxy"].power
    ways = [remedy_of(case, "whisk-blend", "Whisk hot, blend", do, loses_g=lost, minutes=6.0)]
    bound = thicken(case, "slurry")
    if bound.refused is None:
        ways.append(bound)
    if flour:
        ways.append(
            remedy_of(
                case,
                "waxy-next-time",
                f"Next time: {waxy:.0f} g waxy rice flour for a third of the flour",
                (
                    f"Of the {flour:.0f} g flour take {flour * 2 / 3:.0f} g and {waxy:.0f} g waxy rice "
                    "flour: it lets less water go.",
                ),
                minutes=0.0,
            )
        )
    return ways


def emulsion_split(case: Case) -> list[Remedy]:
    drops = _g(0.01 * case.pot.total_g)
    yolks = max(1, round(case.pot.total_g / 300.0))
    return [
        remedy_of(
            case,
            "cold-drops",
            f"{drops} cold water by drops",
            (
                "Off the heat at once.",
                f"Whisk in cold water by drops, up to {drops}, from the edge in.",
            ),
            (Add(ingredient="water", amount=drops, temperature_c=_COLD_C),),
            minutes=2.0,
        ),
        remedy_of(
            case,
            "fresh-yolk",
            f"Start again on {yolks} fresh yolk{'s' if yolks > 1 else ''}",
            (
                f"Whisk {yolks} yolk{'s' if yolks > 1 else ''} with a spoon of warm water over gentle heat.",
                "Whisk the split sauce in by drops, then in a thread.",
            ),
            minutes=6.0,
        ),
    ]


def emulsion_tight(case: Case) -> list[Remedy]:
    drops = _g(0.015 * case.pot.total_g)
    do = (
        f"Whisk in hot water by drops, up to {drops}, until it loosens.",
        "Keep it at 50 to 60 °C.",
    )
    step = Add(ingredient="water", amount=drops, temperature_c=_HOT_C)
    title = f"{drops} hot water by drops"
    return [remedy_of(case, "hot-drops", title, do, (step,), minutes=2.0)]
