"""Whatever is sent, the answer is one that the API's own description promises, and never an error of ours.

Two ways: requests made up from that description (schemathesis), and sound bodies with one thing wrong in
them. ``FUZZ_EXAMPLES`` and ``FUZZ_MUTATIONS`` make it longer, ``FUZZ_SEED`` another one.
"""

import copy
import json
import os
import random
from collections import Counter
from collections.abc import Iterator
from typing import Any

import hypothesis
import schemathesis
from django.core import signals
from django.core.handlers.wsgi import WSGIHandler
from django.core.management import call_command
from django.db import close_old_connections, connection
from schemathesis import checks
from schemathesis.specs.openapi import checks as of_openapi

from kestrel.accounts.models import User
from kestrel.api import api
from kestrel.door.tries import forget_tries
from kestrel.journal.models import Entry
from kestrel.keeping.models import Kept
from kestrel.practice.models import Round
from kestrel.run_up.models import RunUp
from kestrel.sauces.models import Sauce
from kestrel.service.models import Dish, Service
from kestrel.stove.actions import start
from kestrel.stove.models import Batch, Device
from kestrel.tests.clients import JsonClient, KitchenTest
from saucier.testing import CHEESE_SAUCE, CREAM_REDUCTION

EXAMPLES = int(os.environ.get("FUZZ_EXAMPLES", "2"))
MUTATIONS = int(os.environ.get("FUZZ_MUTATIONS", "150"))
SEED = int(os.environ.get("FUZZ_SEED", "1"))
CHECKS = [
    checks.not_a_server_error,
    of_openapi.status_code_conformance,
    of_openapi.content_type_conformance,
    of_openapi.response_schema_conformance,
]
LEFT_OUT = ("/api/accounts/sign-out", "/api/accounts/first", "/api/accounts/sign-in")
"""These would sign the run out, or wait for a minute; they are looked at below."""
ROWS = {
    "sauce_id": Sauce,
    "dish_id": Dish,
    "service_id": Service,
    "batch_id": Batch,
    "run_up_id": RunUp,
    "entry_id": Entry,
    "kept_id": Kept,
    "device_id": Device,
    "round_id": Round,
}
NASTY: tuple[Any, ...] = (
    None,
    "",
    " ",
    "\ud800",
    "a\x00b",
    "१२",
    "½",
    "1-2/0 cups",
    "9" * 400,
    "x" * 5000,
    "0001-01-01",
    "9999-12-31",
    "9999-12-31T23:59:59+14:00",
    "0001-01-01T00:00:00-14:00",
    "2026-02-30",
    "=1+1",
    True,
    0,
    -1,
    1e-320,
    1e300,
    -1e300,
    2**63,
    -(2**63),
    10**30,
    [],
    {},
    [[]],
    [None],
    {"a": {"b": 1}},
)


class Fuzzed(KitchenTest):
    """A kitchen with everything in it."""

    @classmethod
    def setUpTestData(cls) -> None:
        call_command("load_demo", verbosity=0)
        cls.user = User.objects.get(username="refectory")
        cls.kitchen = cls.user.kitchens.get()
        cls.stranger = cls.user
        newest = Sauce.objects.all()[0].newest
        cls.on, cls.unwritten = (start(cls.kitchen, cls.user, newest) for _ in range(2))
        cls.unwritten.step = len(cls.unwritten.plan["cards"])
        cls.unwritten.save()

    def setUp(self) -> None:
        super().setUp()
        self.client.raise_request_exception = False
        self.client.get("/api/accounts/me")
        self.told: Counter[int] = Counter()
        self.wrong: dict[str, str] = {}
        self.addCleanup(self.none_wrong)
        # As Django's own test client has it: the connection of the test stays.
        for signal in (signals.request_started, signals.request_finished):
            signal.disconnect(close_old_connections)
            self.addCleanup(signal.connect, close_old_connections)

    def none_wrong(self) -> None:
        self.assertFalse(self.wrong, "\n\n".join(self.wrong.values()))

    def in_order(self, path: str, status: int, body: bytes, sent: Any) -> None:
        """One answer, counted; all of them are looked at before anything is told."""
        self.told[status] += 1
        if status >= 500:
            self.wrong.setdefault(
                f"{path} {status}", f"{path} {status}: {sent!r:.1500} {body!r:.200}"
            )


