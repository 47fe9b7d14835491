from typing import Annotated

from ninja import Schema
from pydantic import Field

Name = Annotated[str, Field(max_length=150)]
Password = Annotated[str, Field(max_length=400)]
"""Longer ones cost more to hash than anybody's are worth."""


class Who(Schema):
    """Who is signed in. ``called``: who is cooking, as records name them (None: a ``shared`` device has to
    ask). ``first_visit``: nobody has an account yet."""

    username: str | None
    called: str | None
    shared: bool
    kitchen: str | None
    currency: str
    first_visit: bool


class SignIn(Schema):
    username: Name
    password: Password


class FirstAccount(SignIn):
    kitchen: Annotated[str, Field(max_length=200)]
