"""Kitchen English, apart from facts: a sentence is found by its code and filled in with facts.

Rooms above make sentences with :func:`say`; what they say stands in ``en/*.toml``, a file for each
room. Another language is another folder beside ``en``.
"""

from saucier.words.catalogue import add_shelf, sentences
from saucier.words.sentence import Sentence, all_of, one_of, plain, said, say, weight
from saucier.words.told import Inside
from saucier.words.ways import USUAL, Ways, degrees_in, go_by, going_by, gone_by

__all__ = [
    "USUAL",
    "Inside",
    "Sentence",
    "Ways",
    "add_shelf",
    "all_of",
    "degrees_in",
    "go_by",
    "going_by",
    "gone_by",
    "one_of",
    "plain",
    "said",
    "say",
    "sentences",
    "weight",
]
