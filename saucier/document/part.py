"""What the open documents are made of: frozen pieces, numbers within reach."""

from typing import Annotated, Any

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field


def no_bool(value: Any) -> Any:
    if isinstance(value, bool):
        raise ValueError("must be a number")
    if isinstance(value, str):
        return value.strip().replace(",", ".")
    return value


Minutes = Annotated[float, BeforeValidator(no_bool), Field(ge=0, le=1440)]
Celsius = Annotated[float, BeforeValidator(no_bool), Field(ge=-30, le=260)]
Percent = Annotated[float, BeforeValidator(no_bool), Field(ge=0, le=20)]
IngredientKey = Annotated[str, Field(min_length=1, max_length=60)]


class Part(BaseModel):
    """A piece of the sheet: frozen, and strict about fields it does not know."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)
