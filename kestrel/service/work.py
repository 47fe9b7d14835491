"""A service worked out for the screen: its documents gathered, the core asked, the answers shaped."""

import csv
import io
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from kestrel.accounts.models import Kitchen
from kestrel.larder.actions import core_kitchen
from kestrel.larder.models import Burner, Pan
from kestrel.sauces.models import Sauce, SauceVersion
from kestrel.service.actions import pins
from kestrel.service.models import Dish
from saucier.dish import Dish as DishDocument
from saucier.dish import read_dish
from saucier.heat import Pan as CorePan
from saucier.heat import Stove
from saucier.kitchen import Kitchen as CoreKitchen
from saucier.service import Plan, Production, Service, plan_service, production_of, read_service
from saucier.sheet import Sheet, SheetBurner, read_sheet, with_measures


@dataclass(frozen=True)
class Gathered:
    """Everything a service of this kitchen is planned with, its pots on the strongest ring;
    ``versions`` by sauce."""

    kitchen: CoreKitchen
    dishes: dict[str, DishDocument]
    sheets: dict[str, Sheet]
    pans: list[CorePan]
    versions: dict[str, int]

    def plan(self, service: Service) -> Plan:
        """Raises :class:`BadInput` by field."""
        return plan_service(service, self.dishes, self.sheets, self.kitchen, self.pans)


def typed_service(document: Mapping[str, Any], kitchen: CoreKitchen) -> Service:
    """A service as it stands in the browser, amounts in the kitchen's own measures too. Raises
    :class:`BadInput`."""
    return read_service(with_measures(document, kitchen.measures, kitchen.larder))


def gathered(kitchen: Kitchen, document: Mapping[str, Any], pinned: Mapping[str, int]) -> Gathered:
    """What ``document`` needs, sauces at their ``pinned`` versions (new ones at the newest)."""
    keys = [int(line["dish"]) for line in _lines(document) if str(line.get("dish")).isdigit()]
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
        core = replace(core, stove=Stove(burner_w=ring.watts, efficiency=ring.efficiency))
    return Gathered(
        core,
        {str(row.pk): read_dish(row.document) for row in rows},
        sheets,
        [pan.core() for pan in Pan.objects.filter(kitchen=kitchen)],
        versions,
    )


def _lines(document: Mapping[str, Any]) -> list[Mapping[str, Any]]:
    lines = document.get("lines")
    return [line for line in lines if isinstance(line, Mapping)] if isinstance(lines, list) else []


def worked(
    kitchen: Kitchen, document: Mapping[str, Any], pinned: Mapping[str, int]
) -> dict[str, Any]:
    """``document`` with its plan and production sheet, and which sauces changed since."""
    all_of_it = gathered(kitchen, document, pinned)
    plan = all_of_it.plan(typed_service(document, all_of_it.kitchen))
    return shaped(plan, all_of_it.kitchen) | {"changed": changed(kitchen, all_of_it.versions)}


def changed(kitchen: Kitchen, versions: Mapping[str, int]) -> list[dict[str, Any]]:
    """Sauces with a newer version than the pinned one, or deleted."""
    rows = Sauce.objects.filter(kitchen=kitchen, pk__in=[int(key) for key in versions])
    return [
        {
            "sauce_id": row.pk,
            "name": row.name,
            "pinned": versions[str(row.pk)],
            "newest": row.version,
            "deleted": row.deleted_at is not None,
        }
        for row in rows
        if row.deleted_at is not None or row.version != versions[str(row.pk)]
    ]


