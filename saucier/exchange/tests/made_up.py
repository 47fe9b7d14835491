"""Recipes made up at random, with their right answers: amounts in every form a kitchen writes, lists in
many layouts or none, methods in many words, with what stands around them."""

import random
import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field

from saucier.kitchen import Kitchen
from saucier.units import Amount

KITCHEN = Kitchen()
FRENCH = re.compile(
    r"\b(?:beurre|farine|lait|creme|echalote|oignons?|sel|poivre|muscade|noix|vin|jus|fumet|fond|bouillon|jaunes?"
    r"|ail|persil|ciboulette|estragon|moutarde|champignons?|poireaux?|blanc|laurier|thym|fromage)\b"
)
PREPARED: dict[str, Sequence[str]] = {
    "aromatic": ("finely chopped", "diced", "sliced", "peeled and chopped"),
    "vegetable": ("sliced", "quartered"),
    "cheese": ("grated", "finely grated", "shredded"),
    "herb": ("chopped", "finely chopped"),
    "fat": ("softened",),
    "stock": ("hot", "warmed"),
    "milk": ("warmed", "cold"),
}
SHORTLY = {
    "butter": "butter",
    "cheese": "cheese",
    "parmesan": "cheese",
    "stock": "stock",
    "milk": "milk",
    "cream-": "cream",
    "wine": "wine",
    "wheat": "flour",
    "flour": "flour",
    "mushroom": "mushrooms",
    "mustard": "mustard",
}
"""What a method calls the only one of its kind in the list."""
MINUTES = (
    "for {} minutes",
    "for {} min",
    "{} mins",
    "for about {} minutes",
    "for {} minutes or so",
)
BESIDE = (
    ("400 g pasta", "Cook the pasta in plenty of salted water for 10 minutes, then drain."),
    ("1 cauliflower, cut into florets", "Boil the cauliflower in salted water for 8 minutes."),
    ("2 chicken breasts", "Fry the chicken breasts for 6 minutes on each side. Keep warm."),
    ("4 hake fillets (about 150 g each)", "Steam the fish for 8 minutes."),
    ("1 kg potatoes, peeled", "Boil the potatoes until tender, about 20 minutes. Drain."),
)
"""What goes with the sauce: its line, and what is done to it."""
OVEN = (
    "Preheat the oven to 200 °C.",
    "Heat the oven to 180C/160C fan/gas 4.",
    "Preheat oven to 400°F.",
)
SERVED = (
    "Pour over and serve.",
    "Pour the sauce over and bake for 20 minutes until golden.",
    "Spoon over and serve at once, with a green salad.",
)
TASTED = ("Season.", "Season with salt and pepper.", "Taste and season.")
TASTE_LINES = ("salt and pepper", "salt, white pepper", "Salt & freshly ground black pepper")
TITLES = ("A sauce", "Sauce for the hake", "Velouté no. 3", "Sunday sauce", "Sauce for guinea fowl")
HEADS = ("", "Ingredients\n", "Ingredients:\n", "You will need:\n")
METHODS = ("", "\nMethod\n", "\nDirections:\n", "\n")


@dataclass(frozen=True, slots=True)
class Item:
    """So many ``grams`` of ``key``, written as ``words`` of ``name``, which was ``prepared`` so; ``count``
    pieces where it is counted."""

    key: str
    words: str
    name: str
    grams: float
    prepared: str = ""
    count: int = 0

    @property
    def named(self) -> str:
        return self.name + ("s" if self.count > 1 and not self.name.endswith("s") else "")


@dataclass
class MadeUp:
    """A recipe: its ``text``, the ``items`` in it, the ``steps`` it tells, as :func:`spoken` says them."""

    text: str = ""
    items: list[Item] = field(default_factory=list)
    steps: list[str] = field(default_factory=list)


def _weight(chance: random.Random, grams: float) -> tuple[str, Amount]:
    pick = chance.random()
    if pick < 0.6:
        return chance.choice(["{:g} g", "{:g}g", "{:g} grams", "{:g} gr"]).format(grams), Amount(
            grams, "g"
        )
    if pick < 0.7 and grams >= 100:
        return chance.choice(["{:g} kg", "{:g}kg"]).format(grams / 1000), Amount(grams, "g")
    ounces = max(1.0, round(grams / 28.35 * 2) / 2)
    shown = {1.5: "1½", 2.5: "2½"}.get(ounces, f"{ounces:g}")
    words = chance.choice(["{} oz", "{}oz", "{} ounces", "{} oz."]).format(shown)
    return words, Amount(ounces, "oz")


