"""Bad input, said so that a cook can mend it: which field, what is wrong, what would be right."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from saucier.words import Sentence, say
from saucier.words.catalogue import REMEDY


@dataclass(frozen=True, slots=True)
class Problem:
    """One thing wrong with what was given: ``code``, with its ``facts``, in the ``field`` whose
    path in the document that is (``steps[1].amount``)."""

    field: str
    code: str
    facts: Mapping[str, object]

    @property
    def message(self) -> Sentence:
        """What is wrong."""
        return Sentence(self.code, self.facts)

    @property
    def remedy(self) -> Sentence:
        """What would be right."""
        return Sentence(self.code + REMEDY, self.facts)

    @property
    def told(self) -> Sentence:
        """Both, where no field is named beside them."""
        return say("problem", message=self.message, remedy=self.remedy)

    def __str__(self) -> str:
        return f"{self.field}: {self.told}"


def problem(field: str, code: str, /, **facts: object) -> Problem:
    """One problem, to be raised with others."""
    return Problem(field, code, facts)


class BadInput(ValueError):
    """Input that cannot be worked with. Holds one or more :class:`Problem`.

    Every entry of the core raises this and nothing else for what a user can get wrong.
    """

    def __init__(self, *problems: Problem) -> None:
        super().__init__(*problems)
        self.problems = problems

    def __str__(self) -> str:
        return "; ".join(str(problem) for problem in self.problems)

    @classmethod
    def at(cls, field: str, code: str, /, **facts: object) -> "BadInput":
        return cls(problem(field, code, **facts))

    def all_at(self, field: str) -> "BadInput":
        """The same problems, all of one ``field``: of what was typed there."""
        return BadInput(*(replace(p, field=field) for p in self.problems))

    def under(self, prefix: str) -> "BadInput":
        """The same problems, one level further down the document."""
        return BadInput(
            *(replace(p, field=f"{prefix}.{p.field}" if p.field else prefix) for p in self.problems)
        )