def shaped(plan: Plan, kitchen: CoreKitchen) -> dict[str, Any]:
    """A plan as the API tells it."""
    production = production_of(plan, kitchen)
    sauce_of = {branch.key: branch.sauce for branch in plan.branches}
    return {
        "document": plan.service,
        "lines": [
            {
                **{name: getattr(one, name) for name in _LINE},
                "dish": one.line.dish,
                "name": one.dish.name,
                "portions": one.line.portions,
                "sitting": one.line.sitting,
                "without": one.line.without,
                "allergens": sorted(one.allergens),
            }
            for one in plan.lines
        ],
        "branches": [_branch(one) for one in plan.branches],
        "pots": [_pot(one, sauce_of) for one in plan.pots],
        "used": plan.used,
        "roux": plan.roux,
        "warnings": plan.warnings,
        "needs_ml": sum(branch.need_ml for branch in plan.branches),
        "left_ml": plan.left_ml,
        "by_recipe_ml": plan.by_recipe_ml,
        "production": {
            **{name: getattr(production, name) for name in _PRODUCTION},
            "matrix": [{"dish": dish, "marks": marks} for dish, marks in production.matrix],
        },
        "changed": [],
    }


_LINE = (
    "called",
    "needs",
    "branches",
    "left_out",
    "layout",
    "rounds",
    "finish",
    "on_plate",
    "cost",
    "cost_each",
)
_PRODUCTION = ("buy", "weigh", "serve", "prepare", "allergens", "stretch", "cost")
_BRANCH = (
    "key", "sauce", "name", "pot", "grade", "need_ml", "film_ml", "made_ml", "base_g", "let_down_g",
    "let_down_share", "bound_g", "why", "can_share", "from_stock_ml", "pan", "cost",
)  # fmt: skip
_POT = (
    "key", "name", "mother", "batches", "fill_share", "minutes", "made_g", "made_ml", "taken_g",
    "film_g", "left_g", "thickest", "notes",
)  # fmt: skip


def _branch(branch: Any) -> dict[str, Any]:
    final = branch.final
    return {
        **{name: getattr(branch, name) for name in _BRANCH},
        "viscosity_pa_s": final.thickness.viscosity_pa_s,
        "viscosity_low_pa_s": final.thickness.low_pa_s,
        "viscosity_high_pa_s": final.thickness.high_pa_s,
        "salt_pct": final.figures.salt_pct,
        "mass_g": final.pot.total_g,
        "allergens": sorted(final.pot.allergens),
        "asked": [
            {"line": one.line, "dish": one.dish, "ml": one.need.volume_ml} for one in branch.asked
        ],
    }


def _pot(pot: Any, sauce_of: Mapping[str, str]) -> dict[str, Any]:
    thickness = pot.checked.final.thickness
    return {
        **{name: getattr(pot, name) for name in _POT},
        "pan": pot.pan.name,
        "grade": thickness.grade,
        "viscosity_pa_s": thickness.viscosity_pa_s,
        "offers": [
            {"branch": o.branch, "sauce": sauce_of[o.branch], "do": o.do, "words": o.words}
            for o in pot.offers
        ],
    }


def production_csv(plan: Plan, production: Production) -> str:
    """The production sheet as CSV: one table, told apart by its first column."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(["part", "of", "what", "grams", "measure", "packs", "cost"])
    for buy in production.buy:
        spoons = str(buy.spoons) if buy.spoons else ""
        writer.writerow(
            [
                "buy",
                buy.role,
                buy.name,
                f"{buy.bought_g:.0f}",
                spoons,
                buy.packs or "",
                f"{buy.cost:.2f}",
            ]
        )
    for pot in production.weigh:
        for weighed in pot.weighed:
            writer.writerow(
                [
                    "weigh",
                    pot.name,
                    weighed.name,
                    f"{weighed.grams:.1f}",
                    str(weighed.amount),
                    "",
                    "",
                ]
            )
    for one in production.serve:
        writer.writerow(
            ["serve", one.dish, one.sauce, f"{one.each_g:.0f}", one.ladles, one.each, ""]
        )
    for line in plan.lines:
        writer.writerow(
            [
                "dish",
                line.dish.name,
                f"{line.line.portions:g} portions",
                "",
                "",
                "",
                f"{line.cost:.2f}",
            ]
        )
    return out.getvalue()
