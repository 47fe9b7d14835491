"""Writes on accounts, one transaction each."""

import secrets

from django.db import transaction

from kestrel.accounts.models import Kitchen, Membership, User
from kestrel.accounts.people import refuse, wrong_name, wrong_password
from saucier.errors import BadInput, problem


def has_no_account() -> bool:
    """Whether nobody can sign in yet: the first visitor then makes the first account."""
    return not User.objects.exists()


@transaction.atomic
def open_kitchen(kitchen_name: str, username: str, password: str) -> User:
    """A new kitchen with its first member. Raises :class:`BadInput` by field."""
    username, kitchen_name = username.strip(), kitchen_name.strip()
    named = 1 <= len(kitchen_name) <= 80
    refuse(
        wrong_name(username),
        None if named else problem("kitchen", "kitchen-is-empty-or-long"),
        wrong_password(password, User(username=username)),
    )
    user = User.objects.create_user(username=username, password=password)
    kitchen = Kitchen.objects.create(name=kitchen_name)
    Membership.objects.create(user=user, kitchen=kitchen, owner=True)
    return user


def somebody_who_was(kitchen: Kitchen, name: str) -> User:
    """Somebody who is named in records of ``kitchen`` that came from elsewhere: no account of theirs."""
    user = User(username=f"record-{secrets.token_hex(12)}", first_name=name, is_active=False)
    user.set_unusable_password()
    user.save()
    return user


@transaction.atomic
def open_first_kitchen(kitchen_name: str, username: str, password: str) -> User:
    """As :func:`open_kitchen`, only while there is no account at all."""
    still_first()
    return open_kitchen(kitchen_name, username, password)


def still_first() -> None:
    """Raises :class:`BadInput` where there is an account already."""
    if not has_no_account():
        raise BadInput.at("username", "there-is-an-account")
