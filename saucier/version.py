"""The one version number, read from where it stands: ``pyproject.toml``."""

import tomllib
from pathlib import Path

_PROJECT = Path(__file__).resolve().parent.parent / "pyproject.toml"
VERSION: str = tomllib.loads(_PROJECT.read_text(encoding="utf-8"))["project"]["version"]
