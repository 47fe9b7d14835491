"""Files that only their owner may read: the kitchen's database, its secret key, its backups."""

import os
import secrets
import tempfile
from pathlib import Path

_BESIDE = ("", "-wal", "-shm", "-journal")
"""What SQLite keeps beside a database."""


def write_for_owner_only() -> None:
    """Every file this process makes from now on is its owner's alone."""
    os.umask(0o077)


def keep_private(database: Path) -> None:
    """Nobody but its owner reads or writes ``database``, nor what SQLite keeps beside it."""
    for suffix in _BESIDE:
        file = database.with_name(database.name + suffix)
        try:
            if file.stat().st_mode & 0o077:
                file.chmod(0o600)
        except OSError:  # not there, or somebody else's: then it is theirs to keep
            continue


def secret_in(file: Path) -> str:
    """The secret kept in ``file``; made there, once, where there is none or it is empty."""
    file.parent.mkdir(exist_ok=True, mode=0o700)
    for _ in range(3):
        try:
            found = file.read_text(encoding="ascii").strip()
        except FileNotFoundError:
            found = ""
        if found:
            if file.stat().st_mode & 0o077:
                file.chmod(0o600)
            return found
        _make(file)
    raise RuntimeError(f"no secret can be kept in {file}")


def _make(file: Path) -> None:
    """A new secret in ``file``, whole or not at all; who comes second leaves the first's."""
    handle, made = tempfile.mkstemp(dir=file.parent)  # readable by its owner only
    with os.fdopen(handle, "w", encoding="ascii") as out:
        out.write(secrets.token_urlsafe(50))
    try:
        if file.exists() and not file.stat().st_size:
            Path(made).replace(file)
            return
        os.link(made, file)
    except FileExistsError:
        pass
    finally:
        Path(made).unlink(missing_ok=True)
