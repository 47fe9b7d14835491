from kestrel.larder.actions import add_pan
from kestrel.sauces.models import Sauce, SauceVersion
from kestrel.tests.clients import KitchenTest
from saucier.sheet import read_sheet
from saucier.sheet.document import FAMILIES
from saucier.testing import CHEESE_SAUCE, CREAM_REDUCTION


def changed(**change: object) -> dict:
    return {**CHEESE_SAUCE, **change}


class Saving(KitchenTest):
    def test_new_save_list_search(self) -> None:
        made = self.client.call("POST", "/sauces", {"sheet": CHEESE_SAUCE})
        self.assertEqual(made.status_code, 201)
        self.assertEqual(made.body["outcome"]["grade"], "binding")
        self.client.call("POST", "/sauces", {"sheet": {**CREAM_REDUCTION, "name": "Juniper cream"}})
        names = [row["name"] for row in self.client.call("GET", "/sauces").body["rows"]]
        self.assertEqual(names, ["Juniper cream", "cheese sauce"])
        found = self.client.call("GET", "/sauces?q=CHEESE").body["rows"]
        self.assertEqual([row["name"] for row in found], ["cheese sauce"])
        self.assertEqual(self.client.call("GET", "/sauces?q=zzz").body["rows"], [])

    def test_versions_are_kept_and_never_rewritten(self) -> None:
        sauce = self.saved()
        path = f"/sauces/{sauce.pk}"
        body = {"sheet": changed(name="second"), "base_version": 1}
        self.assertEqual(self.client.call("PUT", path, body).body["version"], 2)
        same = {"sheet": changed(name="second"), "base_version": 2}
        self.assertEqual(self.client.call("PUT", path, same).body["version"], 2)
        found = self.client.call("GET", f"{path}/versions").body
        self.assertEqual([v["number"] for v in found], [2, 1])
        self.assertEqual(found[1]["sheet"]["name"], "cheese sauce")
        with self.assertRaises(TypeError):
            SauceVersion.objects.first().save()

    def test_second_window_is_told_and_shown_the_difference(self) -> None:
        sauce = self.saved()
        path = f"/sauces/{sauce.pk}"
        first = {"sheet": changed(name="from the first window"), "base_version": 1}
        self.client.call("PUT", path, first)
        steps = [dict(step) for step in CHEESE_SAUCE["steps"]]
        steps[1] = {**steps[1], "amount": {"value": 900, "unit": "mL"}}
        second = self.client.call("PUT", path, {"sheet": changed(steps=steps), "base_version": 1})
        self.assertEqual(second.status_code, 409)
        places = {d["where"]: (d["theirs"], d["yours"]) for d in second.body["differences"]}
        self.assertEqual(places["steps[1].amount"], ("1 L", "900 mL"))
        self.assertEqual(places["name"], ("from the first window", "cheese sauce"))
        self.assertEqual(second.body["made_by"], "ada")
        self.assertEqual(Sauce.objects.get().newest.sheet["name"], "from the first window")
        onto = {"sheet": changed(steps=steps), "base_version": second.body["version"]}
        self.assertEqual(self.client.call("PUT", path, onto).body["version"], 3)

    def test_copy_rename_delete_restore(self) -> None:
        sauce = self.saved()
        path = f"/sauces/{sauce.pk}"
        self.assertEqual(
            self.client.call("POST", f"{path}/copy").body["name"], "cheese sauce (copy)"
        )
        body = {"name": "Chicory sauce", "base_version": 1}
        self.assertEqual(
            self.client.call("POST", f"{path}/rename", body).body["name"], "Chicory sauce"
        )
        stale = self.client.call("POST", f"{path}/rename", {**body, "name": "Another"})
        self.assertEqual(stale.status_code, 409)
        empty = self.client.call("POST", f"{path}/rename", {"name": "  ", "base_version": 2})
        self.assertEqual(self.fields(empty), ["name"])
        self.assertEqual(self.client.call("DELETE", path).status_code, 204)
        self.assertEqual(len(self.client.call("GET", "/sauces").body["rows"]), 1)
        self.client.call("POST", f"{path}/restore")
        self.assertEqual(len(self.client.call("GET", "/sauces").body["rows"]), 2)

    def test_two_thousand_a_page_at_a_time(self) -> None:
        first = self.client.call("POST", "/sauces", {"sheet": CHEESE_SAUCE}).body
        sauce = Sauce.objects.get(pk=first["id"])
        newest = sauce.newest
        many = Sauce.objects.bulk_create(
            Sauce(kitchen=sauce.kitchen, name=f"Numbered {n:04}", family="velouté")
            for n in range(2000)
        )
        SauceVersion.objects.bulk_create(
            SauceVersion(sauce=one, number=1, sheet=newest.sheet, outcome=newest.outcome)
            for one in many
        )
        page = self.client.call("GET", "/sauces?q=numbered&offset=120&most=40").body
        self.assertEqual(page["total"], 2000)
        names = [row["name"] for row in page["rows"]]
        self.assertEqual(names, [f"Numbered {n:04}" for n in range(120, 160)])
        with self.assertNumQueries(5):  # no more than for one sauce
            self.client.call("GET", "/sauces?most=200")
        self.assertEqual(len(self.client.call("GET", "/sauces/names").body), 2001)
        for query in ("most=0", "most=201", "offset=-1", "sort=colour"):
            self.assertEqual(self.client.call("GET", f"/sauces?{query}").status_code, 422, query)

    def test_found_again_by_star_tag_and_when_it_was_cooked(self) -> None:
        made = [
            self.client.call("POST", "/sauces", {"sheet": {**CHEESE_SAUCE, "name": name}}).body
            for name in ("Ash", "Birch", "Cedar")
        ]
        ash, birch, cedar = (one["id"] for one in made)
        marks = {"favourite": True, "tags": ["winter", " night  shift ", "Winter"]}
        row = self.client.call("PUT", f"/sauces/{birch}/marks", marks).body
        self.assertEqual((row["favourite"], row["tags"]), (True, ["winter", "night shift"]))
        self.assertEqual(row["version"], 1)

        def found(query: str) -> list[str]:
            return [one["name"] for one in self.client.call("GET", f"/sauces?{query}").body["rows"]]

        self.assertEqual(found("favourites=true"), ["Birch"])
        self.assertEqual(found("tag=night+shift"), ["Birch"])
        self.assertEqual(found("tag=night"), [])
        self.assertEqual(found("q=shift"), ["Birch"])
        self.assertEqual(self.client.call("GET", "/sauces/tags").body, ["night shift", "winter"])
        self.client.call("POST", "/stove", {"sauce_id": cedar})
        self.assertEqual(found("sort=cooked"), ["Cedar", "Ash", "Birch"])
        self.client.call("POST", f"/sauces/{ash}/rename", {"name": "Ash tree", "base_version": 1})
        self.assertEqual(found("sort=changed")[0], "Ash tree")
        self.assertEqual(self.other.call("PUT", f"/sauces/{birch}/marks", marks).status_code, 404)
        for tags, field in (
            (["a|b"], "tags[0]"),
            (["ok", " "], "tags[1]"),
            (["x" * 31], "tags[0]"),
        ):
            answer = self.client.call(
                "PUT", f"/sauces/{birch}/marks", {"favourite": False, "tags": tags}
            )
            self.assertEqual(answer.status_code, 422)
            self.assertEqual(answer.body["problems"][0]["field"], field)
        self.assertEqual(found("favourites=true"), ["Birch"])

    def test_strangers_see_nothing(self) -> None:
        path = f"/sauces/{self.saved().pk}"
        self.assertEqual(self.other.call("GET", "/sauces").body["rows"], [])
        for method, end, body in (
            ("GET", "", None),
            ("PUT", "", {"sheet": CHEESE_SAUCE, "base_version": 1}),
            ("POST", "/copy", None),
            ("POST", "/rename", {"name": "x", "base_version": 1}),
            ("DELETE", "", None),
            ("POST", "/restore", None),
            ("GET", "/versions", None),
        ):
            self.assertEqual(self.other.call(method, path + end, body).status_code, 404, end)

    def test_one_query_for_the_list(self) -> None:
        for number in range(5):
            self.saved(name=f"sauce {number}")
        self.client.call("GET", "/sauces")
        with self.assertNumQueries(5):  # session, user, kitchen, a page, how many in all
            self.client.call("GET", "/sauces")


