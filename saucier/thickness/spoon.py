"""What the back of a spoon shows at a given viscosity."""

import math

from saucier import constants as K
from saucier.thickness.grades import GRADES
from saucier.words import Sentence, say


def film_mm(viscosity_pa_s: float) -> float:
    """Film left on the back of a spoon held up for three seconds, mm.

    Draining film under gravity (Jeffreys 1930): h = √(η·L/(ρ·g·t)).

    >>> round(film_mm(0.86), 2)
    1.19
    """
    return 1000.0 * math.sqrt(
        viscosity_pa_s
        * K.SPOON_LENGTH_M
        / (K.SPOON_DENSITY_KG_M3 * K.GRAVITY_M_S2 * K.SPOON_DRAINS_S)
    )


def spoon_words(viscosity_pa_s: float) -> Sentence:
    """What a cook would say of it.

    >>> str(spoon_words(0.9))
    'coats the spoon; a drawn line stays'
    """
    words = say("grade-liquid-looks")
    for grade in GRADES:
        if viscosity_pa_s >= grade.low:
            words = grade.looks
    return words
