"""Live work on a sheet: nothing is stored."""

from typing import cast

from django.http import HttpRequest
from ninja import Router

from kestrel.accounts.auth import KitchenRequest
from kestrel.larder.actions import core_kitchen
from kestrel.problems import Problems
from kestrel.sauces.schemas import SheetIn, SolveIn, Worked
from kestrel.sauces.work import solved, worked
from saucier.sheet import Sheet, read_sheet
from saucier.starts import STARTS

router = Router(tags=["work"])


@router.post("/check", response={200: Worked, 422: Problems})
def check_sheet(request: HttpRequest, given: SheetIn):
    """The sheet as it stands, with all its consequences."""
    kitchen = core_kitchen(cast(KitchenRequest, request).kitchen)
    return worked(read_sheet(given.sheet), kitchen)


@router.post("/solve", response={200: Worked, 422: Problems})
def solve_sheet(request: HttpRequest, given: SolveIn):
    """The sheet re-proportioned and scaled to its target."""
    kitchen = core_kitchen(cast(KitchenRequest, request).kitchen)
    have = (given.have.ingredient, given.have.amount) if given.have else None
    return solved(read_sheet(given.sheet), kitchen, given.serves, have, given.exact)


@router.get("/starts", response=list[Sheet])
def starts(request: HttpRequest):
    """Ready-made starting points for a new sauce."""
    return STARTS
