"""Ingredients, pans, grades and uses."""

import math
from dataclasses import asdict
from typing import Any, cast

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from kestrel.accounts.auth import KitchenRequest
from kestrel.accounts.models import Kitchen
from kestrel.larder import actions, begin, means
from kestrel.larder.models import Burner, Cook, Gear, OwnIngredient, OwnMeasure, OwnWay, Pan
from kestrel.larder.schemas import (
    BeginIn,
    BurnerIn,
    BurnerOut,
    Catalogue,
    CookIn,
    CookOut,
    CsvIn,
    CsvReport,
    GearIn,
    GearOut,
    HabitIn,
    LabelIn,
    MeansOut,
    MeasureIn,
    MeasureOut,
    NewWayIn,
    PanIn,
    PanOut,
    RowIn,
    RowOut,
    RowTaken,
    UsualOut,
    WayIn,
)
from kestrel.problems import Message
from saucier import constants as K
from saucier.demand import USES, use_named
from saucier.dish import KINDS, spoken_kind
from saucier.errors import BadInput
from saucier.exchange import read_larder_csv, write_larder_csv
from saucier.guests import DIETS, ROLES_GONE_WITHOUT
from saucier.heat import POT_SHAPES
from saucier.larder import (
    ALLERGENS,
    ANIMALS,
    BODY_ORIGINS,
    ORIGINS,
    PLANT,
    ROLES,
    FromLabel,
    Ingredient,
    Larder,
    Measure,
    Measures,
    measure_from_row,
    row_from_label,
    row_of,
    shipped_larder,
    spoken_body_origin,
    spoken_origin,
    spoken_role,
)
from saucier.run_up import SKILLS, Library, Way, kinds
from saucier.thickness import EMULSION_EDGES, GRADES, film_mm
from saucier.units import UNITS
from saucier.words import said, say

router = Router(tags=["larder"])


def _ingredient(row: Ingredient, own: bool) -> dict[str, Any]:
    part = row.per_gram
    return {
        "key": row.key,
        "name": row.name,
        "role": row.role,
        "water": round(100 * part.water, 2),
        "fat": round(100 * part.fat, 2),
        "salt": round(100 * part.salt, 2),
        "flour": round(100 * part.flour, 2),
        "protein": round(100 * (part.thickening_protein + part.yolk_protein), 2),
        "alcohol": round(100 * part.alcohol, 2),
        "density": row.density,
        "piece_g": row.piece_g,
        "piece": row.piece,
        "gives_salt": row.salt_min > 0.0,
        "allergens": sorted(row.allergens),
        "price_per_kg": row.price_per_kg,
        "origin": spoken_origin(row.origin),
        "spread_pct": row.spread_pct,
        "body": round(100 * part.body, 2),
        "body_origin": spoken_body_origin(row.body_origin),
        "usable_pct": round(100 * row.usable_share, 2),
        "drained_pct": round(100 * row.drained_share, 2),
        "pack_g": row.pack_g,
        "aliases": row.aliases,
        "own": own,
    }


def _measures(kitchen: Kitchen, measures: Measures) -> list[dict[str, Any]]:
    own = {(row.name, row.of): row.pk for row in OwnMeasure.objects.filter(kitchen=kitchen)}
    return [_measure(row, own.get((row.name, row.of))) for row in measures]


def _measure(row: Measure, own: int | None) -> dict[str, Any]:
    return {
        "id": own,
        "name": row.name,
        "of": row.of,
        "size": row.size,
        "unit": row.unit,
        "packing": row.packing,
        "spread_pct": round(100 * row.spread, 2),
        "kind": row.kind,
        "words": row.words,
    }


def _pan(pan: Pan) -> dict[str, Any]:
    core = pan.core()
    return {
        "id": pan.pk,
        "capacity_ml": round(core.capacity_ml),
        "for_pots": core.shape in POT_SHAPES,
        **asdict(core),
    }


def _burner(burner: Burner) -> dict[str, Any]:
    keys = ("name", "kind", "watts", "takes_cm")
    return {"id": burner.pk, **{key: getattr(burner, key) for key in keys}}


def _way_names(library: Library, larder: Larder) -> dict[str, str]:
    """Ways to cook by key; those of one name are told apart by what they are for."""
    names = [way.name for way in library.ways.values()]
    told = {}
    for key, way in library.ways.items():
        does = [larder[one].spoken_name for one in way.does if one in larder]
        alone = names.count(way.name) == 1 or not does
        told[key] = way.name if alone else f"{way.name}: {', '.join(does[:2])} …"
    return told


