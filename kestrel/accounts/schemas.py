from ninja import Schema


class Who(Schema):
    """Who is signed in. ``first_visit``: nobody has an account yet."""

    username: str | None
    kitchen: str | None
    currency: str
    first_visit: bool


class SignIn(Schema):
    username: str
    password: str


class FirstAccount(SignIn):
    kitchen: str