def _volume(chance: random.Random, ml: float) -> tuple[str, Amount]:
    pick = chance.random()
    known = {
        250: ("¼ litre", "1/4 l"),
        500: ("½ litre", "half a litre", "0.5 L"),
        1000: ("1 litre", "a litre"),
    }
    if pick < 0.1 and ml in known:
        return chance.choice(known[int(ml)]), Amount(ml, "mL")
    if pick < 0.75:
        form, size = chance.choice(
            [
                ("{:g} ml", 1),
                ("{:g}ml", 1),
                ("{:g} mL", 1),
                ("{:g} millilitres", 1),
                ("{:g} dl", 100),
                ("{:g}cl", 10),
            ]
        )
        return form.format(ml / size), Amount(ml, "mL")
    cups = max(0.25, round(ml / 240 * 4) / 4)
    part = {0.0: "", 0.25: "1/4", 0.5: "1/2", 0.75: "3/4"}[cups % 1]
    shown = " ".join(filter(None, [f"{cups // 1:g}" if cups >= 1 else "", part]))
    if chance.random() < 0.3:
        for words, sign in (("1/4", "¼"), ("1/2", "½"), ("3/4", "¾")):
            shown = shown.replace(f" {words}", sign).replace(words, sign)
    return chance.choice(["{} cups", "{} c.", "{} cup"]).format(shown), Amount(cups, "cup")


def _spoons(chance: random.Random, number: int, unit: str) -> tuple[str, Amount]:
    ends = "s" if number > 1 else ""
    forms = {
        "tbsp": [
            "{} tbsp",
            "{}tbsp",
            "{} Tbsp",
            "{} tbs",
            "{} tbsp.",
            "{} T",
            f"{{}} level tablespoon{ends}",
        ],
        "tsp": ["{} tsp", "{} tsp.", "{} t", f"{{}} teaspoon{ends}"],
    }[unit]
    form = chance.choice(forms)
    spelled = ["", "one", "two", "three", "four"][number]
    shown = chance.choice([str(number), spelled]) if "spoon" in form else str(number)
    return form.format(shown), Amount(number, unit)


class _Cook:
    """One who tells a sauce: what goes in, and in which words."""

    def __init__(self, chance: random.Random) -> None:
        self.chance = chance
        self.items: list[Item] = []
        self.told: list[str] = []
        self.steps: list[str] = []

    def one(self, *keys: str) -> str:
        return self.chance.choice(keys)

    def maybe(self, share: float) -> bool:
        return self.chance.random() < share

    def minutes(self, low: int, high: int) -> tuple[int, str]:
        count = self.chance.randint(low, high)
        return count, self.chance.choice(MINUTES).format(count)

    def put(self, key: str, amount: float, unit: str) -> int:
        """``amount`` of ``key`` in the list; its number."""
        chance, row = self.chance, KITCHEN.larder[key]
        count = 0
        if unit == "g":
            words, meant = _weight(chance, amount)
        elif unit == "mL":
            words, meant = _volume(chance, amount)
        elif unit == "piece":
            count = int(amount)
            words, meant = (
                chance.choice([str(count), ["", "one", "two", "three"][count]]),
                Amount(amount, unit),
            )
            words += chance.choice(["", " small", " large"])
        else:
            words, meant = _spoons(chance, int(amount), unit)
        if unit in ("g", "mL") and self.maybe(0.08):
            words = f"about {words}"
        names = [one for one in row.aliases if not FRENCH.search(one)] or [row.name]
        ready = PREPARED.get(row.role, ())
        prepared = chance.choice(ready) if ready and self.maybe(0.5) else ""
        self.items.append(Item(key, words, chance.choice(names), row.grams(meant), prepared, count))
        return len(self.items) - 1

    def say(self, words: Sequence[str], *steps: str, **parts: object) -> None:
        self.told.append(self.chance.choice(words).format(**parts))
        self.steps += steps

    def key(self, number: int) -> str:
        return self.items[number].key

    def together(self, numbers: Sequence[int]) -> str:
        words = [f"@{n}@" for n in numbers]
        return " and ".join(filter(None, [", ".join(words[:-1]), words[-1]]))


