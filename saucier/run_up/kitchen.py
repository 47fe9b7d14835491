"""The kitchen as jobs are made in it: rings that will do, pans, things that can do something."""

import math
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field

from saucier import constants as K
from saucier.errors import BadInput
from saucier.heat import POT_SHAPES, Pan
from saucier.kitchen import Kitchen
from saucier.run_up.document import RunUp
from saucier.run_up.jobs import Board
from saucier.run_up.library import Library
from saucier.run_up.means import Gear, Means, Ring, unit, units
from saucier.service import LinePlan, Plan
from saucier.words import Sentence, say


@dataclass
class At:
    """Where a run-up is made: the service's plan, the kitchen and what is in it, the cook's own
    word (``doc``), and the ``board`` that jobs are put on. ``hot``: water, pans and fat stand hot already. ``made`` are the jobs that finish a sauce, by
    branch; ``eats`` those that take it."""

    plan: Plan
    kitchen: Kitchen
    means: Means
    library: Library
    doc: RunUp
    board: Board = field(default_factory=Board)
    hot: bool = False
    made: dict[str, tuple[str, ...]] = field(default_factory=dict)
    eats: dict[str, list[str]] = field(default_factory=dict)
    wants: dict[tuple[str, int], "Wanted"] = field(default_factory=dict)

    def want(self, ingredient: str, day: int, grams: float, job: str) -> None:
        """So much of an ingredient is wanted ready for ``job``."""
        there = self.wants.setdefault((ingredient, day), Wanted())
        there.grams += grams
        there.jobs.append(job)

    def rings_for(
        self, pot: str, minutes: Callable[[Ring], float], pan_cm: float = 0.0
    ) -> tuple[float, frozenset[str]]:
        """Minutes a pot takes and the rings on which it takes no more: the one the cook named, else
        those that take a pan ``pan_cm`` across and are not much slower than the quickest. Raises
        :class:`BadInput`."""
        if pot in self.doc.rings:
            ring = next((r for r in self.means.rings if r.name == self.doc.rings[pot]), None)
            if ring is None:
                raise BadInput.at(f"rings.{pot}", "is-no-ring-of-yours", name=self.doc.rings[pot])
            return minutes(ring), frozenset({unit("ring", ring.name)})
        took = {ring.name: minutes(ring) for ring in self._taking(pan_cm)}
        most = K.RING_SLOWER * min(took.values()) + 1.0
        will_do = {name: took[name] for name in took if took[name] <= most}
        return max(will_do.values()), frozenset(unit("ring", name) for name in will_do)

    def any_ring(self, pan_cm: float = 0.0) -> frozenset[str]:
        """Rings that take a pan ``pan_cm`` across."""
        return frozenset(unit("ring", ring.name) for ring in self._taking(pan_cm))

    def _taking(self, pan_cm: float) -> tuple[Ring, ...]:
        """Where no ring takes it, those that take the widest: the pan stands over its edge."""
        sizes = [ring.takes_cm or math.inf for ring in self.means.rings]
        wanted = min(pan_cm, max(sizes))
        return tuple(r for r, size in zip(self.means.rings, sizes, strict=True) if size >= wanted)

    def across(self, pans: frozenset[str]) -> float:
        """The narrowest of ``pans`` (as the planner calls them), cm; 0 for things that are no pans."""
        return min(
            (p.diameter_cm for p in self.means.pans if self.pan_units(p) & pans), default=0.0
        )

    def pan_units(self, pan: Pan) -> frozenset[str]:
        """That pan by its numbers; nothing for one the kitchen does not have."""
        count = sum(own.count for own in self.means.pans if own.name == pan.name)
        return units("pan", pan.name, count) if count else frozenset()

    def pans_holding(self, ml: float) -> frozenset[str]:
        """Pans that hold ``ml`` with a little room."""
        fits = [p for p in self.means.pans if p.shape in POT_SHAPES and ml <= 0.9 * p.capacity_ml]
        return frozenset().union(*(self.pan_units(pan) for pan in fits))

    def largest_pan_ml(self) -> float:
        own = [p.capacity_ml for p in self.means.pans if p.shape in POT_SHAPES]
        return 0.9 * max(own, default=9000.0)

    def gear_units(self, gear: Iterable[Gear]) -> frozenset[str]:
        return frozenset().union(*(units("gear", one.name, one.count) for one in gear))

    def clean_for(self, line: LinePlan, fat: bool = False) -> Sentence | str:
        """What is said of things (and of the frying ``fat``) used for guests who go without something."""
        if not line.line.without:
            return ""
        return say("job.clean-fat") if fat else say("job.clean")

    def sink(self) -> frozenset[str]:
        return self.gear_units(self.means.that_can("drain"))


@dataclass
class Wanted:
    """Grams of an ingredient wanted ready, and the jobs it is for."""

    grams: float = 0.0
    jobs: list[str] = field(default_factory=list)