class FromItsDescription(Fuzzed):
    def test_every_route(self) -> None:
        schema = schemathesis.openapi.from_dict(json.loads(json.dumps(api.get_openapi_schema())))
        wsgi = WSGIHandler()
        # In process nobody unpacks what is compressed on the way.
        headers = {
            "X-CSRFToken": self.client.cookies["csrftoken"].value,
            "Accept-Encoding": "identity",
        }
        cookies = {name: one.value for name, one in self.client.cookies.items()}
        rows = {
            name: list(model.objects.values_list("pk", flat=True)) for name, model in ROWS.items()
        }
        failed = []
        for found in schema.get_all_operations():
            operation = found.ok()
            if operation.path in LEFT_OUT:
                continue

            @hypothesis.settings(
                max_examples=EXAMPLES,
                deadline=None,
                derandomize=SEED == 1,
                database=None,
                phases=[hypothesis.Phase.generate],
                suppress_health_check=list(hypothesis.HealthCheck),
                print_blob=False,
            )
            @hypothesis.given(
                case=operation.as_strategy(), pick=hypothesis.strategies.integers(0, 99)
            )
            def one(case: Any, pick: int) -> None:
                for name, known in rows.items():
                    if known and pick < 70 and name in (case.path_parameters or {}):
                        case.path_parameters[name] = known[pick % len(known)]
                case.operation.app = wsgi
                answer = case.call(headers=headers, cookies=cookies)
                self.told[answer.status_code] += 1
                case.validate_response(answer, checks=CHECKS)

            try:
                with rolled_back():
                    one()
            except BaseExceptionGroup as wrong:  # every route is looked at before anything is told
                failed.append(f"{operation.method.upper()} {operation.path}\n{wrong}")
        print(f"\nfuzz, from its description: {sum(self.told.values())} calls, {told(self.told)}")
        self.assertFalse(failed, "\n\n".join(failed))


