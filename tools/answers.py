"""What the API says of the demo kitchen, for the interface's own tests: ``var/answers.json``.

Keyed as the interface asks: ``"GET /api/sauces/{sauce_id}"``. Made anew before each run of the web
suite, so that its tests mount real figures and never go stale.
"""

import json
import os
import sys
from pathlib import Path
from typing import Any

import django

ROOT = Path(__file__).resolve().parent.parent
OUT = ROOT / "var" / "answers.json"


def answers() -> dict[str, Any]:
    """Every answer the places ask for when they open, and some they get when worked with."""
    from django.core.management import call_command
    from django.test import Client

    from kestrel.accounts.models import User

    client = Client()
    told: dict[str, Any] = {}

    def ask(method: str, path: str, body: object = None, **ids: int) -> Any:
        sent = client.generic(
            method, path.format(**ids), json.dumps(body or {}), content_type="application/json"
        )
        if sent.status_code >= 400:
            raise RuntimeError(f"{method} {path}: {sent.status_code} {sent.content!r}")
        told[f"{method} {path}"] = json.loads(sent.content)
        return told[f"{method} {path}"]

    call_command("load_demo", verbosity=0)
    client.force_login(User.objects.get())
    lists = (
        "sauces",
        "sauces/names",
        "sauces/tags",
        "dishes",
        "dishes/names",
        "services",
        "journal",
    )
    for path in ("accounts/me", "larder", "work/starts", *lists):
        ask("GET", f"/api/{path}")
    line = next(row for row in told["GET /api/sauces"]["rows"] if "chicory" in row["name"])
    sauce = ask("GET", "/api/sauces/{sauce_id}", sauce_id=line["id"])
    sheet = {"sheet": sauce["sheet"]}
    ask("POST", "/api/work/check", sheet)
    ask("POST", "/api/work/pans", sheet)
    ask("POST", "/api/work/sure", {**sheet, "mends": True})
    ask(
        "POST",
        "/api/larder/from-label",
        {
            "name": "Ridge cheese",
            "role": "cheese",
            "fat": "31",
            "carbohydrate": "0",
            "sugars": "0",
            "protein": "27",
            "salt": "1.5",
        },
    )
    onion = next(row for row in told["GET /api/sauces"]["rows"] if "Onion" in row["name"])
    path = f"/api/sauces/{onion['id']}"
    inside = {"sheet": json.loads(client.get(path).content)["sheet"]}
    # A second answer of a path is told by what is so of it.
    sent = client.generic(
        "POST", "/api/work/check", json.dumps(inside), content_type="application/json"
    )
    told["a sauce inside"] = json.loads(sent.content)
    ask("GET", "/api/sauces/{sauce_id}/versions", sauce_id=line["id"])
    ask("GET", "/api/work/signs")
    ask("POST", "/api/work/fix", {**sheet, "at": 2, "sign": "caught"})
    ask("POST", "/api/work/read", {"text": "Sauce\n50 g butter\n50 g flour\n600 ml milk"})
    dish = ask("GET", "/api/dishes/{dish_id}", dish_id=told["GET /api/dishes"][0]["id"])
    ask("POST", "/api/dishes/read", {"document": dish["document"], "revision": 0})
    ask("GET", "/api/dishes/starts")
    service = ask(
        "GET", "/api/services/{service_id}", service_id=told["GET /api/services"]["rows"][0]["id"]
    )
    ask("POST", "/api/services/carry-on")
    worked = {"document": service["document"], "pinned": service["pinned"]}
    ask("POST", "/api/services/work", worked)
    ask("GET", "/api/stove/of-service/{service_id}", service_id=service["id"])
    batch = ask("POST", "/api/stove", {"sauce_id": line["id"]})
    ask("GET", "/api/stove")
    ask("GET", "/api/stove/{batch_id}", batch_id=batch["id"])
    ask("GET", "/api/stove/hob")
    ask("POST", "/api/stove/asides", {"name": "Hake", "way": "sear", "minutes": 6})
    ask("POST", "/api/stove/free", {"name": "Cap for the rye toasts"})
    return told


def main() -> int:
    os.environ["DJANGO_SETTINGS_MODULE"] = "kestrel.test_settings"
    django.setup()
    from django.test.utils import get_runner, setup_test_environment, teardown_test_environment

    setup_test_environment()
    from django.conf import settings

    runner = get_runner(settings)(verbosity=0, interactive=False)
    databases = runner.setup_databases()
    try:
        told = answers()
    finally:
        runner.teardown_databases(databases)
        teardown_test_environment()
    OUT.parent.mkdir(exist_ok=True)
    OUT.write_text(json.dumps(told), encoding="utf-8")
    return 0


if __name__ == "__main__":
    sys.exit(main())
