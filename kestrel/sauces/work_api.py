"""Live work on a sheet: nothing is stored."""

from dataclasses import asdict
from typing import cast

from django.http import HttpRequest
from ninja import Router

from kestrel.accounts.auth import KitchenRequest
from kestrel.larder.actions import core_kitchen
from kestrel.larder.models import Pan
from kestrel.problems import Problems
from kestrel.sauces.schemas import CheckIn, PanAdviceOut, SheetIn, SolveIn, SwitchIn, Worked
from kestrel.sauces.work import solved, switched, worked
from saucier.pans import advise
from saucier.sheet import Sheet, read_sheet
from saucier.sheet.salting import with_salt_target
from saucier.starts import STARTS

router = Router(tags=["work"])


@router.post("/check", response={200: Worked, 422: Problems})
def check_sheet(request: HttpRequest, given: CheckIn):
    """The sheet as it stands, with all its consequences."""
    kitchen = core_kitchen(cast(KitchenRequest, request).kitchen)
    sheet = read_sheet(given.sheet)
    if given.resalt and sheet.target.salt_pct is not None:
        sheet = with_salt_target(sheet, sheet.target.salt_pct, put_step=False)
    return worked(sheet, kitchen)


@router.post("/solve", response={200: Worked, 422: Problems})
def solve_sheet(request: HttpRequest, given: SolveIn):
    """The sheet re-proportioned and scaled to its target."""
    kitchen = core_kitchen(cast(KitchenRequest, request).kitchen)
    have = (given.have.ingredient, given.have.amount) if given.have else None
    return solved(read_sheet(given.sheet), kitchen, given.serves, have, given.exact)


@router.post("/switch", response={200: Worked, 422: Problems})
def switch_school(request: HttpRequest, given: SwitchIn):
    """The sheet made another school's way, solved for the same target, with what changed."""
    kitchen = core_kitchen(cast(KitchenRequest, request).kitchen)
    return switched(read_sheet(given.sheet), kitchen, given.school, given.choice)


@router.post("/pans", response={200: list[PanAdviceOut], 422: Problems})
def which_pan(request: HttpRequest, given: SheetIn):
    """The kitchen's own pans for the sheet, quickest first."""
    kitchen = cast(KitchenRequest, request).kitchen
    pans = [pan.core() for pan in Pan.objects.filter(kitchen=kitchen)]
    return [asdict(one) for one in advise(read_sheet(given.sheet), pans, core_kitchen(kitchen))]


@router.get("/starts", response=list[Sheet])
def starts(request: HttpRequest):
    """Ready-made starting points for a new sauce."""
    return STARTS
