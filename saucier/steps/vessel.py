"""The pan a sauce is made in and the ring it stands on, as the open document writes them."""

from dataclasses import asdict
from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from saucier.constants import BURNER_EFFICIENCY
from saucier.document import Part, amount_field
from saucier.errors import BadInput
from saucier.heat import Pan
from saucier.heat.pan import PanShape
from saucier.units import Dimension

_CM = {"cm": 1.0, "mm": 0.1, "m": 100.0, "in": 2.54}


def _centimetres(value: Any, field: str) -> Any:
    """A length with its unit in cm; a bare number is cm already."""
    if not isinstance(value, dict):
        return value
    size, number = _CM.get(str(value.get("unit"))), value.get("value")
    if size is None:
        raise BadInput.at(f"{field}.unit", "is-not-a-length", units=tuple(_CM))
    return number * size if isinstance(number, int | float) else number


def _tare_g(value: Any) -> float:
    try:
        amount = amount_field(value)
    except BadInput as bad:
        raise bad.under("tare") from None
    if amount.dimension is not Dimension.WEIGHT:
        raise BadInput.at("tare.unit", "is-not-a-weight", unit=amount.unit)
    return amount.base


class SheetPan(Part):
    """The pan the sauce is made in, inner measures; depth defaults to half the diameter.

    Measures with a unit are read too: ``"diameter": {"value": 240, "unit": "mm"}``, ``"tare":
    {"value": 1.2, "unit": "kg"}``; they are written back as ``diameter_cm`` and ``tare_g``.
    """

    name: Annotated[str, Field(max_length=60)] = "pan"
    shape: PanShape = "straight"
    diameter_cm: Annotated[float, Field(ge=5, le=120)]
    depth_cm: Annotated[float, Field(ge=1, le=100)] | None = None
    tare_g: Annotated[float, Field(ge=0, le=50_000)] = 0.0
    width_cm: Annotated[float, Field(ge=3, le=120)] | None = None
    reactive: bool = False
    heavy: bool = True

    @model_validator(mode="before")
    @classmethod
    def _with_units(cls, data: Any) -> Any:
        if not isinstance(data, dict):
            return data
        data = dict(data)
        for name in ("diameter", "depth", "width"):
            if name in data and f"{name}_cm" not in data:
                data[f"{name}_cm"] = _centimetres(data.pop(name), name)
        if "tare" in data and "tare_g" not in data:
            tare = data.pop("tare")
            data["tare_g"] = tare if isinstance(tare, int | float) else _tare_g(tare)
        return data

    @classmethod
    def of(cls, pan: Pan) -> "SheetPan":
        """A kitchen's pan as a sheet carries it."""
        told = asdict(pan)
        del told["count"]  # a sheet is made in one
        return cls(**told)

    def as_pan(self) -> Pan:
        depth = self.depth_cm or 0.5 * self.diameter_cm
        return Pan(
            name=self.name,
            shape=self.shape,
            diameter_cm=self.diameter_cm,
            depth_cm=depth,
            tare_g=self.tare_g,
            width_cm=self.width_cm,
            reactive=self.reactive,
            heavy=self.heavy,
        )


class SheetBurner(Part):
    """The ring it stands on: rated ``watts`` and ``kind``, which says how much reaches the pot."""

    kind: Literal["gas", "electric", "induction"] = "gas"
    watts: Annotated[float, Field(ge=200, le=20_000)] = 2500.0

    @property
    def efficiency(self) -> float:
        return BURNER_EFFICIENCY[self.kind]
