"""Scales and probes: their tokens, what they stand under, what their readings tell."""

import asyncio
import json
from datetime import timedelta
from typing import Any

from django.utils import timezone

from kestrel import live
from kestrel.stove.models import Batch, Device, Reading
from kestrel.tests.acts import act, go
from kestrel.tests.clients import JsonClient, KitchenTest
from saucier.testing import CREAM_REDUCTION, add, reduce_to

PAN = {"shape": "straight", "diameter_cm": 20, "depth_cm": 10, "tare_g": 1200}


class Devices(KitchenTest):
    def setUp(self) -> None:
        super().setUp()
        steps = [add("cream-35", 500), reduce_to(share=0.6)]
        sauce = self.saved(**{**CREAM_REDUCTION, "steps": steps, "pan": PAN})
        self.batch = self.client.call("POST", "/stove", {"sauce_id": sauce.pk}).body

    def device(self, kind: str = "scale", **more: Any) -> dict:
        body = {"name": "under the big ring", "kind": kind, **more}
        made = self.client.call("POST", "/devices", body)
        self.assertEqual(made.status_code, 201, made.body)
        return made.body

    def under(self, device: dict, batch: int | None) -> Any:
        return self.client.call("PUT", f"/devices/{device['id']}", {"batch_id": batch})

    def send(self, token: str, body: Any) -> Any:
        """As anything sends it that can send HTTP: no cookie, no CSRF token."""
        client = JsonClient()
        response = client.generic(
            "POST",
            "/api/readings",
            json.dumps(body),
            content_type="application/json",
            headers={"Authorization": f"Bearer {token}"},
        )
        response.body = json.loads(response.content)
        return response

    def test_a_token_is_told_once_and_only_its_digest_is_kept(self) -> None:
        made = self.device()
        [listed] = self.client.call("GET", "/devices").body
        self.assertNotIn("token", listed)
        self.assertNotIn(made["token"], Device.objects.get().digest)
        self.assertEqual(self.other.call("GET", "/devices").body, [])

    def test_devices_make_sense(self) -> None:
        for change, field in (({"name": " "}, "name"), ({"kind": "sieve"}, "kind")):
            body = {"name": "x", "kind": "scale", **change}
            self.assertEqual(self.fields(self.client.call("POST", "/devices", body)), [field])

    def test_what_is_sent_each_second_is_kept_every_other(self) -> None:
        for kind, field, first in (("scale", "mass_g", 1700.0), ("probe", "temperature_c", 80.0)):
            made = self.device(kind, name=f"quick {kind}", simulated=True)
            self.under(made, self.batch["id"])
            began = timezone.now()
            for second in range(60):
                at = (began + timedelta(seconds=second)).isoformat()
                answer = self.send(made["token"], [{field: first - 0.4 * second, "at": at}])
                self.assertEqual(answer.status_code, 200, answer.body)
            with self.subTest(kind):
                rows = Reading.objects.filter(device=made["id"]).order_by("at")
                self.assertEqual(rows.count(), 30)
                self.assertAlmostEqual(rows.last().value, first - 0.4 * 58)
                self.assertEqual(Device.objects.get(pk=made["id"]).value, first - 0.4 * 59)

    def test_readings_tell_the_minutes_left(self) -> None:
        made = self.device(simulated=True)
        self.under(made, self.batch["id"])
        act(self.client, self.batch["id"], go(0, 1))
        began = timezone.now()
        for second in range(0, 420, 10):  # boils after two minutes, then 25 g a minute
            at = began + timedelta(seconds=second)
            grams = 1700.0 - 25.0 * max(0.0, second / 60.0 - 2.0)
            told = self.send(made["token"], {"mass_g": grams, "at": at.isoformat()})
            self.assertEqual(told.status_code, 200, told.body)
        # 500 g less 121 by now, down to 300: 79 g more at 25 a minute.
        self.assertAlmostEqual(told.body["minutes_left"], 3.2, delta=0.6)
        self.assertLess(told.body["minutes_low"], told.body["minutes_left"])
        read = self.client.call("GET", f"/stove/{self.batch['id']}").body
        watched = read["followed"]["watched"]
        self.assertAlmostEqual(watched["mass_g"]["value"], 379, delta=8)
        self.assertAlmostEqual(watched["goal"]["scale_g"], 1500, delta=20)
        self.assertEqual(read["devices"][0]["value"], 1700.0 - 25.0 * (410 / 60 - 2))

    def test_the_scale_tells_what_has_gone_in_since_the_step_began(self) -> None:
        made = self.device(simulated=True)
        self.under(made, self.batch["id"])
        at = timezone.now() + timedelta(seconds=1)
        for seconds, grams in ((0, 1201), (5, 1400), (10, 1689)):
            moment = (at + timedelta(seconds=seconds)).isoformat()
            self.send(made["token"], {"mass_g": grams, "at": moment})
        read = self.client.call("GET", f"/stove/{self.batch['id']}").body
        self.assertEqual(read["poured_g"], 488)
        act(self.client, self.batch["id"], go(0, 1))
        read = self.client.call("GET", f"/stove/{self.batch['id']}").body
        self.assertIn(read["poured_g"], (None, 0))

    def test_several_at_once_and_not_every_one_is_kept(self) -> None:
        made = self.device()
        self.under(made, self.batch["id"])
        at = timezone.now() - timedelta(minutes=1)
        several = [
            {"mass_g": 1700.0, "at": (at + timedelta(milliseconds=200 * n)).isoformat()}
            for n in range(100)
        ]
        self.assertEqual(self.send(made["token"], several).body["taken"], 100)
        self.assertLess(Reading.objects.count(), 12)

    def test_what_is_no_reading_is_refused_by_field(self) -> None:
        made = self.device()
        for body, field in (
            ({}, "mass_g"),
            ({"mass_g": 5, "temperature_c": 5}, "mass_g"),
            ({"temperature_c": 50}, "[0].temperature_c"),
            ({"mass_g": 1e9}, "mass_g"),
            ({"mass_g": "heavy"}, "mass_g"),
            ({"mass_g": 5, "at": "2026-11-26T10:00:00"}, "at"),
            ([], ""),
            ([{"mass_g": 5}, 7], "[1]"),
            ([{"mass_g": 5}, {"mass_g": -1e9}], "[1].mass_g"),
        ):
            with self.subTest(str(body)):
                fields = self.fields(self.send(made["token"], body))
                self.assertEqual(fields, [field])

    def test_a_wrong_token_and_a_stranger(self) -> None:
        made = self.device()
        self.assertEqual(self.send("nobody", {"mass_g": 5}).status_code, 401)
        stranger = self.other.call("PUT", f"/devices/{made['id']}", {"batch_id": None})
        self.assertEqual(stranger.status_code, 404)
        self.assertEqual(self.other.call("DELETE", f"/devices/{made['id']}").status_code, 404)
        self.client.call("DELETE", f"/devices/{made['id']}")
        self.assertEqual(self.send(made["token"], {"mass_g": 5}).status_code, 401)

    def test_one_scale_under_a_pot_and_none_under_what_is_off(self) -> None:
        first, second = self.device(), self.device()
        self.under(first, self.batch["id"])
        self.under(second, self.batch["id"])
        told = [one["batch_id"] for one in self.client.call("GET", "/devices").body]
        self.assertEqual(told, [None, self.batch["id"]])
        Batch.objects.update(status="done")
        self.assertEqual(self.fields(self.under(first, self.batch["id"])), ["batch_id"])
        self.assertEqual(self.send(second["token"], {"mass_g": 5}).body["minutes_left"], None)
        self.assertEqual(Reading.objects.count(), 0)

    def test_a_clock_far_ahead_is_not_believed_unless_it_is_simulated(self) -> None:
        made = self.device()
        self.under(made, self.batch["id"])
        ahead = (timezone.now() + timedelta(hours=5)).isoformat()
        self.send(made["token"], {"mass_g": 1700, "at": ahead})
        self.assertLess(Reading.objects.get().at, timezone.now() + timedelta(seconds=5))