def _floured(cook: _Cook) -> None:
    """A roux, or flour dusted over what was sweated; perhaps a liaison, cream, cheese."""
    chance = cook.chance
    fat = cook.put(
        cook.one("butter-unsalted", "oil-olive", "butter-salted", "butter-clarified"),
        chance.choice([40, 50, 60, 80]),
        "g",
    )
    soft = [
        cook.put(key, chance.randint(1, 2), "piece")
        for key in chance.sample(
            ["onion", "shallot", "leek", "garlic"], chance.choice([0, 0, 1, 2])
        )
    ]
    if cook.maybe(0.2):
        soft.append(cook.put("mushroom-button", chance.choice([150, 200, 250]), "g"))
    flour = cook.put(
        cook.one("wheat-flour", "wheat-flour", "flour-spelt"),
        *chance.choice([(40, "g"), (60, "g"), (3, "tbsp")]),
    )
    liquid = cook.put(
        cook.one("milk-whole", "stock-chicken", "stock-fish", "milk-semi", "stock-mushroom"),
        chance.choice([500, 600, 1000]),
        "mL",
    )
    f, w, q = f"@{fat}@", f"@{flour}@", f"@{liquid}@"
    if soft:
        count, minutes = cook.minutes(4, 12)
        cook.say(
            (
                "Melt {f} in a pan, add {a} and soften {m}.",
                "Sweat {a} in {f} {m}.",
                "Heat {f} and gently fry {a} {m}, without colouring.",
                "Cook {a} in {f} over a low heat {m}.",
            ),
            f"add {cook.key(fat)}",
            *(f"sweat {cook.key(n)} {count}" for n in soft),
            f=f, a=cook.together(soft), m=minutes,
        )  # fmt: skip
        count, minutes = cook.minutes(1, 3)
        words = (
            "Stir in {w} and cook {m}.",
            "Sprinkle over {w} and stir {m}.",
            "Dust with {w}; cook {m}.",
        )
        cook.say(words, f"dust {cook.key(flour)} {count}", w=w, m=minutes)
    else:
        count, minutes = cook.minutes(1, 5)
        cook.say(
            (
                "Melt {f}, stir in {w} and cook {m}.",
                "Make a roux with {f} and {w} and cook it {m}.",
                "Melt {f} in a saucepan over medium heat. Whisk in {w} and cook, stirring, {m}.",
                "Melt {f}. Add {w}. Cook {m} without letting it colour.",
            ),
            f"roux {cook.key(fat)}+{cook.key(flour)} {count}",
            f=f, w=w, m=minutes,
        )  # fmt: skip
    words = ("Gradually whisk in {q}.", "Pour in {q}, whisking constantly.", "Take off the heat and stir in {q} bit by bit.", "Slowly add {q}, beating well after each addition.")  # fmt: skip
    cook.say(words, f"add {cook.key(liquid)}", q=q)
    count, minutes = cook.minutes(3, 25)
    cook.say(
        (
            "Bring to the boil and simmer {m}.",
            "Bring to a simmer, then cook gently {m}.",
            "Bring to the boil, turn down the heat and simmer {m}, stirring now and then.",
            "Return to the heat, bring to the boil, stirring, and simmer {m} until thickened.",
        ),
        f"simmer {count}",
        m=minutes,
    )
    if soft and cook.maybe(0.3):
        step, words = chance.choice(
            [("strain", "Pass through a fine sieve."), ("blend", "Blend until smooth.")]
        )
        cook.say((words,), step)
    if cook.maybe(0.25):
        yolk, cream = (
            cook.put("egg-yolk", chance.randint(1, 3), "piece"),
            cook.put("cream-35", 100, "mL"),
        )
        cook.say(
            (
                "Beat {y} with {c}, temper with a ladle of the hot sauce and stir back in.",
                "Whisk {y} and {c} together in a bowl. Add a ladleful of hot sauce, then return it to the pan.",
            ),
            "liaison egg-yolk+cream-35",
            y=f"@{yolk}@", c=f"@{cream}@",
        )  # fmt: skip
    elif cook.maybe(0.4):
        cream = cook.put(
            cook.one("cream-35", "cream-48", "cream-18"), chance.choice([50, 100]), "mL"
        )
        words = ("Stir in {c}.", "Add {c} and bring back to a simmer.", "Whisk in {c}.")
        cook.say(words, f"add {cook.key(cream)}", c=f"@{cream}@")
    if cook.maybe(0.5):
        cheese = cook.put(
            cook.one(
                "cheese-hard-alpine", "cheese-firm-mature", "parmesan-style-hard", "cheese-blue"
            ),
            chance.choice([50, 80, 120]),
            "g",
        )
        words = ("Off the heat, stir in {c}.", "Remove from the heat and add {c}, stirring until melted.", "Take off the heat; whisk in {c}.")  # fmt: skip
        cook.say(words, f"melt {cook.key(cheese)}", c=f"@{cheese}@")


