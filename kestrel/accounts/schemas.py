from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

Name = Annotated[str, Field(max_length=150)]
Password = Annotated[str, Field(max_length=400)]
"""Longer ones cost more to hash than anybody's are worth."""


class KitchenWays(Schema):
    """How a kitchen writes figures and money."""

    temperature: Literal["C", "F"]
    measures: Literal["metric", "us"]
    tablespoon_ml: Literal[15, 20]
    decimals: Literal[".", ","]
    dates: Literal["day", "month", "iso"]
    currency: Annotated[str, Field(min_length=1, max_length=8)]


class Who(Schema):
    """Who is signed in (``session_id``), and who is cooking (``id``; None: nobody said). ``called``: who is cooking, as records name them (None: a ``shared`` device has to
    ask). ``first_visit``: nobody has an account yet; ``begun``: the kitchen has said what it has."""

    session_id: int | None
    id: int | None
    username: str | None
    called: str | None
    shared: bool
    kitchen: str | None
    ways: KitchenWays | None
    begun: bool
    first_visit: bool


class SignIn(Schema):
    username: Name
    password: Password


class FirstAccount(SignIn):
    kitchen: Annotated[str, Field(max_length=200)]
