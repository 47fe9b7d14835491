"""Live work on a sheet: nothing is stored."""

from typing import Any, cast

from django.db.models import F
from django.http import HttpRequest
from ninja import Router

from kestrel.accounts.auth import KitchenRequest
from kestrel.larder.actions import core_kitchen, proposed
from kestrel.larder.models import Pan
from kestrel.sauces import work
from kestrel.sauces.models import SauceVersion
from kestrel.sauces.schemas import (
    CheckIn,
    FixIn,
    ReadIn,
    RowsIn,
    SettledIn,
    SheetIn,
    Signs,
    SolveIn,
    SureIn,
    SwapIn,
    SwitchIn,
    WhatIfIn,
    WriteIn,
)
from kestrel.sauces.work import Mended, Moved, RecipeRead, WhatIf, Worked, read_typed
from saucier.document import amount_field
from saucier.errors import BadInput
from saucier.exchange import File, MeantFor, Settled, written
from saucier.kitchen import Kitchen
from saucier.pans import WhichPan, which_pan
from saucier.rescue import KINDS, SIGNS, Seen, case_at, seen_pot
from saucier.sheet import Sheet, with_measures
from saucier.sheet.salting import with_salt_target
from saucier.starts import STARTS
from saucier.sure import Sure, how_sure
from saucier.swaps import Swap, swaps_for
from saucier.units import Amount

router = Router(tags=["work"])


@router.post("/check", response={200: Worked})
def check_sheet(request: HttpRequest, given: CheckIn):
    """The sheet as it stands, with all its consequences."""
    kitchen = core_kitchen(cast(KitchenRequest, request).kitchen)
    sheet = read_typed(given.sheet, kitchen)
    if given.resalt and sheet.target.salt_pct is not None:
        sheet = with_salt_target(sheet, sheet.target.salt_pct, put_step=False)
    return work.worked(sheet, kitchen)


@router.post("/solve", response={200: Worked})
def solve_sheet(request: HttpRequest, given: SolveIn):
    """The sheet re-proportioned and scaled to its target."""
    kitchen = core_kitchen(cast(KitchenRequest, request).kitchen)
    have = (given.have.ingredient, given.have.amount) if given.have else None
    sheet = read_typed(given.sheet, kitchen)
    if given.written_in is not None:
        sheet = work.moved_to_its_pan(sheet, given.written_in.dict(), kitchen)
    return work.solved(sheet, kitchen, given.serves, have, given.exact)


@router.post("/switch", response={200: Worked})
def switch_school(request: HttpRequest, given: SwitchIn):
    """The sheet made another school's way, solved for the same target, with what changed."""
    kitchen = core_kitchen(cast(KitchenRequest, request).kitchen)
    return work.switched(read_typed(given.sheet, kitchen), kitchen, given.school, given.choice)


@router.post("/pans", response={200: WhichPan})
def try_pans(request: HttpRequest, given: SheetIn):
    """The kitchen's own pans for the sheet, the one to reach for first."""
    owner = cast(KitchenRequest, request).kitchen
    kitchen = core_kitchen(owner)
    pans = [pan.core() for pan in Pan.objects.filter(kitchen=owner)]
    return which_pan(read_typed(given.sheet, kitchen), pans, kitchen)


@router.post("/sure", response={200: Sure | None})
def sure(request: HttpRequest, given: SureIn):
    """How surely the sheet lands in its grade, what makes the doubt and what mends it; null where it
    has no grade. It plays some thousand pots: asked for beside the live edit, not with it."""
    kitchen = core_kitchen(cast(KitchenRequest, request).kitchen)
    return how_sure(read_typed(given.sheet, kitchen), kitchen, mends=given.mends)


@router.get("/starts", response=list[Sheet])
def starts(request: HttpRequest):
    """Ready-made starting points for a new sauce."""
    return STARTS


