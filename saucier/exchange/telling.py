"""Which lines of a recipe its telling speaks of, clause by clause, and what it adds to them."""

import re
from collections.abc import Sequence
from dataclasses import replace

from saucier.exchange.drafts import Draft, Portion
from saucier.exchange.lines import IF_LIKED, OPTIONAL, ReadLine, read_line
from saucier.exchange.mentions import Mention, mentions_in
from saucier.exchange.sentences import Clause
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient, plain_name
from saucier.units import Amount
from saucier.words import Sentence, say

NOT_SAUCE = ("solid", "meat", "fish", "seafood")
LIQUIDS = ("milk", "stock", "water", "juice", "cream")
FALLS = 0.4
"""Pieces that become sauce by so much of themselves are its liquid, as tomatoes are."""
_UNLISTED = (*LIQUIDS, "fat", "flour", "wine", "spirit", "cheese", "egg", "soft-cream")
"""Kinds that are part of the sauce when a method speaks of them and the list does not."""
_TOLD_UNLISTED = ("seasoning", "acid", "herb", "aromatic")
"""Kinds of which it is told that the method has them and the list does not."""
_AWAY = ("elsewhere", "over", "out")
"""Acts on another pot, at the table, or of what is taken out."""
_MAYBE = re.compile(r"\bif\b|\bto (?:thin|loosen)\b|^\W*(?:thin|loosen)\b", re.IGNORECASE)
"""Said of what goes in only where it is wanted."""
_KNEADED = re.compile(r"\b(?:beurre mani[ée]|kneaded butter)", re.IGNORECASE)


def _vague(read: ReadLine) -> bool:
    """Whether it has no amount, or one by hand."""
    return read.amount is None or bool(read.amount.measure)


