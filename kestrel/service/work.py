"""A service worked out for the screen: its documents gathered, the core asked, the answers shaped."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from django.db.models import F

from kestrel.accounts.models import Kitchen
from kestrel.larder.actions import core_kitchen
from kestrel.larder.models import Burner, Pan
from kestrel.sauces.models import Sauce, SauceVersion
from kestrel.service.actions import pins, row_number
from kestrel.service.models import Dish
from saucier.cells import written
from saucier.dish import Dish as DishDocument
from saucier.dish import DishSeen, read_dish, seen
from saucier.errors import Problem
from saucier.heat import Pan as CorePan
from saucier.kitchen import Kitchen as CoreKitchen
from saucier.service import (
    Amiss,
    Buy,
    Plan,
    Production,
    Service,
    on_the_board,
    plan_service,
    production_of,
    read_service,
    read_what_can_be,
    told,
)
from saucier.sheet import Sheet, SheetBurner, read_sheet, with_measures
from saucier.units import Amount
from saucier.words import say


@dataclass(frozen=True)
class Gathered:
    """Everything a service of this kitchen is planned with, its pots on the strongest ring;
    ``versions`` by sauce."""

    kitchen: CoreKitchen
    dishes: dict[str, DishDocument]
    sheets: dict[str, Sheet]
    pans: list[CorePan]
    versions: dict[str, int]

    def plan(self, service: Service, unread: Sequence[Problem] = ()) -> Plan:
        """``service`` planned, but for entries that are ``unread``."""
        return plan_service(service, self.dishes, self.sheets, self.kitchen, self.pans, unread)


def typed_service(document: Mapping[str, Any], kitchen: CoreKitchen) -> Service:
    """A service as it stands in the browser, amounts in the kitchen's own measures too. Raises
    :class:`BadInput`."""
    return read_service(with_measures(document, kitchen.measures, kitchen.larder))


def gathered(kitchen: Kitchen, document: Mapping[str, Any], pinned: Mapping[str, int]) -> Gathered:
    """What ``document`` needs, sauces at their ``pinned`` versions (new ones at the newest)."""
    keys = [key for line in _lines(document) if (key := row_number(line.get("dish")))]
    rows = Dish.objects.filter(kitchen=kitchen, pk__in=keys)
    versions = pins(kitchen, {"lines": [{"dish": str(key)} for key in keys]}, pinned)
    sheets = {
        str(sauce_id): read_sheet(sheet)
        for sauce_id, number, sheet in SauceVersion.objects.filter(
            sauce__kitchen=kitchen, sauce_id__in=[int(key) for key in versions]
        ).values_list("sauce_id", "number", "sheet")
        if versions[str(sauce_id)] == number
    }
    core = core_kitchen(kitchen)
    burners = Burner.objects.filter(kitchen=kitchen)
    if strongest := max(burners, key=lambda one: one.watts, default=None):
        ring = SheetBurner.model_validate({"kind": strongest.kind, "watts": strongest.watts})
        stove = replace(core.stove, burner_w=ring.watts, efficiency=ring.efficiency)
        core = replace(core, stove=stove)
    return Gathered(
        core,
        {str(row.pk): read_dish(row.document) for row in rows},
        sheets,
        [pan.core() for pan in Pan.objects.filter(kitchen=kitchen)],
        versions,
    )


def dish_seen(kitchen: Kitchen, dish: DishDocument) -> DishSeen:
    """``dish`` as it is seen, with the newest version of its sauces. Raises :class:`BadInput`."""
    keys = [key for used in dish.sauces if (key := row_number(used.sauce))]
    newest = SauceVersion.objects.filter(
        sauce__kitchen=kitchen, sauce_id__in=keys, number=F("sauce__version")
    )
    sheets = {
        str(sauce_id): read_sheet(sheet)
        for sauce_id, sheet in newest.values_list("sauce_id", "sheet")
    }
    return seen(dish, sheets, core_kitchen(kitchen))


def _lines(document: Mapping[str, Any]) -> list[Mapping[str, Any]]:
    lines = document.get("lines")
    return [line for line in lines if isinstance(line, Mapping)] if isinstance(lines, list) else []


@dataclass(frozen=True, slots=True)
class Changed:
    """A sauce changed or deleted since the service was planned with its ``pinned`` version."""

    sauce_id: int
    name: str
    pinned: int
    newest: int
    deleted: bool


@dataclass(frozen=True, slots=True)
class ServiceWorked:
    """A service with all that follows: its plan, the production sheet, and which sauces changed
    since. ``unread`` are problems of entries that are left out until they are mended: such a service
    is not what stands in the browser, and is not kept."""

    plan: Plan
    production: Production
    changed: tuple[Changed, ...]
    unread: tuple[Amiss, ...] = ()


def worked(
    kitchen: Kitchen, document: Mapping[str, Any], pinned: Mapping[str, int]
) -> ServiceWorked:
    """``document`` worked out with its sauces at their ``pinned`` versions."""
    all_of_it = gathered(kitchen, document, pinned)
    core = all_of_it.kitchen
    service, unread = read_what_can_be(with_measures(document, core.measures, core.larder))
    plan = all_of_it.plan(service, unread)
    production = production_of(plan, core)
    return ServiceWorked(plan, production, changed(kitchen, all_of_it.versions), told(unread))


def changed(kitchen: Kitchen, versions: Mapping[str, int]) -> tuple[Changed, ...]:
    """Sauces with a newer version than the pinned one, or deleted."""
    rows = Sauce.objects.filter(kitchen=kitchen, pk__in=[int(key) for key in versions])
    return tuple(
        Changed(row.pk, row.name, versions[str(row.pk)], row.version, row.deleted_at is not None)
        for row in rows
        if row.deleted_at is not None or row.version != versions[str(row.pk)]
    )


_PRODUCTION = (
    *("part", "of", "what", "grams", "measure"),
    *("in all", "pan", "batches", "packs", "cost", "note", "ml", "portions", "mm"),
)


def _bought_measure(buy: Buy) -> str:
    """What is bought by volume, else by spoons; "" where it is weighed."""
    if buy.bought_ml:
        return str(Amount(buy.bought_ml, "mL"))
    return str(buy.spoons) if buy.spoons else ""


def production_csv(plan: Plan, production: Production) -> str:
    """The production sheet as CSV, all of what stands on the wall: one table, told apart by its first
    column."""
    rows: list[list[object]] = []

    def row(
        part: str, of: object, what: object, grams: str = "", measure: object = "", **more: object
    ) -> None:
        rest = [more.get(column.replace(" ", "_"), "") for column in _PRODUCTION[5:]]
        rows.append([part, of, what, grams, measure or "", *rest])

    for line in plan.lines:
        note = "; ".join(str(text) for text in line.left_out)
        cost = f"{line.cost:.2f}"
        portions = f"{line.line.portions:g} portions"
        if line.refused:
            wrong = [a for a in plan.amiss if a.field.startswith(f"lines[{line.number}]")]
            note = "; ".join(str(one.message) for one in wrong)
        cost = "" if line.refused else cost
        row("dish", line.called, portions, cost=cost, note=note, portions=f"{line.line.portions:g}")
    for text in production.cautions:
        row("caution", "", text)
    for buy in production.buy:
        row(
            "buy",
            buy.role,
            buy.name,
            f"{buy.bought_g:.0f}",
            _bought_measure(buy),
            packs=buy.packs or "",
            ml=f"{buy.bought_ml:.0f}" if buy.bought_ml else "",
            cost=f"{buy.cost:.2f}",
            note=on_the_board(buy) if abs(buy.board_g - buy.whole_g) > 1.0 else "",
        )
    for number, text in enumerate(production.prepare, 1):
        row("order", number, text)
    for pot in production.weigh:
        notes = [*pot.notes, *([pot.let_down] if pot.let_down else [])]
        notes += [say("csv-guest", guest=guest) for guest in pot.guests]
        row(
            "pot",
            pot.name,
            ", ".join(pot.feeds),
            f"{pot.makes_g:.0f}",
            f"{pot.makes_ml:.0f} mL",
            pan=pot.pan,
            batches=pot.batches,
            ml=f"{pot.makes_ml:.0f}",
            note="; ".join(str(text) for text in notes),
        )
        for sitting, ml in enumerate(pot.sittings_ml, 1):
            row("sitting", pot.name, sitting, measure=f"{ml:.0f} mL", ml=f"{ml:.0f}")
        for at, weighed in enumerate(pot.weighed):
            in_all = str(pot.in_all[at]) if pot.in_all else str(weighed.amount)
            grams = f"{weighed.grams:.1f}"
            row("weigh", pot.name, weighed.name, grams, str(weighed.amount), in_all=in_all)
    for line in plan.lines:
        if line.layout:
            filled = line.layout
            row(
                "vessel",
                line.called,
                filled.name,
                f"{filled.each_g:.0f}",
                f"{filled.fill_mm:.0f} mm",
                in_all=filled.vessels,
                mm=f"{filled.fill_mm:.0f}",
                note="; ".join(str(text) for text in filled.layers),
            )
    for one in production.serve:
        kept = say("csv-kept-back", ml=one.kept_back_ml) if one.kept_back_ml else ""
        each = say("each-of", what=one.each)
        row("serve", one.dish, one.sauce, f"{one.each_g:.0f}", one.ladles, in_all=each, note=kept)
    for trimmed in production.trimmings:
        row("trimmings", trimmed.kind, trimmed.words, f"{trimmed.grams:.0f}")
    for text in production.left:
        row("left", "", text)
    for allergen in production.matrix:
        marks = [a for a, has in zip(production.allergens, allergen.marks, strict=True) if has]
        row("allergens", allergen.dish, ", ".join(marks))
    return written(_PRODUCTION, rows)
