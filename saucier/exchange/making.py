"""Steps made of a recipe's lines, in the order its method tells them."""

import re
from collections.abc import Sequence
from dataclasses import replace
from typing import Any

from saucier import constants as K
from saucier.exchange.drafts import Draft, Made, Portion
from saucier.exchange.lines import ReadLine
from saucier.exchange.mentions import Mention, Take, folded, loose_amounts, mentions_in
from saucier.exchange.sentences import Clause
from saucier.exchange.telling import FALLS, LIQUIDS, Telling
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient
from saucier.words import say

_TIMED = ("sweat", "roux", "dust", "infuse")
_STEEPED = ("bay-leaf", "clove", "peppercorns", "mushroom-dried")
"""Whole spice: it gives its taste to the liquid and is taken out, not stirred in last."""
_USUAL_ROUX_MIN = 2.0
_STARCH_POWER = 1.5
"""Flours stronger than this are stirred in as a slurry, never cooked as a roux."""
_SWEATS = ("aromatic", "vegetable")
_IF = re.compile(r"^\W*if\b", re.IGNORECASE)
_ON_TOP = re.compile(r"\b(?:garnish|scatter|sprinkle|top with|on top)", re.IGNORECASE)
"""Said of what goes over the dish, not into its sauce."""
_NEXT_PAN = re.compile(
    r"\b(?:second|another|separate|clean|other|fresh|new|different) (?:\w+ ){0,2}(?:sauce)?pan\b",
    re.IGNORECASE,
)
_PREPARED = re.compile(
    r"^\W*(?:then |now |first |and |finely |thinly |roughly |coarsely )*(?:chop|slice|dice|crush|grate|mince|peel|shred|trim)\b",
    re.IGNORECASE,
)
"""Done to food before it goes into the pan."""
_THIS_IN = re.compile(r"\b(?:this|it|that) (?:in|into)\b", re.IGNORECASE)
_RETURNED = re.compile(r"^\W*(?:return|put)\b", re.IGNORECASE)
_OF_IT = re.compile(r"\b(\d[\d.,/]* ?(?:k?g|[mcd]?l)) of (?:it|this|that)\b", re.IGNORECASE)
_SLURRY = re.compile(r"\b(?:paste|slurry|slaked|mixture)\b", re.IGNORECASE)
_FISHED = ("herb", "spice", "seasoning")
"""Kinds that may be taken out again, their taste given."""
_SWEAT_HERBS = ("garlic", "ginger-fresh", "chilli-fresh")


class _Side:
    """A liquid warmed or steeped in a pan of its own before it goes in."""

    def __init__(self) -> None:
        self.liquids: list[Portion] = []
        self.steeped: list[tuple[Portion, Ingredient]] = []
        self.minutes: float | None = None


def made_of(
    lines: Sequence[ReadLine],
    clauses: Sequence[Clause],
    kitchen: Kitchen,
    beside: frozenset[int],
    *,
    given: int,
) -> Made:
    """The steps that ``clauses`` tell of ``lines``; those ``beside`` the sauce stay out of it. The
    first ``given`` lines are the recipe's list; where it has none, they are found in the telling."""
    walk = _Walk(lines, kitchen, beside, given)
    walk.beside -= _blended(clauses, lines, kitchen) - beside
    for clause in clauses:
        walk.take(clause)
    return walk.finished(told=bool(clauses))


def _blended(clauses: Sequence[Clause], lines: Sequence[ReadLine], kitchen: Kitchen) -> set[int]:
    """Vegetables that are cooked in the pot and blended with it: sauce, not food beside it."""
    last = max((n for n, clause in enumerate(clauses) if clause.act == "blend"), default=0)
    drained = {
        n - back
        for n, clause in enumerate(clauses)
        if clause.act == "elsewhere" and _says(clause.text, "drain")
        for back in (1, 2)
    }
    return {
        n
        for number, clause in enumerate(clauses[:last])
        if number not in drained
        and not _says(clause.text, "salted water")
        and clause.act in ("add", "sweat", "cook", "simmer")
        for mention in mentions_in(clause.text, lines, kitchen)
        for n in mention.lines
        if kitchen.larder[mention.key].role == "solid" and kitchen.larder[mention.key].falls_share
    }