class Working(KitchenTest):
    def test_check_gives_all_consequences(self) -> None:
        found = self.client.call("POST", "/work/check", {"sheet": CHEESE_SAUCE}).body
        self.assertEqual(found["final"]["grade"], "binding")
        self.assertEqual(len(found["steps"]), 5)
        self.assertEqual(found["cards"][0]["weighed"][1]["spoons"]["unit"], "cup")
        self.assertEqual(found["free"], "flour")
        self.assertEqual(read_sheet(found["sheet"]), read_sheet(CHEESE_SAUCE))

    def test_five_percent_more_flour_moves_everything_drawn(self) -> None:
        steps = [dict(step) for step in CHEESE_SAUCE["steps"]]
        flour = {"ingredient": "wheat-flour", "amount": {"value": 84, "unit": "g"}}
        steps[0] = {**steps[0], "flour": flour}
        was = self.client.call("POST", "/work/check", {"sheet": CHEESE_SAUCE}).body["final"]
        now = self.client.call("POST", "/work/check", {"sheet": changed(steps=steps)}).body["final"]
        for figure in ("viscosity_pa_s", "film_mm", "level_mm", "viscosity_low_pa_s"):
            self.assertGreater(now[figure], was[figure])

    def test_a_salt_target_brings_its_step_along_when_asked(self) -> None:
        target = {**CHEESE_SAUCE["target"], "salt_pct": 0.7}
        body = {"sheet": changed(target=target)}
        left = self.client.call("POST", "/work/check", body).body
        self.assertGreater(left["final"]["salt_over_g"], 0)
        brought = self.client.call("POST", "/work/check", {**body, "resalt": True}).body
        self.assertAlmostEqual(brought["final"]["salt_pct"], 0.7, places=3)

    def test_solve_from_use_and_portions(self) -> None:
        serves = {"use": "toast", "count": 20, "margin_pct": 0}
        body = {"sheet": CHEESE_SAUCE, "serves": serves}
        found = self.client.call("POST", "/work/solve", body).body
        self.assertEqual(found["sheet"]["target"]["grade"], "spreading")
        self.assertEqual(found["final"]["grade"], "spreading")
        self.assertAlmostEqual(found["final"]["volume_ml"], 1030, delta=15)
        self.assertIn("20 slices · 50 mL = 1000 mL", found["need"]["lines"])

    def test_put_into_another_pan_a_stop_by_minutes_stays_and_its_minutes_are_told_anew(
        self,
    ) -> None:
        narrow, wide = {"diameter_cm": 20}, {"diameter_cm": 28}
        steps = [
            {"op": "add", "ingredient": "cream-35", "amount": "500 g"},
            {"op": "reduce", "to": {"minutes": 6}, "heat": "lively"},
        ]
        there = {"name": "Cream", "pan": narrow, "steps": steps}
        left = self.client.call("POST", "/work/check", {"sheet": there}).body["final"]
        body = {"sheet": {**there, "pan": wide}, "written_in": {"pan": narrow, "burner": None}}
        moved = self.client.call("POST", "/work/solve", body).body
        self.assertAlmostEqual(moved["final"]["total_g"], left["total_g"], delta=3)
        self.assertEqual(moved["sheet"]["steps"][1]["minutes"], 6)
        self.assertLess(moved["final"]["minutes"], left["minutes"])
        nonsense = {**body, "written_in": {"pan": {"diameter_cm": "wide"}, "burner": None}}
        kept = self.client.call("POST", "/work/solve", nonsense).body
        self.assertEqual(kept["sheet"]["steps"][1]["to"]["minutes"], 6)

    def test_a_target_may_be_set_before_the_first_step(self) -> None:
        blank = {"name": "New sauce", "target": {"grade": "nappe"}, "steps": []}
        found = self.client.call("POST", "/work/solve", {"sheet": blank})
        self.assertEqual(found.status_code, 200)
        self.assertEqual(found.body["final"]["mass_g"], 0)

    def test_solve_for_what_there_is(self) -> None:
        have = {"ingredient": "milk-whole", "amount": "900 ml"}
        found = self.client.call("POST", "/work/solve", {"sheet": CHEESE_SAUCE, "have": have}).body
        self.assertAlmostEqual(found["sheet"]["steps"][1]["amount"]["value"], 0.9, delta=0.005)
        self.assertEqual(found["final"]["grade"], "binding")
        self.assertNotEqual(found["sheet"]["target"]["volume"]["value"], 2)

    def test_rounded_unless_exact(self) -> None:
        rounded = self.client.call("POST", "/work/solve", {"sheet": CHEESE_SAUCE}).body
        exact = self.client.call("POST", "/work/solve", {"sheet": CHEESE_SAUCE, "exact": True}).body
        flour = rounded["sheet"]["steps"][0]["flour"]["amount"]["value"]
        self.assertEqual(flour % 5, 0)
        self.assertNotEqual(exact["sheet"]["steps"][0]["flour"]["amount"]["value"] % 5, 0)
        self.assertAlmostEqual(exact["final"]["volume_ml"], 2000, delta=0.1)

    def test_starts_are_of_every_family(self) -> None:
        families = {start["family"] for start in self.client.call("GET", "/work/starts").body}
        self.assertEqual(families, set(FAMILIES))

    def test_switching_schools_says_what_changed(self) -> None:
        body = {"sheet": CHEESE_SAUCE, "school": "fat-to-flour", "choice": "spoonfuls"}
        found = self.client.call("POST", "/work/switch", body).body
        self.assertTrue(any(change.startswith("fat ") for change in found["changes"]))
        followed = {school["key"]: school["followed"] for school in found["schools"]}
        self.assertEqual(followed["fat-to-flour"], "spoonfuls")
        self.assertEqual(found["final"]["grade"], "binding")
        refused = self.client.call("POST", "/work/switch", {**body, "choice": "plenty"})
        self.assertEqual(self.fields(refused), ["choice"])

    def test_which_pan(self) -> None:
        for pan in ({"diameter_cm": 16}, {"diameter_cm": 28}):
            add_pan(self.kitchen, name=f"pan {pan['diameter_cm']}", **pan)
        found = self.client.call("POST", "/work/pans", {"sheet": CREAM_REDUCTION}).body["pans"]
        # A third of a litre: in the wide one it would stand under six millimetres.
        self.assertEqual([one["name"] for one in found], ["pan 16", "pan 28"])
        self.assertEqual([one["recommended"] for one in found], [True, False])
        self.assertIn("to reach for", found[0]["verdict"])
        none = self.other.call("POST", "/work/pans", {"sheet": CREAM_REDUCTION}).body
        self.assertEqual(none, {"pans": [], "ring_decides": False})

    def test_along_a_reduction(self) -> None:
        found = self.client.call("POST", "/work/check", {"sheet": CREAM_REDUCTION}).body
        wine, cream = found["along"]
        self.assertEqual([wine["step"], cream["step"]], [1, 3])
        self.assertEqual(
            [mark["key"] for mark in cream["marks"]],
            ["pouring", "light-coat", "nappe", "rich", "binding", "oily", "split"],
        )
        self.assertEqual((cream["eye_low"], cream["eye_high"]), (0.42, 0.65))
        nappe = next(mark for mark in cream["marks"] if mark["key"] == "nappe")
        steps = [*CREAM_REDUCTION["steps"][:3], {"op": "reduce", "to": {"grade": "nappe"}}]
        stopped = self.client.call("POST", "/work/check", {"sheet": changed(steps=steps)}).body
        self.assertAlmostEqual(stopped["final"]["total_g"], nappe["mass_g"], delta=0.1)
        self.assertAlmostEqual(stopped["final"]["level_mm"], nappe["level_mm"], delta=0.1)

    def test_over_salted_gets_three_remedies(self) -> None:
        steps = [
            *CHEESE_SAUCE["steps"][:3],
            {"op": "melt", "ingredient": "cheese-blue", "amount": {"value": 300, "unit": "g"}},
        ]
        target = {**CHEESE_SAUCE["target"], "salt_pct": 0.5}
        sheet = changed(steps=steps, target=target)
        found = self.client.call("POST", "/work/check", {"sheet": sheet}).body
        self.assertEqual(len(found["salt_remedies"]), 3)
        over = found["final"]["salt_over_g"]
        told = float(found["salt_remedies"][0].split(" g unsalted")[0])
        self.assertAlmostEqual(told, over / 0.005, delta=1.5)
        self.assertIn("blue cheese", found["salt_remedies"][2])