class Telling:
    """The lines of a recipe, ``given`` of them listed, and what is known of them so far: the ``drafts`` of
    steps they are ``placed`` in, those ``beside`` the sauce."""

    def __init__(
        self, lines: Sequence[ReadLine], kitchen: Kitchen, beside: frozenset[int], given: int
    ) -> None:
        self.lines = list(lines)
        self.kitchen, self.larder = kitchen, kitchen.larder
        self.given, self.listed = given, given > 0
        food = {n for n, one in enumerate(lines) if one.ingredient and self._role(one) in NOT_SAUCE}
        maybe = {
            n
            for n, one in enumerate(lines)
            if one.optional and (one.amount is None or one.text.endswith(IF_LIKED))
        }
        self.beside = set(beside) | food | maybe
        self.drafts: list[Draft] = []
        self.around: list[Draft] = []
        self.placed: dict[int, list[Portion]] = {}
        self.assumed: list[Sentence] = []
        self.tasted = False
        self.maybe = False
        """Whether the sentence tells of something only perhaps done."""
        self.guessed = {n for n, one in enumerate(lines) if one.status == "settle" and one.amount}
        """Lines whose amount may be one that was told loosely."""

    @property
    def wet(self) -> bool:
        return any(
            d.op == "use"
            or (d.of and d.of.wet and not d.of.piece and d.of.key != "pan-juices")
            or (d.of and d.of.falls_share >= FALLS)
            for d in (*self.around, *self.drafts)
        )

    def _role(self, line: ReadLine) -> str:
        return self.larder[line.ingredient or ""].role

    def _row(self, line: int) -> Ingredient:
        key = self.lines[line].ingredient
        assert key is not None
        return self.larder[key]

    def _open(self) -> list[int]:
        return [
            n
            for n, line in enumerate(self.lines)
            if line.ingredient and n not in self.placed and n not in self.beside
        ]

    def named(self, clause: Clause) -> list[Mention]:
        """The clause's mentions, each with lines of its own: one not listed becomes a line where
        it is plainly part of the sauce."""
        found: list[Mention] = []
        for mention in mentions_in(clause.text, self.lines, self.kitchen):
            # "250 ml milk … 50 ml milk" are two; "50 g of the butter" is of what there is.
            told = all(n >= self.given for n in mention.lines)
            again = told and mention.read.amount is not None and self._more(mention)
            again = again and " of the " not in mention.read.text
            if not mention.lines or (
                again and all(n in self.placed or n in self.beside for n in mention.lines)
            ):
                if (
                    isinstance(mention.take, float)
                    and mention.take < 1.0
                    and self._kinds_of(mention, found)
                ):
                    why = say("line.share-of-what", shown=f"{mention.take:.0%}")
                    mention = replace(mention, read=replace(mention.read, status="settle", why=why))
                fresh = self._with_line(mention, clause)
                if fresh is None:
                    continue
                mention = fresh
            mention = replace(mention, lines=self._which(mention))
            self._learn(mention)
            found.append(mention)
        if _KNEADED.search(clause.text):
            found = self._with_roux(found)
        if " roux" in f" {clause.text.lower()}" and not any(
            d.op in ("roux", "dust") for d in self.drafts
        ):
            found = self._with_roux(found)
        return found

    def _more(self, mention: Mention) -> bool:
        """Whether an amount told is more of it, and not a line again that is still to settle."""
        grams = self.larder[mention.key].grams
        said = mention.read.amount
        return said is not None and not any(
            n in self.beside
            and (there := self.lines[n].amount) is not None
            and abs(grams(there) - grams(said)) < 0.02 * grams(said)
            for n in mention.lines
        )

    def _kinds_of(self, mention: Mention, before: list[Mention]) -> bool:
        """Whether it says of what kinds something weighed is: "200 g cheese, half this, half that"."""
        role = self.larder[mention.key].role
        return any(m.read.amount is not None and self.larder[m.key].role == role for m in before)

    def _which(self, mention: Mention) -> tuple[int, ...]:
        """Of lines of the same thing ("50 g butter", "20 g cold butter") the one that is meant: by
        its amount, else the first that is not in yet."""
        same = [
            n
            for n in mention.lines
            if self.lines[n].ingredient == self.lines[mention.lines[0]].ingredient
        ]
        if len(same) < 2 or len(same) < len(mention.lines):
            return mention.lines
        if isinstance(mention.take, Amount):
            row = self._row(same[0])
            wanted = row.grams(mention.take)
            for n in sorted(same, key=lambda n: n in self.placed):
                amount = self.lines[n].amount
                if amount is not None and abs(row.grams(amount) - wanted) < 0.02 * wanted:
                    return (n,)
        return (next((n for n in same if n not in self.placed), same[-1]),)

    def _with_line(self, mention: Mention, clause: Clause) -> Mention | None:
        """A line for what the telling has and no line is of; None where it adds nothing."""
        row, read = self.larder[mention.key], mention.read
        word = plain_name(read.text).split()[-1]
        away = clause.act in _AWAY
        asked = read.status == "settle" and not read.blank and not away
        if row.role == "salt" and not asked and (read.amount is None or clause.act == "elsewhere"):
            self.tasted = self.tasted or clause.act != "elsewhere"
            return None
        if self.listed and not self._adds(row, read, clause, word, asked=asked):
            return None
        if read.amount is None and (row.role == "water" or (self.wet and word == "liquor")):
            return None  # "boil the liquor": what is in the pot
        if row.role == "spice" and read.amount is None:
            read = ReadLine(read.text, "read", row.key, None, to_taste=True)
        number = len(self.lines)
        if liked := re.search(rf"\b{re.escape(word)}s?,? {OPTIONAL.pattern}", clause.text, re.I):
            read = replace(read, text=liked[0])
            if _vague(read):
                self.beside.add(number)
        elif not self.listed and self._only_perhaps(read, clause, word):
            read = replace(read, text=f"{read.text}{IF_LIKED}")
            self.beside.add(number)
        if row.role in NOT_SAUCE:
            self.beside.add(number)
        self.lines.append(read)
        return Mention(mention.key, (number,), 1.0, read)

    def _adds(
        self, row: Ingredient, read: ReadLine, clause: Clause, word: str, *, asked: bool
    ) -> bool:
        """Whether the method of a listed recipe adds what its list does not have: "with oil", "pour over
        the ham" add nothing."""
        open_ones = (
            one for one in self.lines if one.status in ("settle", "unread") and not one.blank
        )
        if any(word in plain_name(one.text).split() for one in open_ones):
            return False  # its own line is still to settle
        gaps = any(
            one.ingredient is None and one.status in ("settle", "unread")
            for one in self.lines[: self.given]
        )
        if gaps and read.blank:  # it may be what could not be read
            self.assumed.append(say("assumed.not-listed", name=row.name))
            return False
        away = clause.act in _AWAY
        weighed = asked or (not _vague(read) and not away)
        unsaid = row.role in ("water", "fat") or away or bool(_MAYBE.search(clause.text))
        kept = clause.act == "out" and read.amount is not None
        if (
            kept
            or not (weighed or row.role in _UNLISTED)
            or (_vague(read) and unsaid and not asked)
        ):
            if row.role in _TOLD_UNLISTED and clause.act in ("add", "mix", "infuse", "season"):
                self.assumed.append(say("assumed.not-listed", name=row.name))
            return False
        return True

    def _only_perhaps(self, read: ReadLine, clause: Clause, word: str) -> bool:
        """Whether it goes in only where it is wanted: "a drop more milk if it is too thick"."""
        behind = rf"{re.escape(word)}s?\b[^,;]*\bif\b"
        if self.maybe or re.search(behind, clause.text, re.IGNORECASE):
            return True
        return _vague(read) and bool(_MAYBE.match(clause.text))

    def _learn(self, mention: Mention) -> None:
        """What the method knows better than the list: an amount the list leaves out, "the stock"
        that is called chicken stock later."""
        number = mention.lines[0]
        line = self.lines[number]
        tongue = self._role(line) == "salt"
        if (
            mention.read.amount is not None
            and line.amount is None
            and line.ingredient == mention.key
            and not tongue
        ):
            read = mention.read
            self.lines[number] = replace(
                line, status=read.status, amount=read.amount, why=read.why, to_taste=False
            )
        elif (
            line.ingredient != mention.key
            and not self.listed
            and number not in self.placed
            and " " not in line.text
        ):
            self.lines[number] = replace(line, text=mention.read.text, ingredient=mention.key)

    def _with_roux(self, named: list[Mention]) -> list[Mention]:
        """A roux is made of the fat and the flour there are, where neither is named with it."""
        open_ones = self._open()
        flour = [n for n in open_ones if self._row(n).role == "flour"][:1]
        fat = [n for n in open_ones if self._row(n).role == "fat"][:1]
        if not flour or any(n in m.lines for m in named for n in flour):
            return named
        there = {n for m in named for n in m.lines}
        wanted = [n for n in (*fat, *flour) if n not in there]
        return [
            *(Mention(self.lines[n].ingredient or "", (n,), 1.0, self.lines[n]) for n in wanted),
            *named,
        ]

    def belongs(self, loose: list[str], named: list[Mention]) -> bool:
        """Whether the one amount told loosely ("all the cheddar in the house (200 g?)") may be that of the
        one thing named without: it is asked so."""
        open_ones = {n for m in named for n in m.lines if self.lines[n].blank or n in self.guessed}
        if len(loose) != 1 or len(open_ones) != 1:
            return False
        (number,) = open_ones
        line = self.lines[number]
        read = read_line(f"{loose[0]} {self._row(number).name}", self.kitchen)
        if read.ingredient != line.ingredient or read.amount is None:
            return False
        self.guessed.add(number)
        if line.blank:
            text = f"{line.text}, {loose[0]}"
            asked = replace(
                line, text=text, status="settle", amount=read.amount, why=say("line.meant")
            )
            self.lines[number] = asked
            self.beside.add(number)
        return True

    def amount_of(self, number: int, amount: str) -> None:
        """ "Reduce 600 ml of it": how much of what was named before without."""
        line = self.lines[number]
        if not line.blank:
            return
        read = read_line(f"{amount} {self._row(number).name}", self.kitchen)
        if read.ingredient == line.ingredient and read.status == "read":
            text = f"{line.text}, {amount}"
            self.lines[number] = replace(
                line, text=text, status="read", amount=read.amount, why=None
            )

    def ask_of(self, loose: list[str]) -> None:
        """Amounts of what nobody knows become lines to settle: never passed over."""
        there = {line.text for line in self.lines}
        self.lines += [
            ReadLine(text, "unread", None, None, say("line.unknown"))
            for text in loose
            if text not in there
        ]