@router.get("", response=Catalogue)
def catalogue(request: HttpRequest):
    """Everything a cook chooses from, in one go."""
    kitchen = cast(KitchenRequest, request).kitchen
    core = actions.core_kitchen(kitchen)
    own = dict(OwnIngredient.objects.filter(kitchen=kitchen).values_list("key", "retired"))
    return {
        "ingredients": [
            _ingredient(row, row.key in own)
            for row in core.larder.values()
            if not own.get(row.key, False)
        ],
        "pans": [_pan(pan) for pan in Pan.objects.filter(kitchen=kitchen)],
        "burners": [_burner(burner) for burner in Burner.objects.filter(kitchen=kitchen)],
        "grades": [
            {
                "key": g.key,
                "name": g.name,
                "low_pa_s": g.low,
                "high_pa_s": g.high if math.isfinite(g.high) else None,
                "target_pa_s": g.target,
                "film_mm": film_mm(g.target),
                "looks": g.looks,
                "serves": g.serves,
            }
            for g in GRADES
        ],
        "uses": [
            {
                **asdict(use_named(key, core)),
                "usual_ml": use.per_ml,
                "own": key in core.per_ml,
            }
            for key, use in USES.items()
        ],
        "film_ml": core.film_ml,
        "usual_film_ml": K.FILM_ML,
        "whisk_ml": core.whisk_ml,
        "usual_whisk_ml": K.WHISK_ML,
        "units": list(UNITS),
        "emulsion_edges": EMULSION_EDGES,
        "measures": _measures(kitchen, core.measures),
        "roles": {key: spoken_role(key) for key in ROLES},
        "allergens": ALLERGENS,
        "animals": (PLANT, *ANIMALS),
        "ways": _way_names(means.library_of(kitchen), core.larder),
        "dish_kinds": {key: spoken_kind(key) for key in KINDS},
        "guests": [
            *({"key": d, "name": say(f"diet.{d}"), "group": "diet"} for d in DIETS),
            *({"key": a, "name": said(a), "group": "allergen"} for a in ALLERGENS),
            *({"key": r, "name": spoken_role(r), "group": "kind"} for r in ROLES_GONE_WITHOUT),
        ],
        "origins": {key: spoken_origin(key) for key in ORIGINS},
        "body_origins": {key: spoken_body_origin(key) for key in BODY_ORIGINS},
    }


@router.put("/habits", response={204: None})
def set_habit(request: HttpRequest, given: HabitIn):
    """How much this kitchen gives for a use, what clings to a pot, the most whisked in one."""
    value = None if given.value in (None, "") else _number(given.value)
    actions.set_habit(cast(KitchenRequest, request).kitchen, given.what, value)
    return Status(204, None)


def _number(value: Any) -> float:
    try:
        return float(str(value).strip().replace(",", "."))
    except ValueError:
        raise BadInput.at("value", "habit-is-no-number", value=value) from None


def _row(kitchen: Kitchen, key: str) -> dict[str, Any]:
    """The row of ``key`` to edit. Raises :class:`BadInput` where there is none."""
    own = OwnIngredient.objects.filter(kitchen=kitchen, key=key).first()
    shipped = shipped_larder()
    return {
        "row": actions.whole_row(own.row) if own else row_of(shipped[key]),
        "shipped": row_of(shipped[key]) if key in shipped else None,
        "revision": own.revision if own else 0,
    }


@router.post("/from-label", response={200: FromLabel})
def from_label(request: HttpRequest, given: LabelIn):
    """A row from what a packet says, to look over and keep; nothing is kept here."""
    larder = actions.core_kitchen(cast(KitchenRequest, request).kitchen).larder
    printed = given.model_dump(exclude={"name", "role"})
    return row_from_label(given.name, given.role, printed, larder)


@router.get("/ingredients/{key}", response={200: RowOut})
def ingredient(request: HttpRequest, key: str):
    """A row as text, to edit."""
    return _row(cast(KitchenRequest, request).kitchen, key)


@router.put("/ingredients", response={200: RowOut, 409: RowTaken})
def save_ingredient(request: HttpRequest, given: RowIn):
    """Keep a corrected row, or one of the kitchen's own under a new key."""
    kitchen = cast(KitchenRequest, request).kitchen
    own = actions.save_ingredient(kitchen, given.row, given.revision)
    return _row(kitchen, own.key)


@router.delete("/ingredients/{key}", response={204: None})
def back_to_shipped(request: HttpRequest, key: str):
    """The shipped row again; a row of the kitchen's own is no longer offered."""
    actions.back_to_shipped(cast(KitchenRequest, request).kitchen, key)
    return Status(204, None)


@router.get("/csv", include_in_schema=False)
def csv_out(request: HttpRequest):
    """The larder as CSV, with the kitchen's own rows."""
    core = actions.core_kitchen(cast(KitchenRequest, request).kitchen)
    answer = HttpResponse(write_larder_csv(core.larder.values()), content_type="text/csv")
    answer["Content-Disposition"] = 'attachment; filename="larder.csv"'
    return answer


@router.post("/csv", response={200: CsvReport})
def csv_in(request: HttpRequest, given: CsvIn):
    """A larder from CSV, told row by row; good rows are kept though others are refused."""
    kitchen = cast(KitchenRequest, request).kitchen
    reports = read_larder_csv(given.text, actions.core_kitchen(kitchen).larder)
    kept = actions.take_in(kitchen, reports) if given.keep else 0
    return {"rows": reports, "kept": kept}


