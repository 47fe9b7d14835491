"""How long a finished sauce keeps, cooled in time and chilled: the usual cautions, never the law."""

from dataclasses import dataclass

from saucier import constants as K
from saucier.pot import Pot
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class Keeps:
    """``days`` it keeps chilled (0: it is for the service it was made for), and why in words."""

    days: int
    words: Sentence


def keeps(pot: Pot, days: int = K.CHILLED_DAYS, read_c: float | None = None) -> Keeps:
    """How long ``pot`` keeps by the usual cautions (docs/model.md 6): so many ``days`` as the rules in force
    give what was cooled in time; until the next day where
    yolk is bound by flour and was simmered; not at all where yolk stands without flour or was not heated
    through, or with soft cream or mounted butter in it. ``read_c``: the hottest a probe read it since the yolk
    went in (None: nobody read it). One too cold wins over what the sheet says; one hot enough lengthens nothing.
    Local rules and the kitchen's own plan come first.

    >>> from saucier.check import check
    >>> from saucier.testing import add, roux, sheet, simmer
    >>> keeps(check(sheet(roux(60, 60), add("milk-whole", 1, "L"), simmer(5))).final.pot).days
    2
    """
    if made_for_its_service(pot):
        return Keeps(0, say("keeps.for-its-service"))
    if pot.balance.yolk_protein > 0.0:
        if read_c is not None and read_c < K.YOLK_COOKED_C:
            return Keeps(0, say("keeps.yolk-read", read_c=read_c, to_c=K.YOLK_COOKED_C))
        return Keeps(min(1, days), say("keeps.until-tomorrow"))
    if days == 0:
        return Keeps(0, say("keeps.for-its-service"))
    code = "keeps.chilled-with-butter" if "mounted" in pot.delicate else "keeps.chilled"
    return Keeps(days, say(code, days=days))


def made_for_its_service(pot: Pot) -> bool:
    """Whether ``pot`` neither waits nor keeps: soft cream without starch, butter that nothing else holds, yolk
    without flour or not heated through."""
    yolk = pot.balance.yolk_protein > 0.0
    protected = {"soft-cream"} if pot.starch_holds else set[str]()
    return bool((pot.delicate & _FOR_ITS_SERVICE) - protected) or (
        yolk and (pot.hottest_c < K.YOLK_COOKED_C or not pot.starch_holds)
    )


def freezing(pot: Pot) -> Sentence:
    """What freezing does to ``pot``, and what to take another time: flour weeps, yolk and soft cream break, a
    cream that was boiled down may turn, a lean liquor stands it.

    >>> from saucier.check import check
    >>> from saucier.testing import add, roux, sheet, simmer
    >>> freezing(check(sheet(roux(60, 60), add("milk-whole", 1, "L"), simmer(5))).final.pot).code
    'freezing.weeps'
    """
    if pot.delicate & _BREAKS_FROZEN or pot.balance.yolk_protein > 0.0:
        return say("freezing.breaks")
    if pot.balance.creamy and pot.balance.fat > K.RICH_TO_FREEZE * pot.balance.mass_g:
        return say("freezing.may-turn")
    if pot.balance.thickener > 0.0:
        return say("freezing.weeps")
    return say("freezing.stands-it")


_FOR_ITS_SERVICE = frozenset({"mounted-bare", "soft-cream", "liaison"})
_BREAKS_FROZEN = frozenset({"mounted", "mounted-bare", "soft-cream"})