@router.post("/what-if", response={200: WhatIf})
def what_if(request: HttpRequest, given: WhatIfIn):
    """The sheet with levers pulled to values; nothing is solved."""
    kitchen = core_kitchen(cast(KitchenRequest, request).kitchen)
    return work.what_if(read_typed(given.sheet, kitchen), kitchen, given.pulls)


@router.post("/swaps", response={200: list[Swap]})
def swaps(request: HttpRequest, given: SwapIn):
    """What may stand in for an ingredient that is not there."""
    kitchen = core_kitchen(cast(KitchenRequest, request).kitchen)
    return swaps_for(read_typed(given.sheet, kitchen), given.ingredient, kitchen)


@router.get("/signs", response=Signs)
def signs(request: HttpRequest):
    """What can be wrong with a sauce, and the kinds an unknown pot may be."""
    return {"signs": SIGNS, "kinds": KINDS.values()}


@router.post("/fix", response={200: Mended})
def fix(request: HttpRequest, given: FixIn):
    """Remedies for a sheet after one of its steps, as it was found, or for a pot seen for the
    first time."""
    kitchen = core_kitchen(cast(KitchenRequest, request).kitchen)
    seen = given.seen
    amount = _amount_seen(seen.amount) if seen and seen.amount else None
    if given.sheet is None:
        if seen is None or amount is None or seen.viscosity_pa_s is None:
            raise BadInput.at("seen", "seen-is-missing")
        case = seen_pot(
            Seen(
                kind=seen.kind,
                amount=amount,
                viscosity_pa_s=seen.viscosity_pa_s,
                temperature_c=seen.temperature_c,
                wanted=seen.wanted,
                serving_c=seen.serving_c,
                salt_pct=seen.salt_pct,
            ),
            kitchen,
        )
    else:
        sheet = read_typed(given.sheet, kitchen)
        at = len(sheet.steps) - 1 if given.at is None else given.at
        case = case_at(sheet, at, kitchen, seen.viscosity_pa_s if seen else None, amount)
    return work.mended(case, given.sign)


def _amount_seen(amount: Any) -> Amount:
    try:
        return amount_field(amount)
    except BadInput as bad:
        raise bad.under("seen.amount") from None


@router.post("/read", response={200: RecipeRead})
def read(request: HttpRequest, given: ReadIn):
    """A recipe from elsewhere; what could not be read comes back for the cook to settle."""
    kitchen = core_kitchen(cast(KitchenRequest, request).kitchen)
    wanted = MeantFor(**given.wanted.dict()) if given.wanted else None
    return work.read_from(given.text, kitchen, _settled(given.settled, kitchen), wanted)


def _settled(given: list[SettledIn], kitchen: Kitchen) -> dict[int, Settled]:
    settled = {}
    for one in given:
        amount = None
        if one.ingredient and one.amount not in (None, ""):
            whole = {"ingredient": one.ingredient, "amount": one.amount}
            try:
                amount = amount_field(
                    with_measures(whole, kitchen.measures, kitchen.larder)["amount"]
                )
            except BadInput as bad:
                raise bad.under(f"settled[{one.line}].amount") from None
        settled[one.line] = Settled(one.ingredient, amount)
    return settled


@router.post("/write", response={200: File})
def write(request: HttpRequest, given: WriteIn):
    """The sheet as a file: our own format, a schema.org recipe, Markdown."""
    kitchen = core_kitchen(cast(KitchenRequest, request).kitchen)
    return written(read_typed(given.sheet, kitchen), kitchen, given.form)


@router.post("/larder-moves", response={200: list[Moved]})
def larder_moves(request: HttpRequest, given: RowsIn):
    """Which sauces a change of larder rows would move, and by how much. Nothing is stored."""
    owner = cast(KitchenRequest, request).kitchen
    newest = SauceVersion.objects.filter(
        number=F("sauce__version"), sauce__kitchen=owner, sauce__deleted_at=None
    )
    sheets = newest.order_by("sauce__name").values_list("sauce_id", "sheet")
    return work.moved_by(core_kitchen(owner), proposed(owner, given.rows), sheets)