class Listening(KitchenTest):
    def test_screens_of_the_kitchen_hear_and_no_others(self) -> None:
        async def both() -> tuple[list[str], list[str]]:
            ours, theirs = live._stream(1, 7), live._stream(2, 8)
            heard: tuple[list[str], list[str]] = ([], [])
            for stream, into in ((ours, heard[0]), (theirs, heard[1])):
                into.append(await anext(stream))
            await asyncio.to_thread(live.tell, 1, "batch", {"id": 7})
            heard[0].append(await asyncio.wait_for(anext(ours), 2.0))
            self.assertEqual(live.listening(1), 1)
            await ours.aclose()
            await theirs.aclose()
            return heard

        ours, theirs = asyncio.run(both())
        self.assertEqual(ours[1], 'event: batch\ndata: {"id": 7}\n\n')
        self.assertEqual(theirs, ["event: hello\ndata: {}\n\n"])
        self.assertEqual(live.listening(1), 0)

    def test_a_screen_that_sleeps_is_told_to_look_at_everything(self) -> None:
        async def slow() -> list[str]:
            stream = live._stream(1, 7)
            await anext(stream)
            for n in range(live.WAITING + 5):
                live.tell(1, "batch", {"id": n})
            await asyncio.sleep(0.05)
            heard = [await anext(stream)]
            await stream.aclose()
            return heard

        self.assertEqual(asyncio.run(slow()), ["event: look\ndata: {}\n\n"])

    def test_only_for_members(self) -> None:
        response = JsonClient().get("/api/live")
        self.assertEqual(response.status_code, 401)
