"""Who belongs to a kitchen: invited by a link that expires, each with a sign-in of their own. Writes, one
transaction each."""

import hashlib
import secrets
from collections.abc import Iterable
from datetime import timedelta

from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import transaction
from django.dispatch import Signal
from django.utils import timezone

from kestrel.accounts.models import Invite, Kitchen, Membership, User
from kestrel.accounts.signing import SignedRow
from kestrel.append_only import records
from kestrel.live import hang_up
from saucier.errors import BadInput, Problem, problem

LASTS = timedelta(days=3)
MOST_CALLED = 60
person_left = Signal()
"""Somebody is of a ``kitchen`` no longer: ``user``."""
MOST_OPEN = 30
"""Invitations of a kitchen that are open at once."""


def _digest(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


@transaction.atomic
def invite(kitchen: Kitchen, by: User, for_id: int | None = None) -> tuple[Invite, str]:
    """An invitation into ``kitchen``, and its token: told once, and not kept. With ``for_id``, a member who
    forgot a password: the link gives them a new one. Raises :class:`BadInput` by field."""
    somebody = None
    if for_id is not None:
        somebody = kitchen.members.filter(pk=for_id, is_active=True).first()
        if somebody is None:
            raise BadInput.at("for_id", "is-nobody-here")
    now = timezone.now()
    Invite.objects.filter(kitchen=kitchen, expires_at__lt=now - LASTS).delete()
    if (
        Invite.objects.filter(kitchen=kitchen, used_at=None, expires_at__gt=now).count()
        >= MOST_OPEN
    ):
        raise BadInput.at("for_id", "so-many-invitations", most=MOST_OPEN)
    token = secrets.token_urlsafe(24)
    row = Invite.objects.create(
        kitchen=kitchen,
        digest=_digest(token),
        made_by=by,
        for_user=somebody,
        expires_at=now + LASTS,
    )
    return row, token


def open_invite(token: str) -> Invite | None:
    """The invitation of ``token``, where it still counts."""
    rows = Invite.objects.select_related("kitchen", "for_user")
    return rows.filter(digest=_digest(token), used_at=None, expires_at__gt=timezone.now()).first()


@transaction.atomic
def join(token: str, username: str, called: str, password: str) -> User:
    """Somebody takes an invitation: a new sign-in in its kitchen, or a new password for who it is for (who
    is signed out everywhere by it). Raises :class:`BadInput` by field."""
    row = open_invite(token)
    if row is None:
        raise BadInput.at("token", "invitation-is-over")
    user = row.for_user
    if user is None:
        username, called = username.strip(), called.strip()
        refuse(
            wrong_name(username),
            _wrong_shown_name(
                [row.kitchen], called or username, "called" if called else "username"
            ),
            wrong_password(password, User(username=username)),
        )
        user = User.objects.create_user(username=username, password=password, first_name=called)
        Membership.objects.create(user=user, kitchen=row.kitchen)
    else:
        refuse(wrong_password(password, user))
        user.set_password(password)
        user.save(update_fields=["password"])
        transaction.on_commit(lambda: hang_up(user.pk))
    row.used_at = timezone.now()
    row.save(update_fields=["used_at"])
    return user


def wrong_name(username: str) -> Problem | None:
    """Why nobody new can sign in as ``username``."""
    if not 1 <= len(username) <= 150:
        return problem("username", "username-is-empty-or-long")
    if User.objects.filter(username=username).exists():
        return problem("username", "username-is-taken")
    return None


def wrong_password(password: str, user: User, field: str = "password") -> Problem | None:
    """Why ``password``, given as ``field``, will not do for ``user``."""
    try:
        validate_password(password, user)
    except ValidationError as weak:
        text = " ".join(weak.messages).rstrip(".")
        return problem(field, "password-is-weak", why=text)
    return None


def refuse(*problems: Problem | None) -> None:
    """Raises :class:`BadInput` with those there are."""
    if there := [one for one in problems if one is not None]:
        raise BadInput(*there)


@transaction.atomic
def change_password(user: User, old: str, new: str) -> None:
    """Another password; every other device of theirs is signed out by it. Raises :class:`BadInput`."""
    user = User.objects.select_for_update().get(pk=user.pk)
    if not user.check_password(old):
        raise BadInput.at("old", "password-is-not-that")
    refuse(wrong_password(new, user, "new"))
    user.set_password(new)
    user.save(update_fields=["password"])
    transaction.on_commit(lambda: hang_up(user.pk))


def sign_out_everywhere(user: User) -> None:
    """Every session of ``user`` ends, on whatever device."""
    User.objects.filter(pk=user.pk).update(sign_ins=user.sign_ins + 1)
    user.refresh_from_db()
    hang_up(user.pk)


@transaction.atomic
def call(user: User, called: str) -> None:
    """What ``user`` is called in records from now on; what is written keeps the name of then. Raises
    :class:`BadInput`."""
    called = called.strip()
    refuse(_wrong_shown_name(user.kitchens.all(), called or user.username, "called", user))
    User.objects.filter(pk=user.pk).update(first_name=called)


def _wrong_shown_name(
    kitchens: Iterable[Kitchen], shown: str, field: str, user: User | None = None
) -> Problem | None:
    """Why ``user`` (None: somebody new) cannot be shown as ``shown`` in ``kitchens``: it is too long, or somebody
    there is called so. Letters' case and spaces tell nobody apart."""
    if field == "called" and len(shown) > MOST_CALLED:
        return problem(field, "name-is-too-long", most=MOST_CALLED)
    folded = _folded(shown)
    for kitchen in kitchens:
        others = kitchen.members.all()
        if user is not None:
            others = others.exclude(pk=user.pk)
        if any(_folded(other.called) == folded for other in others):
            return problem(field, "shown-name-is-taken", name=shown)
    return None


def _folded(shown: str) -> str:
    return " ".join(shown.split()).casefold()


@transaction.atomic
def own(kitchen: Kitchen, user_id: int, owner: bool) -> None:
    """Make a member an owner, or no longer one. Raises :class:`BadInput` (``owner``) for the last."""
    row = _member(kitchen, user_id)
    if row.owner and not owner:
        _not_the_last(kitchen)
    row.owner = owner
    row.save(update_fields=["owner"])
    if not owner:
        _take_back_theirs(kitchen, row.user)


@transaction.atomic
def leave(kitchen: Kitchen, user_id: int) -> None:
    """Somebody is of this kitchen no longer: signed out everywhere, named in its records as before. Raises
    :class:`BadInput` (``owner``) for the last owner."""
    row = _member(kitchen, user_id)
    if row.owner:
        _not_the_last(kitchen)
    user = row.user
    row.delete()
    Invite.objects.filter(kitchen=kitchen, for_user=user, used_at=None).delete()
    _take_back_theirs(kitchen, user)
    user.sign_ins += 1
    user.is_active = user.kitchens.exists()
    user.save(update_fields=["sign_ins", "is_active"])
    person_left.send(User, user=user, kitchen=kitchen)
    transaction.on_commit(lambda: hang_up(user.pk))


def who_did(kitchen: Kitchen, user: User, done_by: int | None) -> User:
    """Who did what ``user`` sends: ``done_by``, who was cooking at that device then, where that is told. Somebody who
    was let go since did it all the same. Raises :class:`BadInput` (``done_by``) for somebody who never was here."""
    if done_by is None or done_by == user.pk:
        return user
    doer = User.objects.filter(pk=done_by).first()
    if doer is None or not (kitchen.members.filter(pk=done_by).exists() or signs_in(kitchen, doer)):
        raise BadInput.at("done_by", "is-nobody-of-the-kitchen")
    return doer


def signs_in(kitchen: Kitchen, user: User) -> bool:
    """Whether anything in the records of ``kitchen`` is signed by ``user``."""
    return any(
        model._default_manager.filter(**{model.SIGNER: user, "kitchen": kitchen}).exists()
        for model in records()
        if issubclass(model, SignedRow)
    )


def _take_back_theirs(kitchen: Kitchen, user: User) -> None:
    """Links somebody made who may no longer: none of them opens a way back."""
    Invite.objects.filter(kitchen=kitchen, made_by=user, used_at=None).delete()


def _member(kitchen: Kitchen, user_id: int) -> Membership:
    row = Membership.objects.select_for_update().filter(kitchen=kitchen, user=user_id).first()
    if row is None:
        raise BadInput.at("id", "is-nobody-here")
    return row


def _not_the_last(kitchen: Kitchen) -> None:
    if Membership.objects.filter(kitchen=kitchen, owner=True).count() < 2:
        raise BadInput.at("owner", "is-the-last-owner")
