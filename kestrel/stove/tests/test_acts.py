"""Every act at a pot: what it does, what it is refused for, and that it is taken once and carries who did it."""

from typing import Any, get_args

from django.utils import timezone

from kestrel.accounts.models import Membership, User
from kestrel.accounts.people import join, leave
from kestrel.larder.models import Burner
from kestrel.stove.acts import AnyAct
from kestrel.stove.doing import _DOES
from kestrel.stove.models import Act, Batch, Milestone
from kestrel.tests.acts import act, go, one, timer
from kestrel.tests.clients import KitchenTest
from saucier.testing import add, melt, roux, simmer

STEPS = [
    roux(60, 60),
    add("milk-whole", 1, "L"),
    simmer(5),
    melt("cheese-semi-hard", 60),
    {"op": "season", "ingredient": "nutmeg", "amount": "1 g"},
]


class AtAPot(KitchenTest):
    def setUp(self) -> None:
        super().setUp()
        sauce = self.saved(name="Cheese white", steps=STEPS, target={"grade": "nappe"})
        self.pot = self.client.call("POST", "/stove", {"sauce_id": sauce.pk}).body["id"]

    def do(self, *acts: dict[str, Any]) -> dict[str, Any]:
        response = act(self.client, self.pot, *acts)
        self.assertEqual(response.status_code, 200, response.content)
        for told in response.body["acts"]:
            self.assertTrue(told["taken"], told)
        return response.body["batch"]

    def refused(self, *acts: dict[str, Any]) -> list[str]:
        before = Batch.objects.get(pk=self.pot)
        rows = Act.objects.count()
        fields = self.fields(act(self.client, self.pot, *acts))
        # What is refused is rolled back whole, whatever stood before it in the same request.
        after = Batch.objects.get(pk=self.pot)
        self.assertEqual(Act.objects.count(), rows)
        for column in ("step", "began", "timers", "mends", "status", "revision", "ring"):
            self.assertEqual(getattr(after, column), getattr(before, column), column)
        return fields

    def free(self) -> int:
        return self.client.call("POST", "/stove/free", {"name": "By hand", "pan": ""}).body["id"]


class Acts(AtAPot):
    def test_every_kind_has_its_handler_and_its_test(self) -> None:
        kinds = {
            get_args(each.model_fields["kind"].annotation)[0]
            for each in get_args(get_args(AnyAct)[0])
        }
        self.assertEqual(set(_DOES), kinds)
        tested = {name.removeprefix("test_act_").replace("_", "-") for name in dir(self)}
        self.assertLessEqual(kinds, tested)

    def test_act_go(self) -> None:
        self.assertEqual(self.do(go(0, 1), go(1, 2))["step"], 2)
        self.assertEqual(self.refused(go(2, 3), go(3, 99)), ["acts[1].to_step"])

    def test_act_timer_on(self) -> None:
        self.assertEqual([t["seconds"] for t in self.do(timer(60), timer(90))["timers"]], [90])
        self.assertEqual(self.refused(timer(0)), ["acts[0].seconds"])

    def test_act_timer_off(self) -> None:
        self.assertEqual(self.do(timer(60), one("timer-off", name="step"))["timers"], [])

    def test_act_saw(self) -> None:
        told = self.do(go(0, 1), one("saw", step=1, what="level", value=30.0))
        self.assertEqual([a["kind"] for a in told["acts"]], ["go", "saw"])
        self.assertEqual(
            self.refused(one("saw", step=4, what="level", value=30.0)), ["acts[0].step"]
        )

    def test_act_put(self) -> None:
        told = self.do(one("put", step=1, field="amount", grams=900.0))
        self.assertEqual(told["cards"][1]["weighed"][0]["grams"], 900.0)
        self.assertEqual(
            self.refused(one("put", step=1, field="nothing", grams=5.0)), ["acts[0].field"]
        )

    def test_act_poured(self) -> None:
        poured = one("poured", step=1, field="amount", how="jug", before=1000.0, after=200.0)
        told = self.do(go(0, 1), poured)
        [row] = [a for a in told["acts"] if a["kind"] == "poured"]
        self.assertAlmostEqual(row["data"]["grams"], 824.0, delta=15.0)

    def test_act_added(self) -> None:
        pot = self.free()
        put = {"op": "add", "ingredient": "milk-whole", "amount": "300 mL"}
        told = act(self.client, pot, one("added", put=put)).body["batch"]
        self.assertEqual(told["steps"], 1)
        self.assertEqual(self.refused(one("added", put=put)), ["acts[0].kind"])

    def test_act_stands(self) -> None:
        Burner.objects.create(kitchen=self.kitchen, name="front left", kind="gas", watts=2500)
        told = self.do(one("stands", ring="front left", cook="Odd"))
        self.assertEqual((told["ring"], told["cook"]), ("front left", "Odd"))

    def test_act_turned(self) -> None:
        self.do(one("turned", changes=[{"step": 3, "field": "amount", "grams": 90.0}]))
        bad = one("turned", changes=[{"step": 9, "field": "amount", "grams": 90.0}])
        self.assertEqual(self.refused(bad), ["acts[0].changes[0].field"])

    def test_act_mended(self) -> None:
        told = self.do(
            go(0, 1), one("mended", sign="too-thin", title="boil on", do=["boil"], steps=[])
        )
        self.assertEqual([mend["title"] for mend in told["mends"]], ["boil on"])
        self.assertEqual(
            self.refused(one("mended", sign="too-thin", title=" ", do=[], steps=[])),
            ["acts[0].title"],
        )

    def test_act_corrected(self) -> None:
        self.assertEqual(self.refused(one("corrected", step=2, grams=5.0)), ["acts[0].step"])

    def test_act_skipped(self) -> None:
        told = self.do(one("skipped", step=4))
        self.assertTrue(told["cards"][4]["left_out"])
        self.assertEqual(self.refused(one("skipped", step=40)), ["acts[0].step"])

    def test_act_noted(self) -> None:
        told = self.do(one("noted", text="a little sharp", tasted=True))
        self.assertEqual(told["acts"][0]["data"]["text"], "a little sharp")

    def test_act_undone(self) -> None:
        first = one("noted", text="wrong")
        self.assertEqual(self.do(first, one("undone", of=first["key"]))["acts"], [])
        self.assertEqual(Act.objects.filter(batch=self.pot).count(), 2)

    def test_act_through(self) -> None:
        late = act(self.client, self.pot, one("through")).body["acts"][0]
        self.assertFalse(late["taken"])
        aside = self.client.call(
            "POST", "/stove/asides", {"name": "Hake", "way": "boil-pasta", "minutes": 5}
        )
        told = act(self.client, aside.body["id"], one("through")).body["batch"]
        self.assertEqual(told["status"], "done")

    def test_act_left(self) -> None:
        self.assertEqual(self.do(one("left"))["status"], "left")
        self.assertFalse(act(self.client, self.pot, one("left")).body["acts"][0]["taken"])

    def test_act_back(self) -> None:
        self.assertEqual(self.do(one("left"), one("back"))["status"], "on")
        kinds = Milestone.objects.filter(batch=self.pot).values_list("kind", flat=True)
        self.assertEqual(list(kinds), ["began", "left", "back"])


