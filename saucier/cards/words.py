"""What each step is told with: title, what to do, the cue to look for. Words for a new step: a
function here and its sentences in ``saucier/words/en/cards.toml``."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import singledispatch

from saucier import constants as K
from saucier.larder.ladled import ladled
from saucier.pot import Pot
from saucier.seasoning import salt_pct
from saucier.steps import (
    Add,
    Blend,
    Cool,
    Correct,
    Deglaze,
    Dust,
    Finish,
    Flame,
    Hold,
    Infuse,
    LeftOut,
    Liaison,
    Lift,
    Melt,
    Mend,
    Mount,
    Reduce,
    Reheat,
    Reserve,
    Return,
    Roux,
    Sear,
    Season,
    Setting,
    ShareOfIt,
    Simmer,
    Start,
    StepBase,
    Strain,
    Sweat,
    Use,
)
from saucier.steps.reduce import spoken_share
from saucier.thickness import mass_at_fat_share, spoken_grade
from saucier.words import Sentence, said, say


@dataclass(frozen=True, slots=True)
class Words:
    """A step told to a cook: ``title``, what to ``do``, the ``cue`` to look for, and ``lines``
    to go through one by one."""

    title: Sentence
    do: Sentence
    cue: Sentence
    lines: tuple[Sentence, ...] = ()


@singledispatch
def words_of(step: StepBase, setting: Setting, before: Pot, after: Pot) -> Words:
    """What to tell the cook of ``step``, knowing the pot before and after it."""
    raise TypeError(f"{type(step).__name__} has no words registered")


def _told(name: str, /, **facts: object) -> Words:
    """The three sentences called ``name``, each taking of the facts what it needs."""
    return Words(
        say(f"{name}.title", **facts), say(f"{name}.do", **facts), say(f"{name}.cue", **facts)
    )


def _names(names: Iterable[str]) -> tuple[str, ...]:
    """Names of pieces as a cook says them, each once: "bay leaf" for "Bay leaf, dried"."""
    short = (name.partition(",")[0] for name in dict.fromkeys(names))
    return tuple(name[:1].lower() + name[1:] for name in short)


@words_of.register
def _(step: Add, setting: Setting, before: Pot, after: Pot) -> Words:
    row = setting.ingredient(step.ingredient)
    name = row.short_name
    first = not (before.balance.mass_g or before.pieces)
    if row.per_gram.thickener and before.wetted:
        return _told("add-thickener", name=name)
    if row.role == "fat":
        return _told("add-first-fat" if first else "add-fat", name=name)
    if row.piece:
        return _told("add-first-piece" if first else "add-piece", name=name)
    if before.balance.flour and not before.wetted and row.wet:
        told = _told("add-to-roux", name=name)
        return Words(told.title, say(f"add-to-roux.{setting.liquid_in}"), told.cue)
    return _told("add" if before.balance.mass_g or not row.wet else "add-first", name=name)


@words_of.register
def _(step: LeftOut, setting: Setting, before: Pot, after: Pot) -> Words:
    return _told("step-left-out", what=words_of(step.was, setting, before, after).title)


@words_of.register
def _(step: Sweat, setting: Setting, before: Pot, after: Pot) -> Words:
    return _told("sweat", name=setting.ingredient(step.ingredient).spoken_name)


@words_of.register
def _(step: Dust, setting: Setting, before: Pot, after: Pot) -> Words:
    return _told("dust", name=setting.ingredient(step.ingredient).spoken_name)


@words_of.register
def _(step: Infuse, setting: Setting, before: Pot, after: Pot) -> Words:
    name = setting.ingredient(step.ingredient).spoken_name
    return _told("infuse", name=name, minutes=step.minutes)


@words_of.register
def _(step: Strain, setting: Setting, before: Pot, after: Pot) -> Words:
    food = after.lifted[len(before.lifted) :]
    keys = {piece.key for piece in food}
    out = _names(piece.name for piece in before.pieces if piece.key not in keys)
    told = _told(
        "strain-and-keep" if food else "strain",
        held_g=before.balance.mass_g - after.balance.mass_g,
        kept=_names(piece.name for piece in food),
        kept_g=sum(piece.mass_g for piece in food),
    )
    return Words(say("strain.out", names=out), told.do, told.cue) if out else told


@words_of.register
def _(step: Lift, setting: Setting, before: Pot, after: Pot) -> Words:
    out = after.lifted[len(before.lifted) :]
    told = _told("lift", kept_g=sum(piece.mass_g for piece in out))
    if not out:
        return told
    names = _names(piece.name for piece in out)
    return Words(say("lift.out", names=names), told.do, told.cue)


@words_of.register
def _(step: Correct, setting: Setting, before: Pot, after: Pot) -> Words:
    held, rows = step.held_back(setting, before), step.rows(setting)
    doses = (held.expected_g, held.most_g) if held else (0.0, 0.0)
    expected, most = (step.told(rows[-1], grams) for grams in doses)
    names = {"liquid": rows[0].spoken_name, "fat": rows[0].spoken_name}
    return _told(
        f"correct-{step.hold}",
        expected=expected,
        most=most,
        flour=rows[-1].spoken_name,
        **names,
    )


@words_of.register
def _(step: Liaison, setting: Setting, before: Pot, after: Pot) -> Words:
    lines = tuple(
        say(
            "liaison.ladle",
            much=ladled(ladle.sauce_ml, setting.kitchen.measures),
            at_c=ladle.temperature_c,
        )
        for ladle in step.ladles(setting, before)
    )
    yolk, cream = (
        setting.ingredient(part.ingredient).spoken_name for part in (step.yolk, step.cream)
    )
    do = say("liaison.do", yolk=yolk, cream=cream)
    if step.heat_to_c is not None:
        do = say("liaison.do-and-warm", do=do, to_c=step.heat_to_c)
    bound = before.flour_g_per_l >= K.LIAISON_FLOUR_G_PER_L
    cue = say("liaison.may-simmer" if bound else "liaison.must-not-boil")
    return Words(say("liaison.title"), do, cue, lines)


@words_of.register
def _(step: Mount, setting: Setting, before: Pot, after: Pot) -> Words:
    name = setting.ingredient(step.ingredient).spoken_name
    return _told("mount", name=name, max_c=K.MOUNT_MAX_C)


@words_of.register
def _(step: Finish, setting: Setting, before: Pot, after: Pot) -> Words:
    name = setting.ingredient(step.ingredient).spoken_name
    return _told("finish", name=name, max_c=K.SOFT_CREAM_MAX_C, at_c=after.temperature_c)


@words_of.register
def _(step: Blend, setting: Setting, before: Pot, after: Pot) -> Words:
    told = _told("blend")
    title, do, pieces = told.title, told.do, say("blend.pieces")
    if step.ingredient:
        name = setting.ingredient(step.ingredient).spoken_name
        title, pieces = say("blend.the", name=name), say("blend.name", name=name)
    if step.keep_share:
        do = say("blend.keep-and", keep_pct=100 * step.keep_share, pieces=pieces, do=do)
    return Words(title, do, told.cue)


@words_of.register
def _(step: Mend, setting: Setting, before: Pot, after: Pot) -> Words:
    return _told("mend", name=setting.ingredient(step.ingredient).spoken_name)


@words_of.register
def _(step: Cool, setting: Setting, before: Pot, after: Pot) -> Words:
    sets = before.balance.thickener and step.to_c < K.SETS_BELOW_C
    return _told("cool-and-set" if sets else "cool", to_c=step.to_c)


@words_of.register
def _(step: Hold, setting: Setting, before: Pot, after: Pot) -> Words:
    return _told(
        "hold" if step.covered else "hold-uncovered",
        at_c=step.temperature_c,
        minutes=step.minutes,
        dries_g=before.total_g - after.total_g,
    )


@words_of.register
def _(step: Reheat, setting: Setting, before: Pot, after: Pot) -> Words:
    return _told("reheat", to_c=step.to_c)


@words_of.register
def _(step: Melt, setting: Setting, before: Pot, after: Pot) -> Words:
    return _told(
        f"melt-{step.heat}",
        name=setting.ingredient(step.ingredient).short_name,
        max_c=K.CHEESE_MAX_C,
        brings_g=after.balance.salt - before.balance.salt,
    )


@words_of.register
def _(step: Start, setting: Setting, before: Pot, after: Pot) -> Words:
    return _told("start")


@words_of.register
def _(step: Deglaze, setting: Setting, before: Pot, after: Pot) -> Words:
    row = setting.ingredient(step.ingredient)
    burns = row.per_gram.alcohol > K.POURED_WITH_CARE
    return _told("deglaze-with-spirit" if burns else "deglaze", name=row.spoken_name)


@words_of.register
def _(step: Flame, setting: Setting, before: Pot, after: Pot) -> Words:
    return _told("flame", left_g=after.balance.alcohol)


@words_of.register
def _(step: Sear, setting: Setting, before: Pot, after: Pot) -> Words:
    rounds = step.rounds(setting)
    return _told(
        "sear-in-rounds" if rounds > 1 else "sear",
        name=setting.ingredient(step.ingredient).spoken_name,
        rounds=rounds,
        minutes=step.minutes,
        fat_g=after.balance.fat,
    )


@words_of.register
def _(step: Return, setting: Setting, before: Pot, after: Pot) -> Words:
    juice_g = max(0.0, after.balance.mass_g - before.balance.mass_g)
    return _told("return", name=setting.ingredient(step.ingredient).short_name, juice_g=juice_g)


@words_of.register
def _(step: Reduce, setting: Setting, before: Pot, after: Pot) -> Words:
    left_g, pan, stop = after.total_g, setting.stove.pan, step.stop
    tare_g = pan.tare_g if pan else 0.0
    weigh = say("reduce.left", left_g=left_g)
    if tare_g:
        weigh = say("reduce.left-with-pan", left_g=left_g, scale_g=tare_g + left_g)
    if stop is None:
        return _told("reduce-nearly-dry", left_g=left_g)
    cue = say("reduce.cue", ml=after.total_ml)
    if pan:
        cue = say("reduce.cue-in-pan", ml=after.total_ml, level_mm=pan.level_mm(after.total_ml))
    if turns := _where_it_turns(before, after, tare_g):
        cue = say("reduce.watch-it", cue=cue, turns=turns)
    facts: dict[str, object] = {"weigh": weigh}
    if stop.grade is not None:
        told = _told("reduce-to-grade", grade=spoken_grade(stop.grade), **facts)
        return Words(told.title, told.do, cue)
    if stop.taste is not None:
        strong = before.balance.liquid_g / max(after.balance.liquid_g, 1e-9)
        told = _told("reduce-to-taste", strong=strong, **facts)
        return Words(told.title, told.do, cue)
    if stop.minutes is not None:
        do = say("reduce.for-minutes", minutes=stop.minutes, **facts)
    elif stop.share is not None:
        said = spoken_share(stop.share)
        eye = say(f"share-{said}") if said else None
        do = say(
            "reduce.by-eye" if eye else "reduce.to-share",
            said=eye,
            share_pct=100 * stop.share,
            **facts,
        )
    else:
        do = say("reduce.do", **facts)
    return Words(say("reduce.title"), do, cue)


def _where_it_turns(before: Pot, after: Pot, tare_g: float) -> Sentence | None:
    """How far a cream can go, where it comes anywhere near: as the scale reads, with the pan on
    it where its ``tare_g`` is known."""
    balance = after.balance
    if balance.fat < 0.2 * balance.mass_g or before.balance.fat <= 0.0 or not balance.creamy:
        return None
    rich, oily = (
        mass_at_fat_share(balance, share) + after.pieces_g + tare_g
        for share in (K.EMULSION_CAUTION, K.EMULSION_OILY)
    )
    return say("reduce.turns-with-pan" if tare_g else "reduce.turns", rich_g=rich, oily_g=oily)


@words_of.register
def _(step: Roux, setting: Setting, before: Pot, after: Pot) -> Words:
    facts = {
        "fat": setting.ingredient(step.fat.ingredient, "fat").spoken_name,
        "flour": setting.ingredient(step.flour.ingredient, "flour").spoken_name,
    }
    colour = f"roux-{step.colour}"
    if before.wetted:
        return Words(say(f"{colour}.in"), say("roux-ready.do", **facts), say("roux-ready.cue"))
    do = say("roux-raw.do" if step.colour == "raw" else "roux.do", **facts)
    return Words(say(f"{colour}.title"), do, say(f"{colour}.cue"))


@words_of.register
def _(step: Season, setting: Setting, before: Pot, after: Pot) -> Words:
    if not step.to_target:
        return _told("season", name=setting.ingredient(step.ingredient).spoken_name)
    needed = step.weighed_after(setting, before, after)
    return _told("salt" if needed else "salt-enough", salt_pct=salt_pct(after.balance))


@words_of.register
def _(step: Use, setting: Setting, before: Pot, after: Pot) -> Words:
    name, weighed = said(step.sauce.name), step.to_weigh(setting)[0]
    told = _told("use", name=name, grams=weighed.grams)
    if step.ready and step.temperature_c is not None and step.temperature_c <= K.CHILLED_BELOW_C:
        return _told("use-cold", name=name, grams=weighed.grams)
    if step.ready:
        return Words(told.title, say("use.do-ready", name=name, grams=weighed.grams), told.cue)
    if not isinstance(step.amount, ShareOfIt):
        return told
    share_pct = 100 * step.amount.share
    code = "use.do-all" if share_pct == 100 else "use.do-share"
    do = say(code, name=name, grams=weighed.grams, share_pct=share_pct)
    return Words(told.title, do, told.cue)


@words_of.register
def _(step: Reserve, setting: Setting, before: Pot, after: Pot) -> Words:
    why = say(f"reserve.for-{step.purpose}")
    return _told("reserve", out_g=before.total_g - after.total_g, why=why)


@words_of.register
def _(step: Simmer, setting: Setting, before: Pot, after: Pot) -> Words:
    return _told(
        "simmer-floured" if before.balance.flour else "simmer",
        minutes=step.minutes,
        how=say(f"simmer.at-{step.heat}"),
        lost_g=before.total_g - after.total_g,
    )
