"""Ingredients, pans, grades and uses."""

import math
from dataclasses import asdict
from typing import Any, cast

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from kestrel.accounts.auth import KitchenRequest
from kestrel.larder import actions
from kestrel.larder.models import Burner, Pan
from kestrel.larder.schemas import BurnerIn, BurnerOut, Catalogue, PanIn, PanOut
from kestrel.problems import Message, Problems
from saucier.demand import USES
from saucier.larder import ORIGINS, Ingredient
from saucier.thickness import EMULSION_EDGES, GRADES, film_mm
from saucier.units import UNITS

router = Router(tags=["larder"])


def _ingredient(row: Ingredient) -> dict[str, Any]:
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
        "allergens": sorted(row.allergens),
        "price_per_kg": row.price_per_kg,
        "origin": ORIGINS[row.origin],
        "spread_pct": row.spread_pct,
    }


def _pan(pan: Pan) -> dict[str, Any]:
    core = pan.core()
    return {"id": pan.pk, "capacity_ml": round(core.capacity_ml), **asdict(core)}


def _burner(burner: Burner) -> dict[str, Any]:
    return {"id": burner.pk, "name": burner.name, "kind": burner.kind, "watts": burner.watts}


@router.get("", response=Catalogue)
def catalogue(request: HttpRequest):
    """Everything a cook chooses from, in one go."""
    kitchen = cast(KitchenRequest, request).kitchen
    return {
        "ingredients": [_ingredient(row) for row in actions.core_kitchen(kitchen).larder.values()],
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
        "uses": [asdict(use) for use in USES.values()],
        "units": list(UNITS),
        "emulsion_edges": EMULSION_EDGES,
    }


@router.post("/pans", response={201: PanOut, 422: Problems})
def add_pan(request: HttpRequest, given: PanIn):
    kitchen = cast(KitchenRequest, request).kitchen
    return Status(201, _pan(actions.add_pan(kitchen, **given.dict())))


@router.delete("/pans/{pan_id}", response={204: None, 404: Message})
def remove_pan(request: HttpRequest, pan_id: int):
    """Sheets carry their pan with them, so taking one away changes no sauce."""
    kitchen = cast(KitchenRequest, request).kitchen
    get_object_or_404(Pan, kitchen=kitchen, pk=pan_id).delete()
    return Status(204, None)


@router.post("/burners", response={201: BurnerOut, 422: Problems})
def add_burner(request: HttpRequest, given: BurnerIn):
    kitchen = cast(KitchenRequest, request).kitchen
    return Status(201, _burner(actions.add_burner(kitchen, **given.dict())))


@router.delete("/burners/{burner_id}", response={204: None, 404: Message})
def remove_burner(request: HttpRequest, burner_id: int):
    """Sheets carry their burner with them, as they do their pan."""
    kitchen = cast(KitchenRequest, request).kitchen
    get_object_or_404(Burner, kitchen=kitchen, pk=burner_id).delete()
    return Status(204, None)