class WhoDidIt(AtAPot):
    def somebody(self, name: str) -> User:
        invite = self.client.call("POST", "/people/invites", {}).body["path"]
        return join(invite.rsplit("/", 1)[1], name, name.title(), "quiet-ridge-42")

    def test_what_was_done_offline_carries_who_did_it_then(self) -> None:
        tove = self.somebody("tove")
        self.do({**one("noted", text="hers"), "done_by": tove.pk}, one("noted", text="mine"))
        rows = Act.objects.filter(batch=self.pot).order_by("pk")
        self.assertEqual(
            [(row.by_name, row.session_name) for row in rows], [("Tove", "ada"), ("ada", "ada")]
        )

    def test_somebody_who_was_let_go_since_did_it_all_the_same(self) -> None:
        tove = self.somebody("tove")
        self.do({**one("noted", text="first"), "done_by": tove.pk})
        leave(self.kitchen, tove.pk)
        self.assertFalse(Membership.objects.filter(user=tove).exists())
        self.do({**one("noted", text="later"), "done_by": tove.pk})
        stranger = {**one("noted", text="nobody"), "done_by": self.stranger.pk}
        self.assertEqual(self.refused(stranger), ["acts[0].done_by"])

    def test_renaming_changes_no_old_line(self) -> None:
        self.do(one("noted", text="before"))
        self.client.call("PUT", "/people/me/called", {"called": "The keeper"})
        self.do(one("noted", text="after"))
        told = self.client.call("GET", f"/stove/{self.pot}").body["acts"]
        self.assertEqual([row["by"] for row in told], ["ada", "The keeper"])

    def test_an_act_that_bears_the_key_of_another_is_refused_not_swallowed(self) -> None:
        first = one("noted", text="here")
        self.do(first)
        pot = self.free()
        self.assertEqual(self.fields(act(self.client, pot, first)), ["acts[0].key"])
        other_kind = {**one("left"), "key": first["key"]}
        self.assertEqual(self.refused(other_kind), ["acts[0].key"])

    def test_nothing_is_dated_in_the_future(self) -> None:
        ahead = {**one("noted", text="ahead"), "at": "2191-01-01T00:00:00Z"}
        self.do(ahead)
        self.assertLessEqual(Act.objects.get(key=ahead["key"]).at, timezone.now())
