"""Bad input, said so that a cook can mend it: which field, what is wrong, what would be right."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Problem:
    """One thing wrong with what was given.

    ``field`` is the path in the document (``steps[1].amount``), ``message`` says what is
    wrong, ``remedy`` what would be right.
    """

    field: str
    message: str
    remedy: str

    def __str__(self) -> str:
        return f"{self.field}: {self.message}. {self.remedy}"


class BadInput(ValueError):
    """Input that cannot be worked with. Holds one or more :class:`Problem`.

    Every entry of the core raises this and nothing else for what a user can get wrong.
    """

    def __init__(self, *problems: Problem) -> None:
        super().__init__("; ".join(str(problem) for problem in problems))
        self.problems = problems

    @classmethod
    def at(cls, field: str, message: str, remedy: str) -> "BadInput":
        return cls(Problem(field, message, remedy))

    def under(self, prefix: str) -> "BadInput":
        """The same problems, one level further down the document."""
        return BadInput(
            *(
                Problem(f"{prefix}.{p.field}" if p.field else prefix, p.message, p.remedy)
                for p in self.problems
            )
        )
