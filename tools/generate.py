"""Files made from the code: the JSON Schemas of the formats, the API's description, its types.

``python -m tools.generate`` writes them; with ``--check`` it fails when one is stale.
"""

import argparse
import json
import os
import subprocess
import sys
import tempfile
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
FORMATS = ROOT / "docs" / "formats"
OPENAPI = ROOT / "web" / "src" / "api" / "openapi.json"
TYPES = ROOT / "web" / "src" / "api" / "schema.d.ts"


def made(folder: Path) -> dict[Path, str]:
    """What each generated file should hold; ``folder`` is for scratch."""
    from saucier.dish import Dish
    from saucier.keeping import Label
    from saucier.run_up import RunUp
    from saucier.service import Service
    from saucier.sheet import Sheet
    from saucier.sheet.reading import schema_of
    from saucier.watch import Reading

    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "kestrel.settings")
    import django

    django.setup()
    from kestrel.api import api

    openapi = json.dumps(api.get_openapi_schema(), indent=1, ensure_ascii=False) + "\n"
    scratch = folder / "openapi.json"
    scratch.write_text(openapi, encoding="utf-8")
    types = folder / "schema.d.ts"
    subprocess.run(
        ["npx", "openapi-typescript", str(scratch), "-o", str(types)],
        cwd=ROOT / "web",
        check=True,
        capture_output=True,
    )
    return {
        **{
            FORMATS / f"{name}.schema.json": json.dumps(
                schema_of(document), indent=2, ensure_ascii=False
            )
            + "\n"
            for name, document in (
                ("sauce", Sheet),
                ("dish", Dish),
                ("service", Service),
                ("run-up", RunUp),
                ("reading", Reading),
                ("label", Label),
            )
        },
        OPENAPI: openapi,
        TYPES: types.read_text(encoding="utf-8"),
    }


def main() -> int:
    parser = argparse.ArgumentParser(prog="tools.generate")
    parser.add_argument("--check", action="store_true")
    options = parser.parse_args()
    stale = []
    with tempfile.TemporaryDirectory() as folder:
        for path, text in made(Path(folder)).items():
            if options.check:
                if not path.exists() or path.read_text(encoding="utf-8") != text:
                    stale.append(path.relative_to(ROOT))
            else:
                path.write_text(text, encoding="utf-8")
    for path in stale:
        print(f"{path} is stale: run “make types”", file=sys.stderr)
    return 1 if stale else 0


if __name__ == "__main__":
    sys.exit(main())
