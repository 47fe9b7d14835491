"""The method of a sauce: which school a cook follows, where good cooks disagree."""

from typing import Annotated

from pydantic import Field

from saucier.document import Minutes, Part
from saucier.steps.add import LiquidIn


class Method(Part):
    """``fat_to_flour`` by weight (None: as the roux is written), how ``liquid_in`` meets the
    roux, ``simmer_minutes`` the school asks for."""

    fat_to_flour: Annotated[float, Field(ge=0.3, le=4)] | None = None
    liquid_in: LiquidIn = "cold-gradual"
    simmer_minutes: Minutes | None = None