class SoundButForOneThing(Fuzzed):
    def test_bodies(self) -> None:
        dice = random.Random(SEED)
        sound = list(self.sound_bodies())
        for method, path, body in sound:
            with rolled_back():
                answer = self.client.call(method, path, body)
            self.assertIn(answer.status_code, (200, 201, 204), (path, answer.content))
        for number in range(MUTATIONS):
            method, path, body = sound[number % len(sound)]
            sent = mutated(body, dice)
            with rolled_back():
                answer = self.client.call(method, path, json.dumps(sent))
                self.in_order(f"{method} {path}", answer.status_code, answer.content, sent)
        print(
            f"\nfuzz, sound but for one thing: {sum(self.told.values())} calls, {told(self.told)}"
        )

    def test_whole_texts(self) -> None:
        """What no JSON writer makes."""
        deep = "[" * 5000 + "]" * 5000
        texts: tuple[str | bytes, ...] = (
            b"\xff\xfe",
            b"",
            b"null",
            b"[]",
            b'"\\ud800"',
            b'{"sheet": ' + deep.encode() + b"}",
            b'{"sheet": {"a":' * 3000 + b"1" + b"}" * 3000,
            b'{"sheet": {"name": "\\udc00"}}',
            b'{"\\ud83d": 1}',
            b'{"sheet": 1e999}',
            b'{"sheet": NaN}',
            b'{"sauce_id": ' + b"9" * 5000 + b"}",
            b'{"name": "a\\u0000b"}',
        )
        for method, path, _ in self.sound_bodies():
            for text in texts:
                answer = self.client.call(method, path, text)
                self.in_order(path, answer.status_code, answer.content, text[:60])

    def test_addresses(self) -> None:
        for one in ("9" * 30, "१२", "-1", "0", "%ED%A0%80", "%00", "1e3", "a" * 3000):
            for path in (
                f"/sauces/{one}",
                f"/sauces/{one}/versions",
                f"/dishes/{one}",
                f"/services/{one}",
                f"/services/{one}/production.csv",
                f"/stove/{one}",
                f"/stove/of-service/{one}",
                f"/keeping/{one}",
                f"/keeping/code/{one}",
                f"/journal/of-sauce/{one}",
                f"/journal/of-batch/{one}",
                f"/run-ups/{one}",
                f"/run-ups/{one}/run-sheets.ics",
                f"/larder/ingredients/{one}",
                f"/photos/{one}",
                f"/labels/{one}.svg",
                f"/sauces?q={one}",
                f"/journal?words={one}&since={one}&until={one}&sauce={one}",
                f"/journal/beside?one={one}&other={one}",
                f"/keeping/records?since={one}&until={one}&offset={one}",
            ):
                answer = self.client.get(f"/api{path}")
                self.in_order(path, answer.status_code, answer.content, one)

    def test_signing_in(self) -> None:
        for name in ("\ud800", "a\x00b", "x" * 100_000, "१२", None, 5, [], {}):
            for body in (
                {"username": name, "password": "p"},
                {"username": "ada", "password": name},
            ):
                forget_tries()
                answer = JsonClient().call("POST", "/accounts/sign-in", json.dumps(body))
                self.in_order("sign-in", answer.status_code, answer.content, body)

    def sound_bodies(self) -> Iterator[tuple[str, str, Any]]:
        """Bodies the API takes, each with where it goes."""
        sauce, dish = Sauce.objects.all()[0], Dish.objects.all()[0]
        service = Service.objects.all()[0]
        batch = self.on
        for sheet in (CHEESE_SAUCE, CREAM_REDUCTION, sauce.newest.sheet):
            yield "POST", "/work/check", {"sheet": sheet}
            yield "POST", "/work/solve", {"sheet": sheet}
            yield "POST", "/work/what-if", {"sheet": sheet}
            yield "POST", "/work/pans", {"sheet": sheet}
            yield "POST", "/work/write", {"sheet": sheet, "form": "markdown"}
            yield "POST", "/work/fix", {"sheet": sheet, "sign": "too-thin", "step": 2}
            yield "POST", "/sauces", {"sheet": sheet}
        save = {"sheet": sauce.newest.sheet, "base_version": sauce.version}
        yield "PUT", f"/sauces/{sauce.pk}", save
        ld = {"@type": "Recipe", "name": "A", "recipeIngredient": ["1-2/0 cups milk", "½ l milk"]}
        yield "POST", "/work/read", {"text": json.dumps(ld)}
        yield (
            "POST",
            "/work/read",
            {"text": "60 g butter\n60 g flour\n1 l milk\nSimmer 10 minutes."},
        )
        yield "POST", "/dishes", {"document": dish.document}
        yield "PUT", f"/dishes/{dish.pk}", {"document": dish.document, "revision": dish.revision}
        for path in ("/services", "/services/work"):
            yield "POST", path, {"document": service.document}
        changed = {"document": service.document, "revision": service.revision}
        yield "PUT", f"/services/{service.pk}", changed
        yield "POST", f"/services/{service.pk}/copy", {"day": "2027-01-04"}
        yield "POST", f"/services/{service.pk}/renew", {"sauce_id": sauce.pk, "revision": 1}
        yield "POST", "/stove", {"sauce_id": sauce.pk, "version": 1}
        yield "POST", "/stove/free", {"name": "A", "pan": ""}
        yield "POST", "/stove/asides", {"name": "Hake", "way": "poach", "minutes": 8}
        acts = [
            {
                "kind": "go",
                "key": "a" * 8,
                "at": "2026-11-26T12:00:00Z",
                "from_step": 0,
                "to_step": 1,
            }
        ]
        sent = {"sent_at": "2026-11-26T12:00:00Z", "acts": acts}
        yield "POST", f"/stove/{batch.pk}/acts", sent
        yield "POST", f"/stove/{batch.pk}/sauce", {"name": "B"}
        yield "POST", f"/stove/{batch.pk}/labels", {"copies": 1, "mass_g": 100, "utc_offset_min": 0}
        yield "POST", "/devices", {"name": "Scale", "kind": "scale", "simulated": True}
        yield (
            "POST",
            "/larder/pans",
            {"name": "P", "shape": "straight", "diameter_cm": 20, "depth_cm": 9},
        )
        yield "POST", "/larder/burners", {"name": "R", "kind": "gas", "watts": 2000, "takes_cm": 24}
        yield "POST", "/larder/cooks", {"name": "C", "can": [], "since": None, "until": None}
        yield "PUT", "/larder/habits", {"what": "film", "value": "12"}
        yield "PUT", "/larder/measures", {"name": "ladle", "size": "150", "unit": "mL", "of": ""}
        yield "POST", "/larder/csv", {"text": "key,name\nx,y\n", "keep": True}
        row = self.client.call("GET", "/larder/ingredients/milk-whole").body
        yield "PUT", "/larder/ingredients", {"row": row["row"], "revision": row["revision"]}
        yield (
            "POST",
            "/run-ups",
            {"service_id": service.pk, "day": "2026-11-27", "utc_offset_min": 0},
        )
        done = Batch.objects.filter(status=Batch.Status.DONE, version__isnull=False).first()
        assert done is not None
        cool = {"batch_id": done.pk, "grams": 100, "tray": "baking tray 50 × 30"}
        yield "POST", "/keeping", {**cool, "key": "k" * 8, "place": "fridge"}
        yield "POST", "/keeping/cooling", cool
        yield "PUT", "/keeping/rules", {"rules": {"key": "two-steps-60"}}
        yield (
            "POST",
            "/journal",
            {"batch_id": self.unwritten.pk, "weighed": "900 g", "verdict": "nearly", "note": "n"},
        )
        yield "POST", "/practice", {"kind": "spoon"}


