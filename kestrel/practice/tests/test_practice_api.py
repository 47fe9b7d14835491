"""Practice over the API: asked, answered once, kept for each cook."""

from kestrel.practice.models import Round
from kestrel.tests.clients import KitchenTest
from saucier.practice import KINDS


class Practising(KitchenTest):
    def ask(self, kind: str | None = None) -> dict:
        answer = self.client.call("POST", "/practice", {"kind": kind})
        self.assertEqual(answer.status_code, 201, answer.content)
        return answer.body

    def test_every_kind_is_asked_answered_and_kept(self) -> None:
        self.saved(name="Sauce of this kitchen")
        for kind in KINDS:
            asked = self.ask(kind)
            question = asked["question"]
            self.assertEqual(question["kind"], kind)
            row = Round.objects.get(pk=asked["id"])
            # The answer is told only once one was given.
            self.assertNotIn(str(row.answer["why"]), str(asked))
            right = row.answer["right"] or ["14.0"]
            marked = self.client.call("POST", f"/practice/{asked['id']}", {"given": right}).body
            self.assertGreater(marked["marked"]["score"], 0.8, kind)
            self.assertEqual(marked["marked"]["why"], str(row.answer["why"]))
        standing = {one["kind"]: one for one in self.client.call("GET", "/practice").body}
        self.assertEqual(set(standing), set(KINDS))
        self.assertTrue(
            all(one["answered"] == 1 and one["score"] > 0.8 for one in standing.values())
        )
        theirs = self.other.call("GET", "/practice").body
        self.assertTrue(all(one["answered"] == 0 and one["score"] is None for one in theirs))

    def test_it_asks_about_the_kitchens_own(self) -> None:
        self.saved(name="Sauce of this kitchen")
        self.assertIn("Sauce of this kitchen", self.ask("spoon")["question"]["ask"])

    def test_an_empty_kitchen_practises_too(self) -> None:
        for kind in KINDS:
            self.assertTrue(self.ask(kind)["question"]["ask"])

    def test_a_second_answer_does_not_count(self) -> None:
        asked = self.ask("spoon")
        path = f"/practice/{asked['id']}"
        right = Round.objects.get(pk=asked["id"]).answer["right"][0]
        wrong = next(c["key"] for c in asked["question"]["choices"] if c["key"] != right)
        first = self.client.call("POST", path, {"given": [wrong]}).body["marked"]["score"]
        again = self.client.call("POST", path, {"given": [right]}).body["marked"]["score"]
        self.assertEqual(first, again)
        self.assertLess(again, 1.0)

    def test_nonsense_and_strangers(self) -> None:
        self.assertEqual(
            self.fields(self.client.call("POST", "/practice", {"kind": "juggling"})), ["kind"]
        )
        asked = self.ask("flour")
        path = f"/practice/{asked['id']}"
        self.assertEqual(self.fields(self.client.call("POST", path, {"given": ["x"]})), ["given"])
        self.assertEqual(self.client.call("POST", path, {"given": []}).status_code, 422)
        self.assertIsNone(Round.objects.get().score)
        key = asked["question"]["choices"][0]["key"]
        self.assertEqual(self.other.call("POST", path, {"given": [key]}).status_code, 404)

    def test_what_is_left_unanswered_does_not_pile_up(self) -> None:
        for _ in range(8):
            self.ask("spoon")
        self.assertLessEqual(Round.objects.count(), 4)

    def test_what_is_missed_comes_again(self) -> None:
        for kind in KINDS:
            for n in range(6):
                Round.objects.create(
                    kitchen=self.kitchen,
                    user=self.user,
                    kind=kind,
                    question={},
                    answer={},
                    given=["x"],
                    score=0.0 if kind == "level" else 1.0,
                    answered_at=f"2026-01-0{n + 1}T10:00:00Z",
                )
        drawn = [self.ask()["question"]["kind"] for _ in range(40)]
        self.assertGreater(drawn.count("level"), 12)