def _reduced(cook: _Cook) -> None:
    """Wine boiled down, perhaps stock, then cream."""
    chance = cook.chance
    fat, soft = (
        cook.put("butter-unsalted", chance.choice([15, 20, 30]), "g"),
        cook.put(cook.one("shallot", "onion"), chance.randint(1, 3), "piece"),
    )
    wine = cook.put(
        cook.one("wine-white-dry", "vermouth-dry", "sherry-dry", "cider-dry", "brandy"),
        chance.choice([100, 150, 200]),
        "mL",
    )
    count, minutes = cook.minutes(2, 6)
    words = (
        "Sweat {s} in {f} {m}.",
        "Melt {f}, add {s} and cook {m} without colouring.",
        "Fry {s} gently in {f} {m}.",
    )
    cook.say(
        words,
        "add butter-unsalted",
        f"sweat {cook.key(soft)} {count}",
        s=f"@{soft}@",
        f=f"@{fat}@",
        m=minutes,
    )
    told, to = chance.choice(
        [
            ("Pour in {w} and reduce by half.", "0.5"),
            ("Add {w} and boil until almost dry.", "nearly-dry"),
            ("Deglaze with {w}, reduce by two thirds.", "0.3333"),
            ("Add {w} and let it bubble until reduced by half.", "0.5"),
            ("Add {w}; boil until it has almost all gone.", "nearly-dry"),
        ]
    )
    cook.say((told,), f"deglaze {cook.key(wine)}", f"reduce {to}", w=f"@{wine}@")
    if cook.maybe(0.7):
        stock = cook.put(
            cook.one("stock-fish", "stock-chicken", "stock-veal"), chance.choice([250, 500]), "mL"
        )
        words = (
            "Add {s} and reduce by half.",
            "Pour in {s}, boil down by half.",
            "Add {s}. Boil hard until reduced by half.",
        )
        cook.say(words, f"add {cook.key(stock)}", "reduce 0.5", s=f"@{stock}@")
    cream = cook.put(cook.one("cream-35", "cream-48"), chance.choice([200, 250, 500]), "mL")
    count, minutes = cook.minutes(3, 8)
    words = ("Add {c} and simmer {m}.", "Stir in {c}, simmer {m}.", "Pour in {c}; bubble {m}.")
    cook.say(words, f"add {cook.key(cream)}", f"simmer {count}", c=f"@{cream}@", m=minutes)


def _slaked(cook: _Cook) -> None:
    """A liquid bound with starch in cold water."""
    liquid = cook.put(cook.one("milk-whole", "stock-chicken", "stock-vegetable"), 500, "mL")
    starch, water = (
        cook.put(cook.one("corn-starch", "potato-starch", "arrowroot"), 2, "tbsp"),
        cook.put("water", 2, "tbsp"),
    )
    cook.say(
        ("Bring {q} to the boil.", "Heat {q} in a pan."), f"add {cook.key(liquid)}", q=f"@{liquid}@"
    )
    cook.say(
        (
            "Mix {s} with {w}, whisk it in and simmer for 2 minutes.",
            "Slake {s} with {w} and stir it in, then simmer 2 min.",
            "Blend {s} and {w} to a paste, whisk into the pan and simmer for 2 minutes.",
        ),
        "add water", f"add {cook.key(starch)}", "simmer 2",
        s=f"@{starch}@", w=f"@{water}@",
    )  # fmt: skip


def _soured(cook: _Cook) -> None:
    """A pan sauce finished off the heat."""
    fat, soft = cook.put("oil-neutral", 1, "tbsp"), cook.put("onion", 1, "piece")
    stock, cream = (
        cook.put("stock-beef", 250, "mL"),
        cook.put(cook.one("soured-cream-20", "yogurt-plain"), 150, "mL"),
    )
    cook.say(
        ("Fry {s} in {f} for 6 minutes.",),
        "add oil-neutral",
        "sweat onion 6",
        s=f"@{soft}@",
        f=f"@{fat}@",
    )
    cook.say(
        ("Pour in {q} and simmer for 5 minutes.",), "add stock-beef", "simmer 5", q=f"@{stock}@"
    )
    words = ("Take off the heat and stir in {c}.", "Off the heat stir in {c}; do not boil.")
    cook.say(words, f"finish {cook.key(cream)}", c=f"@{cream}@")