@router.put("/measures", response={200: MeasureOut})
def save_measure(request: HttpRequest, given: MeasureIn):
    """A measure of the kitchen's own: a ladle, a spoon of 20 mL, its idea of a knob."""
    kitchen = cast(KitchenRequest, request).kitchen
    row = {name: str(value) for name, value in given.dict().items()}
    own = actions.save_measure(kitchen, row)
    return _measure(measure_from_row(own.row), own.pk)


@router.delete("/measures/{measure_id}", response={204: None, 404: Message})
def remove_measure(request: HttpRequest, measure_id: int):
    """Take the kitchen's own away; a shipped one of the same name counts again. Sheets carry
    what their measures held."""
    kitchen = cast(KitchenRequest, request).kitchen
    get_object_or_404(OwnMeasure, kitchen=kitchen, pk=measure_id).delete()
    return Status(204, None)


@router.post("/pans", response={201: PanOut})
def add_pan(request: HttpRequest, given: PanIn):
    kitchen = cast(KitchenRequest, request).kitchen
    return Status(201, _pan(actions.add_pan(kitchen, **given.dict())))


@router.delete("/pans/{pan_id}", response={204: None, 404: Message})
def remove_pan(request: HttpRequest, pan_id: int):
    """Sheets carry their pan with them, so taking one away changes no sauce."""
    kitchen = cast(KitchenRequest, request).kitchen
    get_object_or_404(Pan, kitchen=kitchen, pk=pan_id).delete()
    return Status(204, None)


@router.post("/burners", response={201: BurnerOut})
def add_burner(request: HttpRequest, given: BurnerIn):
    kitchen = cast(KitchenRequest, request).kitchen
    return Status(201, _burner(means.add_burner(kitchen, **given.dict())))


@router.delete("/burners/{burner_id}", response={204: None, 404: Message})
def remove_burner(request: HttpRequest, burner_id: int):
    """Sheets carry their burner with them, as they do their pan."""
    kitchen = cast(KitchenRequest, request).kitchen
    get_object_or_404(Burner, kitchen=kitchen, pk=burner_id).delete()
    return Status(204, None)


@router.get("/means", response=MeansOut)
def list_means(request: HttpRequest):
    """Cooks, things and ways of the kitchen."""
    kitchen = cast(KitchenRequest, request).kitchen
    return {
        "gear": list(Gear.objects.filter(kitchen=kitchen)),
        "kinds": [{"key": k, "name": row["name"], "can": row["can"]} for k, row in kinds().items()],
        "cooks": list(Cook.objects.filter(kitchen=kitchen)),
        "skills": list(SKILLS),
        "ways": list(means.library_of(kitchen).ways.values()),
        "own_ways": means.own_ways(kitchen),
    }


@router.get("/usual", response=UsualOut)
def usual_set(request: HttpRequest):
    """Pans, rings and things most kitchens have, for a fresh one to tick."""
    return begin.usual()


@router.post("/begin", response={200: MeansOut})
def begin_kitchen(request: HttpRequest, given: BeginIn):
    """A fresh kitchen has these; with none of them it says so later. Said twice, it counts once."""
    kitchen = cast(KitchenRequest, request).kitchen
    begin.begin(kitchen, given.pans, given.hob, given.gear)
    return list_means(request)


@router.post("/gear", response={201: GearOut})
def add_gear(request: HttpRequest, given: GearIn):
    return Status(201, means.add_gear(cast(KitchenRequest, request).kitchen, **given.dict()))


@router.delete("/gear/{gear_id}", response={204: None, 404: Message})
def remove_gear(request: HttpRequest, gear_id: int):
    get_object_or_404(Gear, kitchen=cast(KitchenRequest, request).kitchen, pk=gear_id).delete()
    return Status(204, None)


@router.post("/cooks", response={201: CookOut})
def add_cook(request: HttpRequest, given: CookIn):
    return Status(201, means.add_cook(cast(KitchenRequest, request).kitchen, **given.dict()))


@router.delete("/cooks/{cook_id}", response={204: None, 404: Message})
def remove_cook(request: HttpRequest, cook_id: int):
    get_object_or_404(Cook, kitchen=cast(KitchenRequest, request).kitchen, pk=cook_id).delete()
    return Status(204, None)


@router.post("/ways", response={201: Way})
def add_way(request: HttpRequest, given: NewWayIn):
    """A way of the kitchen's own, with figures to begin from."""
    kitchen = cast(KitchenRequest, request).kitchen
    return Status(201, means.add_way(kitchen, given.name, given.does))


@router.put("/ways", response={200: Way})
def save_way(request: HttpRequest, given: WayIn):
    """A way to cook something, as this kitchen does it."""
    return means.save_way(cast(KitchenRequest, request).kitchen, given.row)


@router.delete("/ways/{key}", response={204: None})
def usual_way(request: HttpRequest, key: str):
    """The shipped way again."""
    OwnWay.objects.filter(kitchen=cast(KitchenRequest, request).kitchen, key=key).delete()
    return Status(204, None)
