"""What nobody in the kitchen knows, drawn wider than the app's own doubt."""

import math
import random
from dataclasses import dataclass


@dataclass(frozen=True)
class CookTruth:
    """A cook: minutes against those of the sheet, how far off a spoon is judged (of log η), how far off a weighing is, g."""

    name: str
    slower: float
    eye: float
    scale_g: float
    seed: int


@dataclass(frozen=True)
class Hidden:
    """One evening's kitchen: strength of each flour against the usual, heat of each ring against what is printed on it,
    salt of what is bought against its label, the air to cool in, and how fast a tray loses its heat there, by minute."""

    seed: int
    flour: dict[str, float]
    rings: dict[str, float]
    salt: float
    air_c: dict[str, float]
    loses: dict[str, float]
    cooks: tuple[CookTruth, ...]

    @classmethod
    def drawn(cls, seed: int) -> "Hidden":
        dice = random.Random(f"evening {seed}")

        def factor(spread: float) -> float:
            return math.exp(dice.gauss(0.0, spread))

        flours = ("wheat-flour", "rice-flour", "rice-flour-waxy", "corn-starch", "potato-starch")
        return cls(
            seed,
            {key: factor(0.08) for key in flours},
            {name: factor(0.3) for name in ("left", "right")},
            factor(0.25),
            {"ice-stirred": 0.5, "ice-bath": 1.0, "blast": -2.0, "fridge": dice.gauss(4.0, 1.5)},
            {
                "ice-stirred": 0.045 * factor(0.35),
                "ice-bath": 0.022 * factor(0.35),
                "blast": 0.018 * factor(0.35),
                "fridge": 0.006 * factor(0.35),
            },
            tuple(
                CookTruth(
                    name,
                    factor(0.2),
                    dice.uniform(0.05, 0.2),
                    dice.uniform(0.5, 4.0),
                    dice.randrange(1 << 30),
                )
                for name in ("Tove", "Odd")
            ),
        )