class _Walk(Telling):
    """The method played through: what is in the pan, what waits beside it, which step is timed."""

    def __init__(
        self, lines: Sequence[ReadLine], kitchen: Kitchen, beside: frozenset[int], given: int
    ) -> None:
        super().__init__(lines, kitchen, beside, given)
        self.fats: list[Portion] = []
        self.flour: Portion | None = None
        self.slurry: list[Portion] = []
        """Starch mixed with a liquid beforehand: it waits until it is whisked in."""
        self.others: set[int] = set()
        """Lines told of another pot only: they stay there unless the sauce takes them up."""
        self.side: _Side | None = None
        self.timed: list[Draft] = []
        self.used: set[int] = set()
        self.sentence, self.elsewhere, self.off, self.poured = -1, False, False, False
        self.before: list[Mention] = []
        self.spoken_of: list[int] = []
        """Lines of the last clause that named any: what "it" is."""
        self.prepared = False
        """Whether something was just chopped, and may be fried next."""
        self.boiled = False
        """Whether pieces go in together with a liquid, and no fat: they are boiled, not sweated."""

    # What is in the pan.

    @property
    def _floured(self) -> bool:
        return any(
            d.op in ("roux", "dust") or (d.of and d.of.role == "flour")
            for d in (*self.around, *self.drafts)
        )

    # A clause.

    def take(self, clause: Clause) -> None:
        if clause.sentence != self.sentence:
            self.sentence, self.elsewhere, self.off = clause.sentence, False, False
            self.before, self.maybe = [], bool(_IF.match(clause.text))
        self.off = self.off or clause.off_heat or clause.rests
        if _NEXT_PAN.search(clause.text) or self._roux_begins(clause):
            self._aside()
        if _says(clause.text, "pour") and _says(clause.text, " over"):
            self.poured = True
        named = self.named(clause)
        if self.maybe:  # "if it is too thick, …": what is done then is not done now
            return
        if not self.listed and self.spoken_of and (of_it := _OF_IT.search(clause.text)):
            self.amount_of(self.spoken_of[-1], of_it[1])
        self.spoken_of = [n for mention in named for n in mention.lines] or self.spoken_of
        measured = clause.stop is not None and clause.stop.measured
        if clause.act not in ("elsewhere", "over", "poach") and not measured:
            loose = loose_amounts(clause.text, self.kitchen)
            if self.listed:
                # What a paragraph begins with may be a line of the list.
                first = [one for one in loose if folded(clause.text).startswith(one)]
                self.ask_of(first)
                self.assumed += [
                    say("assumed.unused-amount", shown=one) for one in loose if one not in first
                ]
            elif not self.belongs(loose, named):
                self.ask_of(loose)
        pieces = any(self._row(n).role in _SWEATS for m in named for n in m.lines)
        if clause.act == "sweat" and not pieces and self.prepared:
            named = [*(m for m in self.before if not self._all_placed(m)), *named]
        self.prepared = clause.act == "elsewhere" and bool(_PREPARED.match(clause.text))
        if self._of_another_pot(clause, named):
            self.elsewhere = True
            if clause.act == "over" or not self.listed:
                self.others |= {n for mention in named for n in mention.lines}
            self.before = [*self.before, *named] if clause.act == "elsewhere" else []
            return
        if _says(clause.text, " them", " it ", " these", " this") and self.before:
            waiting = [m for m in self.before if not self._all_placed(m)]
            named = [*waiting, *(m for m in named if m.key not in {w.key for w in waiting})]
        self.before = named
        was = len(self.drafts), len(self.fats), self.side is not None
        if self._did(clause, named) or was != (
            len(self.drafts),
            len(self.fats),
            self.side is not None,
        ):
            self.used.add(clause.sentence)

    def _of_another_pot(self, clause: Clause, named: list[Mention]) -> bool:
        """Whether the clause is about food that is cooked beside the sauce."""
        if clause.act in ("simmer", "reduce", "cook") and _says(clause.text, " back in"):
            return False
        if clause.act == "add" and _RETURNED.match(clause.text):
            return False  # food goes back into the sauce, and what follows is said of it
        if clause.act == "poach":  # what it is poached in may be the sauce's liquor
            return not self._liquids(named) or self.wet
        sauce = [m for m in named if not all(n in self.beside for n in m.lines)]
        if clause.act == "elsewhere" or (clause.act == "over" and _ON_TOP.search(clause.text)):
            return True
        if self.poured or _says(clause.text, "salted water", "oven", " tray", " dish ", "packet"):
            return not (sauce and clause.act in ("mount", "melt"))
        if sauce:
            self.elsewhere = False
            return False
        if named or _says(clause.text, *_OTHER_FOOD):
            return True
        return self.elsewhere

    def _did(self, clause: Clause, named: list[Mention]) -> bool:
        """Does what the clause says; True where something was taken from it beyond new steps."""
        act, minutes = clause.act, clause.minutes
        if clause.shown:
            self.assumed.append(say("assumed.range", shown=clause.shown))
        if act in ("infuse", "poach") or (
            act == "melt" and not self.wet and self._liquids(named) and not self.fats
        ):
            return self._steeps(clause, named)
        if act == "strain":
            return self._strains()
        if act == "blend" and self._pieces():
            self._put(Draft("blend"))
            return True
        if act == "flame":
            self._all(named, clause)
            self._put(Draft("flame"))
            return True
        if act == "season" or _says(clause.text, "salt it", "for salt", "season"):
            self.tasted = (
                self.tasted or not named or any(self._row(m.lines[0]).role == "salt" for m in named)
            )
            self._all(named, clause)
            return True
        if act == "out":
            return self._takes_out(named)
        self._all(named, clause)
        if clause.colour and (
            roux := next((d for d in reversed(self.drafts) if d.op in ("roux", "dust")), None)
        ):
            roux.rest.setdefault("colour", clause.colour)
        if clause.stop is not None and not (clause.stop.by_look and self._floured):
            return self._reduces(clause)
        of_roux = _says(clause.text, "roux") and not any(
            d.op in ("roux", "dust") for d in self.timed
        )
        return self._lasts(minutes, clause) if minutes is not None and not of_roux else False

    def _all(self, named: list[Mention], clause: Clause) -> None:
        """Puts in everything ``named``: yolks with cream as a liaison, flour with fat as a roux,
        starch with its water as a slurry."""
        todo = [(n, m.take) for m in named for n in m.lines if not self._is_placed(n, m.take)]
        todo = [(n, take) for n, take in dict(todo).items() if n not in self.beside]
        rows = {n: self._row(n) for n, _ in todo}
        if self._slaked(clause, todo, rows):
            return
        if self.side is not None and clause.act not in ("melt", "infuse"):
            warm = {portion.line for portion in self.side.liquids}
            if warm & {n for m in named for n in m.lines}:
                self._flush_side()
                self.timed = []
        held = {p.line for p in self.slurry if self._row(p.line).per_gram.thickener > _STARCH_POWER}
        again = not named and clause.act in ("add", "mix", "mount")
        again = again or bool(_THIS_IN.search(clause.text))
        if held and (
            again or held & {n for m in named for n in m.lines} or _SLURRY.search(clause.text)
        ):
            self._flush_slurry()
            todo = [one for one in todo if one[0] not in held]
        whisked = _says(clause.text, "whisk", "beat", "mix")
        if self._liaison(todo, rows, ("cream", "milk", "soft-cream") if whisked else ("cream",)):
            todo = [one for one in todo if one[0] not in self.placed]
        roux = _says(clause.text, "roux")
        if (
            self.wet
            and not roux
            and not self.fats
            and {"fat", "flour"} <= {r.role for r in rows.values()}
        ):
            clause = replace(clause, act="mix")  # worked together and whisked in: beurre manié
        pieces = any(row.role in _SWEATS for row in rows.values())
        poured = any(row.role in (*LIQUIDS, "wine") for row in rows.values())
        fatty = any(row.role == "fat" for row in rows.values()) or self.fats or self._dry_pan()
        self.boiled = clause.act == "add" and poured and not fatty
        if any(row.role == "flour" for row in rows.values()) and (roux or not pieces):
            # Said either way round, fat comes before flour, and a slurry's water before its starch.
            todo.sort(key=lambda one: {"fat": 0, "water": 0, "flour": 1}.get(rows[one[0]].role, 2))
        elif clause.act in ("simmer", "infuse"):  # food simmered in milk: the milk is there first
            todo.sort(key=lambda one: rows[one[0]].role not in LIQUIDS)
        elif clause.act in ("sweat", "cook") or not self.wet:
            todo.sort(key=lambda one: rows[one[0]].role != "fat")
        fresh: list[Draft] = []
        made_here = clause.act in ("mix", "cook") or clause.minutes is not None
        ready = self.wet and not self.fats and not (roux and made_here)
        for number, take in todo:
            fresh += self._place(Portion(number, take), rows[number], clause)
        if fresh:
            if (
                any(d.op == "roux" for d in fresh) and ready
            ):  # a ready roux: what follows is a simmer
                self.timed = []
                return
            placed = [d for d in fresh if d.rank and d.op != "season"] or fresh
            dry = not any(d.of is not None and d.of.role in (*LIQUIDS, "wine") for d in fresh)
            if all(d.op == "season" for d in fresh) and self.timed and self.timed[-1].op in _TIMED:
                return  # a pinch of salt on the mushrooms: the minutes told next are theirs
            last = next((d for d in reversed(placed) if dry and d.op in _TIMED), placed[-1])
            self.timed = [d for d in fresh if d.op == last.op] if last.op == "sweat" else [last]

    def _slaked(
        self, clause: Clause, todo: list[tuple[int, Take]], rows: dict[int, Ingredient]
    ) -> bool:
        """Whether a starch is mixed with something cold before there is a pot to put it in."""
        starch = any(row.per_gram.thickener > _STARCH_POWER for row in rows.values())
        cold = (*LIQUIDS, "soft-cream")
        wet = all(
            row.per_gram.thickener > _STARCH_POWER or row.role in cold for row in rows.values()
        )
        if not starch or not wet or clause.act not in ("mix", "add"):
            return False
        if (self.drafts or self.fats) and (clause.act == "add" or len(rows) < 2):
            return False
        if clause.act == "add" and not _SLURRY.search(clause.text):
            return False
        for number, take in todo:
            portion = Portion(number, take)
            self._claim(portion)
            self.slurry.append(portion)
        return True

    def _flush_slurry(self) -> None:
        starch = {portion: self._row(portion.line).per_gram.thickener for portion in self.slurry}
        slurry, self.slurry = sorted(self.slurry, key=starch.__getitem__), []
        if slurry:
            self._flush_side()
            self._flush_fats()
        for portion in slurry:
            self._one("add", portion, self._row(portion.line), claim=False)

    def _liaison(
        self,
        todo: list[tuple[int, Take]],
        rows: dict[int, Ingredient],
        roles: tuple[str, ...] = ("cream",),
    ) -> bool:
        """Yolk and what it is whisked with, of ``roles`` in that order, as one step."""
        yolks = [(n, t) for n, t in todo if rows[n].per_gram.yolk_protein]
        creams = [(n, t) for role in roles for n, t in todo if rows[n].role == role]
        if not (yolks and creams):
            return False
        yolk, cream = Portion(*yolks[0]), Portion(*creams[0])
        self._put(Draft("liaison", {"yolk": yolk, "cream": cream}, of=rows[yolk.line]))
        self.timed = []
        return True

    def _place(self, portion: Portion, row: Ingredient, clause: Clause | None) -> list[Draft]:
        """Puts ``portion`` of ``row`` into the pot as the step it is by its kind and by what is
        there already; the steps that came of it."""
        act = clause.act if clause else None
        count = len(self.drafts)
        role = row.role
        if role == "fat":
            roux = clause is not None and _says(clause.text, "roux")
            if self.wet and not roux and act in ("mount", "add", "mix", None):
                kneaded = act == "mix" or row.key.startswith("oil")
                self._one("add" if kneaded else "mount", portion, row)
            else:
                self._claim(portion)
                self.fats.append(portion)
                if self.flour is not None:
                    flour, self.flour = self.flour, None
                    self._flour(flour, self._row(flour.line), act, roux=True)
        elif role == "flour":
            self._flour(portion, row, act, roux=clause is not None and _says(clause.text, "roux"))
        elif row.falls_share >= FALLS:
            self._flush_fats()
            self._one("add", portion, row)
        elif role in _SWEATS or row.key in _SWEAT_HERBS:
            if (
                self.wet
                or self.boiled
                or act in ("reduce", "simmer")
                or (clause is None and not self.fats and not self._dry_pan())
            ):
                self._one("add", portion, row)
            else:
                self._flush_fats()
                self._one("sweat", portion, row)
        elif role in ("wine", "spirit"):
            self._flush_fats()
            self._one("deglaze" if self.drafts else "add", portion, row)
        elif role in LIQUIDS:
            self._liquid(portion, row)
        elif role == "puree" and not self.off:
            self._flush_fats()
            self._one("add", portion, row)
        elif role == "cheese":
            self._flush_side()
            self._one("melt", portion, row)
        elif role == "soft-cream":
            self._one("add" if act in ("simmer", "reduce") else "finish", portion, row)
        elif role == "herb" and (row.key in _STEEPED or act == "infuse"):
            if self.side is not None:
                self._claim(portion)
                self.side.steeped.append((portion, row))
            else:
                self._one("infuse", portion, row)
                if clause is not None:
                    self.timed = self.drafts[-1:]
        elif role == "herb":
            early = act in ("reduce", "simmer", "sweat") or (clause is not None and not self.wet)
            self._one("add" if early else "finish", portion, row)
        elif (role == "seasoning" and (row.key == "tomato-paste" or not self.wet)) or (
            role == "acid" and not self.wet
        ):
            self._flush_fats()
            self._one("add", portion, row)
        elif role in ("seasoning", "acid", "spice", "salt"):
            if self.lines[portion.line].amount is None and role in ("spice", "salt"):
                self._claim(portion)  # by tongue: nothing to weigh
                self.tasted = self.tasted or role == "salt"
            else:
                off = clause is not None and clause.off_heat
                self._one("finish" if off and role == "seasoning" else "season", portion, row)
        else:
            self._one("finish", portion, row)
        return self.drafts[count:]

    def _flour(self, portion: Portion, row: Ingredient, act: str | None, *, roux: bool) -> None:
        if row.per_gram.thickener > _STARCH_POWER:
            after = (
                portion.line + 1
            )  # "1 tbsp starch mixed with 1 tbsp water" is two lines of the list
            if after in self._open() and self._row(after).role == "water":
                self._one("add", Portion(after), self._row(after))
            self._one("add", portion, row)
        elif self.wet and act == "mix" and not roux:
            self._flush_fats()
            self._one("add", portion, row)
        elif self.fats:
            fat, *others = self.fats
            self.fats = []
            self._claim(portion)
            self._put(Draft("roux", {"fat": fat, "flour": portion}, of=None))
            for more in others:
                self._one("add", more, self._row(more.line), claim=False)
        elif self.drafts or self.around:
            self._one("dust", portion, row)
        else:  # named before its fat: a roux all the same
            self._claim(portion)
            self.flour = portion

    def _liquid(self, portion: Portion, row: Ingredient) -> None:
        side = self.side
        if side is not None and portion.line in {one.line for one in side.liquids}:
            self._flush_side()
            return
        self._flush_fats()
        self._one("add", portion, row)

    def _steeps(self, clause: Clause, named: list[Mention]) -> bool:
        """A liquid warmed in a pan of its own, with what is steeped in it."""
        if self.side is None and self.wet:
            self._all(named, clause)
            for draft in reversed(self.drafts):
                if draft.op != "infuse":
                    break
                if clause.minutes is not None:
                    draft.rest.setdefault("minutes", clause.minutes)
            return True
        side = self.side = self.side or _Side()
        for mention in named:
            for number in mention.lines:
                if self._is_placed(number, mention.take) or number in self.beside:
                    continue
                portion, row = Portion(number, mention.take), self._row(number)
                self._claim(portion)
                if (row.wet and not row.piece) or row.role == "fat":
                    side.liquids.append(portion)
                else:
                    side.steeped.append((portion, row))
        if clause.minutes is not None and clause.act != "poach":
            side.minutes = clause.minutes
        return True

    def _roux_begins(self, clause: Clause) -> bool:
        """Whether fat is melted for a roux, or oil heated: never in the milk that was warmed before."""
        if clause.act not in ("melt", "mix") or not self.drafts:
            return False
        named = {n for m in mentions_in(clause.text, self.lines, self.kitchen) for n in m.lines}
        fat = any(self._row(n).role == "fat" and n not in self.placed for n in named)
        fresh = clause.act == "melt" and bool(
            re.search(r"\b(?:a|your|the) (?:\w+ )?\w*pan\b", clause.text)
        )
        return fat and (fresh or any(self._row(n).role == "flour" for n in self._open()))

    def _aside(self) -> None:
        """Another pan is taken: a liquid that stands warm so far waits beside it."""
        if self.drafts and self.drafts[-1].op == "strain":
            self.drafts.pop()
        plain = all(d.op in ("add", "infuse", "season") and d.of is not None for d in self.drafts)
        milk = any(d.of is not None and d.of.role in ("milk", "stock") for d in self.drafts)
        if not (self.drafts and plain and milk) or self.fats or self.side is not None:
            return
        side = self.side = _Side()
        for draft in self.drafts:
            assert draft.of is not None
            portion = draft.portions[""]
            if draft.of.wet and not draft.of.piece:
                side.liquids.append(portion)
            else:
                side.steeped.append((portion, draft.of))
                side.minutes = draft.rest.get("minutes", side.minutes)
        self.drafts = []

    def _flush_side(self) -> None:
        """What was warmed apart goes in: as a pot of its own where something was steeped in it."""
        side, self.side = self.side, None
        if side is None or not side.liquids:
            return
        self._flush_fats()
        poured = [Draft("add", {"": one}, of=self._row(one.line)) for one in side.liquids]
        if not side.steeped:
            self.drafts += poured
            return
        minutes = side.minutes
        if minutes is None:
            minutes = K.USUAL_STEEP_MIN
            lines = ", ".join(self.lines[one.line].text for one, _ in side.steeped)
            self.assumed.append(say("assumed.steep", line=lines, minutes=minutes))
        steeped = [
            Draft("infuse", {"": one}, {"minutes": minutes if n == 0 else 1.0}, row)
            for n, (one, row) in enumerate(side.steeped)
        ]
        inside = [*poured, *steeped, Draft("strain")]
        self.drafts.append(Draft("use", inside=inside))

    def _takes_out(self, named: list[Mention]) -> bool:
        """What is fished out again has only given its taste."""
        out = {n for mention in named for n in mention.lines}
        gone = [
            d
            for d in self.drafts
            if d.op in ("add", "finish", "season", "infuse")
            and d.of is not None
            and (d.of.piece or d.of.role in _FISHED)
            and "" in d.portions
            and d.portions[""].line in out
        ]
        if not gone:
            return False
        for draft in gone:
            after = self.drafts[self.drafts.index(draft) + 1 :]
            cooked = sum(d.rest.get("minutes", 0.0) for d in after if d.op == "simmer")
            if draft.op != "infuse" and cooked:
                draft.rest = {"minutes": min(cooked, 60.0)}
            draft.op = "infuse"
        if all(draft in gone for draft in self.drafts if draft.of is not None and draft.of.piece):
            self._put(Draft("strain"))
        return True

    def _strains(self) -> bool:
        if self.side is not None and self.side.liquids:
            return True
        if not self._pieces():
            return False
        self._put(Draft("strain"))
        return True

    def _reduces(self, clause: Clause) -> bool:
        assert clause.stop is not None
        self._flush_side()
        step: dict[str, Any] = {"to": clause.stop.to}
        if clause.stop.minutes is not None:
            step["minutes"] = clause.stop.minutes
        if clause.heat:
            step["heat"] = clause.heat
        self._put(Draft("reduce", rest=step))
        self.timed = []
        return True

    def _lasts(self, minutes: float, clause: Clause) -> bool:
        """Minutes said of what was last put in, or of the simmering pot."""
        side = self.side
        empty = not self.drafts and not self.fats
        if side is not None and side.steeped and side.minutes is None and empty:
            side.minutes = minutes
            return True
        waiting = [
            d
            for d in self.timed
            if d.op in _TIMED
            and "minutes" not in d.rest
            and not (d.op == "infuse" and clause.act == "simmer")
        ]
        if waiting:
            for draft in waiting:
                draft.rest["minutes"] = min(minutes, 60.0)
            return True
        if not self.wet and self.side is not None:
            self._flush_side()
        if self.flour is not None:  # said of a roux whose fat is still open
            return False
        if self.off and self.wet:  # it stands, or steeps
            return self._stands(minutes)
        if clause.rests:
            return True
        last = self.drafts[-1].of if self.drafts else None
        # Paste turned in the fat, herbs that crisp in it.
        fried = last is not None and last.role in ("seasoning", "herb") and not self.wet
        if not self.wet and self.drafts and (fried or not self._unplaced_liquid()):
            return fried
        if not self.wet and not self.drafts and clause.act not in ("simmer", "reduce"):
            return False  # said of food that is browned first, or of what is still to settle
        at = {"heat": clause.heat} if clause.heat else {}
        self._put(Draft("simmer", rest={"minutes": min(minutes, 240.0), **at}))
        self.timed = []
        return True

    def _stands(self, minutes: float) -> bool:
        """Minutes off the heat: aromatics just put in steep in it; else nothing is made of them."""
        last = self.drafts[-1]
        if last.of is None or not last.of.piece or last.op not in ("add", "finish"):
            return False
        last.op, last.rest = "infuse", {"minutes": minutes}
        return True

    # Small ones.

    def _put(self, draft: Draft) -> None:
        for portion in draft.portions.values():
            if portion not in self.placed.get(portion.line, []):
                self._claim(portion)
        self.drafts.append(draft)

    def _one(self, op: str, portion: Portion, row: Ingredient, *, claim: bool = True) -> None:
        if claim:
            self._claim(portion)
        self.drafts.append(Draft(op, {"": portion}, of=row))

    def _claim(self, portion: Portion) -> None:
        self.placed.setdefault(portion.line, []).append(portion)

    def _is_placed(self, line: int, take: Take) -> bool:
        """Whether all of the line is in the pot already, so that naming it again adds nothing."""
        there = self.placed.get(line, [])
        return bool(there) and (take == 1.0 or any(one.take in (1.0, None) for one in there))

    def _all_placed(self, mention: Mention) -> bool:
        return all(n in self.placed for n in mention.lines)

    def _flush_fats(self) -> None:
        fats, self.fats = self.fats, []
        for fat in fats:
            self._one("add", fat, self._row(fat.line), claim=False)
        if self.flour is not None:
            flour, self.flour = self.flour, None
            self._one("dust", flour, self._row(flour.line), claim=False)

    def _dry_pan(self) -> bool:
        return any(d.op in ("add", "sweat") and d.of and d.of.role == "fat" for d in self.drafts)

    def _liquids(self, named: list[Mention]) -> bool:
        return any(self._row(n).role in ("milk", "stock") for m in named for n in m.lines)

    def _pieces(self) -> bool:
        since = max((n for n, d in enumerate(self.drafts) if d.op == "strain"), default=-1)
        return any(d.of is not None and d.of.piece for d in self.drafts[since + 1 :])

    def _unplaced_liquid(self) -> bool:
        return any(self._row(n).role in LIQUIDS for n in self._open())

    # The end.

    def finished(self, *, told: bool) -> Made:
        self._flush_side()
        self._flush_slurry()
        self._strained_herbs()
        fats, self.fats = self.fats, []
        for fat in fats:
            row = self._row(fat.line)
            self._insert(Draft("add", {"": fat}, of=row))
        if self.flour is not None:  # its fat may be one nobody spoke of
            self.placed.pop(self.flour.line)
        self._unsaid(told=told)
        self._usual_minutes()
        weighed = any(
            self._role(one) == "salt" and one.amount for one in self.lines if one.ingredient
        )
        tasted = self.tasted and not weighed
        return Made(self.drafts, self.lines, self.assumed, self.used, tasted, self.beside)

    def _strained_herbs(self) -> None:
        """Herbs that boil in the pot until it is strained have given their taste."""
        strained = max((n for n, d in enumerate(self.drafts) if d.op == "strain"), default=0)
        for n, draft in enumerate(self.drafts[:strained]):
            boiled = any(d.op in ("simmer", "reduce") for d in self.drafts[n + 1 : strained])
            if draft.op == "finish" and draft.of and draft.of.role == "herb" and boiled:
                draft.op = "add"

    def _unsaid(self, *, told: bool) -> None:
        """Lines the method never speaks of, where sauces usually have them."""
        self.beside |= {
            n
            for n in self._open()
            if n in self.others or self.lines[n].optional or self.lines[n].for_table
        }
        left = sorted(self._open(), key=lambda n: _usual_place(self._row(n)))
        if not left:
            return
        said = self.around = self.drafts
        self.drafts = []
        has_flour = any(self._row(n).role == "flour" for n in left)
        cream_last = has_flour or any(d.op in ("roux", "dust") for d in said)
        yolks = [n for n in left if self._row(n).per_gram.yolk_protein]
        creams = [n for n in left if self._row(n).role == "cream"]
        if cream_last or yolks:
            left = [n for n in left if n not in creams] + creams
            left.sort(key=lambda n: _usual_place(self._row(n), cream_last=True))
        if (
            yolks
            and creams
            and self._liaison(
                [(yolks[0], 1.0), (creams[0], 1.0)],
                {n: self._row(n) for n in (yolks[0], creams[0])},
            )
        ):
            self.assumed.append(say("assumed.liaison"))
            left = [n for n in left if n not in (yolks[0], creams[0])]
        liaison, self.drafts = self.drafts, []
        for number in left:
            row = self._row(number)
            if told and said and row.role not in ("salt", "spice"):
                self.assumed.append(say("assumed.unsaid", line=self.lines[number].text))
            if row.role == "fat" and said and any(d.op in ("roux", "dust", "sweat") for d in said):
                self._claim(Portion(number))
                self.drafts.append(Draft("add", {"": Portion(number)}, of=row))
                continue
            self._place(Portion(number), row, None)
        self._flush_fats()
        fresh, self.drafts = [*self.drafts, *liaison], said
        for draft in fresh:
            self._insert(draft)

    def _insert(self, draft: Draft) -> None:
        at = 0
        for number, other in enumerate(self.drafts):
            if other.rank <= draft.rank:
                at = number + 1
        self.drafts.insert(at, draft)

    def _usual_minutes(self) -> None:
        """Minutes nobody said: told as taken for granted."""
        for draft in self.drafts:
            told = None
            if draft.op == "sweat" and "minutes" not in draft.rest:
                draft.rest["minutes"] = K.USUAL_SWEAT_MIN
                told = say("assumed.sweat", minutes=K.USUAL_SWEAT_MIN)
            elif draft.op in ("roux", "dust"):
                draft.rest.setdefault("colour", "white")
                if "minutes" not in draft.rest:
                    told = say("assumed.roux", minutes=_USUAL_ROUX_MIN)
                draft.rest["minutes"] = min(30.0, draft.rest.get("minutes", _USUAL_ROUX_MIN))
            elif draft.op == "infuse" and "minutes" not in draft.rest:
                draft.rest["minutes"] = K.USUAL_STEEP_MIN
                line = self.lines[draft.portions[""].line].text
                told = say("assumed.steep", line=line, minutes=K.USUAL_STEEP_MIN)
            if told is not None:
                self.assumed.append(told)
        self._usual_simmer()

    def _usual_simmer(self) -> None:
        floured = [
            n
            for n, d in enumerate(self.drafts)
            if d.op in ("roux", "dust") or (d.of and d.of.role == "flour")
        ]
        if not floured or any(d.op in ("simmer", "reduce") for d in self.drafts[floured[0] :]):
            return
        liquid = [
            n
            for n, d in enumerate(self.drafts)
            if d.op in ("add", "use", "infuse") and n > floured[0]
        ]
        wet_before = any(d.of and d.of.wet and not d.of.piece for d in self.drafts[: floured[0]])
        if not liquid and not wet_before:
            return
        at = max([*liquid, floured[0]]) + 1
        self.drafts.insert(at, Draft("simmer", rest={"minutes": K.USUAL_SIMMER_MIN}))
        self.assumed.append(say("assumed.simmer", minutes=K.USUAL_SIMMER_MIN))


_OTHER_FOOD = (
    " macaroni",
    " vegetables",
    " steak",
    " birds",
    " fish",
    " fillets",
    " chicken",
    " beef",
    " meat",
    "pasta",
)


def _says(text: str, *words: str) -> bool:
    padded = f" {text.lower()} "
    return any(word in padded for word in words)


_USUAL_ORDER = (
    ("fat",),
    _SWEATS,
    ("flour",),
    ("wine", "spirit"),
    ("milk", "stock", "water", "juice"),
    ("cream",),
    ("herb",),
    ("cheese",),
    ("egg", "soft-cream", "puree", "nut"),
    ("seasoning", "spice", "acid", "salt"),
)


def _usual_place(row: Ingredient, *, cream_last: bool = False) -> float:
    for place, roles in enumerate(_USUAL_ORDER):
        if row.role in roles:
            if row.role == "cream" and cream_last:
                return place + 1.5
            if row.key in _SWEAT_HERBS:
                return 1.0
            return float(place)
    return float(len(_USUAL_ORDER))