class BadInput(KitchenTest):
    def test_every_kind_names_its_field(self) -> None:
        add = {"op": "add", "ingredient": "milk-whole"}
        for steps, field in (
            ([{**add, "amount": {"value": -1, "unit": "g"}}], "steps[0].amount.value"),
            ([{**add, "amount": {"value": 0, "unit": "g"}}], "steps[0].amount.value"),
            ([{**add, "amount": {"value": 1e9, "unit": "kg"}}], "steps[0].amount.value"),
            ([{**add, "amount": {"value": "some", "unit": "g"}}], "steps[0].amount.value"),
            ([{**add, "amount": {"value": 3, "unit": "barrel"}}], "steps[0].amount.unit"),
            ([{**add, "amount": "2 l", "ingredient": "ambrosia"}], "steps[0].ingredient"),
            (
                [{**add, "amount": "1 L"}, {"op": "reduce", "to": {"share": 1.2}}],
                "steps[1].to.share",
            ),
            (
                [{**add, "amount": "1 L"}, {"op": "reduce", "to": {"grade": "glue"}}],
                "steps[1].to.grade",
            ),
        ):
            for path in ("/work/check", "/sauces"):
                with self.subTest(path=path, field=field):
                    response = self.client.call("POST", path, {"sheet": changed(steps=steps)})
                    self.assertIn(field, self.fields(response))
        self.assertFalse(Sauce.objects.exists())

    def test_bodies_that_are_no_body(self) -> None:
        for body in (
            "",
            "{",
            "null",
            "[1]",
            '{"sheet": {"name": NaN}}',
            b"\xff\xfe",
            '{"sheet": 3}',
        ):
            with self.subTest(body):
                self.fields(self.client.call("POST", "/work/check", body))

    def test_ten_megabytes(self) -> None:
        for path in ("/work/check", "/sauces"):
            fields = self.fields(self.client.call("POST", path, "x" * 10_000_000))
            self.assertEqual(fields, ["body"])

    def test_a_target_nobody_can_reach(self) -> None:
        sheet = {**CREAM_REDUCTION, "target": {"grade": "panade"}}
        response = self.client.call("POST", "/work/solve", {"sheet": sheet})
        self.assertEqual(self.fields(response), ["target.grade"])
        self.assertIn("nearest", response.body["problems"][0]["remedy"])
        # The way on: the sheet that comes nearest, sound and as large.
        nearest = self.client.call("POST", "/work/check", {"sheet": response.body["nearest"]}).body
        self.assertEqual(nearest["final"]["grade"], "spreading")
        self.assertIn(nearest["final"]["emulsion"], ("stable", "caution"))

    def test_a_stop_nobody_can_reach_is_told_not_refused(self) -> None:
        steps = [
            {"op": "add", "ingredient": "cream-35", "amount": "500 g"},
            {"op": "reduce", "to": {"share": 0.01}},
        ]
        sheet = {"name": "Too far", "steps": steps}
        for path in ("/work/check", "/sauces"):
            response = self.client.call("POST", path, {"sheet": sheet})
            self.assertIn(response.status_code, (200, 201))
        found = self.client.call("POST", "/work/check", {"sheet": sheet}).body
        self.assertEqual(found["final"]["emulsion"], "split")
        self.assertTrue(any("would have stood" in text for text in found["final"]["warnings"]))

    def test_have_nonsense(self) -> None:
        for have, field in (
            ({"ingredient": "brandy", "amount": "1 L"}, "have.ingredient"),
            ({"ingredient": "milk-whole", "amount": "plenty"}, "have.amount"),
            ({"ingredient": "milk-whole", "amount": "-3 L"}, "have.amount"),
        ):
            body = {"sheet": CHEESE_SAUCE, "have": have}
            self.assertEqual(self.fields(self.client.call("POST", "/work/solve", body)), [field])