def mutated(body: Any, dice: random.Random) -> Any:
    """``body`` with one place of it, or two, made nasty or taken away."""
    body = copy.deepcopy(body)
    for _ in range(dice.choice((1, 1, 1, 2))):
        places = list(_places(body))
        holder, key = dice.choice(places)
        what = dice.random()
        if what < 0.15:
            del holder[key]
        elif what < 0.25 and isinstance(holder, list):
            holder.extend([copy.deepcopy(holder[key])] * dice.choice((1, 40)))
        elif what < 0.32 and isinstance(holder[key], str):
            holder[key] = holder[key] * 200
        elif what < 0.4 and isinstance(holder[key], int | float):
            holder[key] = holder[key] * dice.choice((-1, 1e6, 1e-9, 1e18))
        else:
            holder[key] = dice.choice(NASTY)
        if not body:
            break
    return body


def _places(body: Any) -> Iterator[tuple[Any, Any]]:
    keys = body.keys() if isinstance(body, dict) else range(len(body))
    for key in list(keys):
        yield body, key
        if isinstance(body[key], dict | list):
            yield from _places(body[key])


class rolled_back:  # noqa: N801  reads as what it does
    """Nothing that is done within stays."""

    def __enter__(self) -> None:
        self.point = connection.savepoint()

    def __exit__(self, *_: object) -> None:
        connection.needs_rollback = False
        connection.savepoint_rollback(self.point)


def told(counts: Counter[int]) -> str:
    return ", ".join(f"{many} × {status}" for status, many in sorted(counts.items()))