def _finished(cook: _Cook) -> None:
    """What is stirred in last."""
    if cook.maybe(0.3):
        mustard = cook.put(
            cook.one("mustard-hot", "mustard-grain"), *cook.chance.choice([(1, "tbsp"), (2, "tsp")])
        )
        cook.say(
            ("Stir in {x}.", "Whisk in {x}.", "Add {x}."),
            f"season {cook.key(mustard)}",
            x=f"@{mustard}@",
        )
    if cook.maybe(0.3):
        herb = cook.put(
            cook.one("parsley", "chives", "dill", "tarragon"), cook.chance.randint(1, 3), "tbsp"
        )
        cook.say(
            ("Fold in {x}.", "Finish with {x}.", "Stir through {x}."),
            f"finish {cook.key(herb)}",
            x=f"@{herb}@",
        )


FAMILIES: Sequence[Callable[[_Cook], None]] = (
    _floured,
    _floured,
    _floured,
    _reduced,
    _slaked,
    _soured,
)


def made_up(seed: int) -> MadeUp:
    """The recipe of ``seed``."""
    cook = _Cook(random.Random(seed))
    chance = cook.chance
    chance.choice(FAMILIES)(cook)
    _finished(cook)
    around = chance.choice(BESIDE) if cook.maybe(0.5) else None
    if around:
        cook.told.insert(0, around[1])
        if cook.maybe(0.7):
            cook.say(SERVED)
    if cook.maybe(0.3):
        cook.told.insert(0, chance.choice(OVEN))
    if cook.maybe(0.3):
        cook.say(TASTED)
    more = [around[0]] if around else []
    more += [chance.choice(TASTE_LINES)] if cook.maybe(0.5) else []
    return MadeUp(_written(cook, more), cook.items, cook.steps)


def _written(cook: _Cook, more: list[str]) -> str:
    """The recipe in one of the layouts there are."""
    chance, items = cook.chance, cook.items
    title = chance.choice(TITLES)
    if cook.maybe(0.2):  # only told
        told = " ".join(cook.told)
        return f"{title}\n\n" + re.sub(
            r"@(\d+)@", lambda n: _with_amount(cook, items[int(n[1])]), told
        )
    shapes: Sequence[Callable[[Item], str]] = (
        lambda one: f"{one.words} {one.named}{_prepared(one)}",
        lambda one: f"- {one.words} {one.named}{_prepared(one)}",
        lambda one: f"• {one.words}{'' if one.count else ' of'} {one.named}{_prepared(one)}",
        lambda one: f"{_capital(one)} {one.count or one.words}{_prepared(one)}",
        lambda one: f"{_capital(one)}: {one.count or one.words}",
        lambda one: f"{_capital(one)} - {one.count or one.words}",
        lambda one: f"{_capital(one)} ..... {one.count or one.words}",
        lambda one: f"{one.words}\t{one.name}",
        lambda one: f"| {one.name} | {one.count or one.words} |",
    )
    shape = chance.choice(shapes)
    lines = [shape(one) for one in items]
    if lines[0].startswith("|"):
        lines = ["| Ingredient | Amount |", "|---|---|", *lines, *(f"| {one} | |" for one in more)]
    elif cook.maybe(0.15) and shape is shapes[0]:
        lines = [
            chance.choice(["; ", " · "]).join(re.sub(",.*", "", line) for line in lines),
            *more,
        ]
    else:
        lines = [*more, *lines] if cook.maybe(0.3) else [*lines, *more]
    told = [
        re.sub(r"@(\d+)@", lambda n: _shortly(cook, items[int(n[1])]), one) for one in cook.told
    ]
    method = (
        chance.choice([" ", "\n"]).join(told)
        if cook.maybe(0.7)
        else "\n".join(f"{n}. {one}" for n, one in enumerate(told, 1))
    )
    return (
        f"{title}\n\n{chance.choice(HEADS)}"
        + "\n".join(lines)
        + f"\n{chance.choice(METHODS)}\n{method}\n"
    )


def _prepared(item: Item) -> str:
    return f", {item.prepared}" if item.prepared else ""


def _capital(item: Item) -> str:
    return item.named[:1].upper() + item.named[1:]


def _with_amount(cook: _Cook, item: Item) -> str:
    return f"{item.words}{'' if item.count or cook.maybe(0.6) else ' of'} {item.named}"


def _shortly(cook: _Cook, item: Item) -> str:
    """How the method names what the list has: by its name, or by its kind where it is the only one."""
    for start, word in SHORTLY.items():
        alone = sum(one.key.startswith(start) for one in cook.items) == 1
        alone = alone and sum(word.rstrip("s") in one.name for one in cook.items) <= 1
        if item.key.startswith(start) and alone and cook.maybe(0.6):
            return f"the {word}"
    return f"{cook.chance.choice(['the ', ''])}{item.named}"
