import json
import unittest
from pathlib import Path

from hypothesis import given, settings
from hypothesis import strategies as st
from jsonschema import Draft202012Validator

from saucier.check import check
from saucier.errors import BadInput
from saucier.sheet import MAX_BYTES, differences, json_schema, read_sheet, write_sheet
from saucier.steps import OPS
from saucier.testing import CHEESE_SAUCE, CREAM_REDUCTION, roux_sheets

ROOT = Path(__file__).resolve().parents[3]
SCHEMA = ROOT / "docs" / "formats" / "sauce.schema.json"

json_values = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats() | st.text(max_size=12),
    lambda inner: (
        st.lists(inner, max_size=3)
        | st.dictionaries(
            st.sampled_from(["op", "amount", "value", "unit", "to", "share", "fat", "ingredient"])
            | st.text(max_size=5),
            inner,
            max_size=4,
        )
    ),
    max_leaves=12,
)


def problems(**change: object) -> dict[str, str]:
    with unittest.TestCase().assertRaises(BadInput) as caught:
        check(read_sheet({**CHEESE_SAUCE, **change}))
    return {p.field: f"{p.message}. {p.remedy}" for p in caught.exception.problems}


class Reading(unittest.TestCase):
    @given(roux_sheets())
    def test_round_trip(self, case) -> None:
        self.assertEqual(read_sheet(json.dumps(write_sheet(case))), case)

    def test_amounts_as_text(self) -> None:
        step = {"op": "add", "ingredient": "milk-whole", "amount": "1 1/2 cups"}
        (read,) = read_sheet({"name": "x", "steps": [step]}).steps
        self.assertEqual((read.amount.value, read.amount.unit), (1.5, "cup"))
        typed = {**step, "amount": {"value": "½", "unit": "L"}}
        (read,) = read_sheet({"name": "x", "steps": [typed]}).steps
        self.assertEqual(read.amount.value, 0.5)

    def test_a_pans_measures_with_their_units(self) -> None:
        pan = {
            "shape": "sloped",
            "diameter": {"value": 240, "unit": "mm"},
            "tare": {"value": 1.2, "unit": "kg"},
        }
        read = read_sheet({"name": "x", "pan": pan}).pan
        self.assertAlmostEqual(read.diameter_cm, 24)
        self.assertEqual(read.tare_g, 1200)
        self.assertEqual(read_sheet({"name": "x", "pan": {"diameter": 20}}).pan.diameter_cm, 20)
        for change, field in (
            ({"diameter": {"value": 24, "unit": "g"}}, "pan.diameter.unit"),
            ({"diameter": {"value": "wide", "unit": "cm"}}, "pan.diameter_cm"),
            ({"tare": {"value": 1, "unit": "L"}}, "pan.tare.unit"),
            ({"tare": "heavy"}, "pan.tare"),
        ):
            self.assertIn(field, problems(pan={**pan, **change}))

    def test_every_problem_names_its_field(self) -> None:
        add = {"op": "add", "ingredient": "milk-whole"}
        for steps, field in (
            ([{**add, "amount": {"value": -1, "unit": "g"}}], "steps[0].amount.value"),
            ([{**add, "amount": {"value": 0, "unit": "g"}}], "steps[0].amount.value"),
            ([{**add, "amount": {"value": 1e12, "unit": "g"}}], "steps[0].amount.value"),
            ([{**add, "amount": {"value": True, "unit": "g"}}], "steps[0].amount.value"),
            ([{**add, "amount": {"value": "lots", "unit": "g"}}], "steps[0].amount.value"),
            ([{**add, "amount": {"value": 1, "unit": "bushel"}}], "steps[0].amount.unit"),
            ([{**add, "amount": {"value": 1}}], "steps[0].amount.unit"),
            ([{**add, "amount": {"value": 1, "unit": "g", "x": 1}}], "steps[0].amount.x"),
            ([{**add, "amount": {"value": 1, "unit": "piece"}}], "steps[0].amount.unit"),
            ([{**add, "amount": "1 g", "ingredient": "moon"}], "steps[0].ingredient"),
            ([{**add}], "steps[0].amount"),
            ([{"op": "levitate"}], "steps[0]"),
            ([{"op": "simmer", "minutes": "x"}], "steps[0].minutes"),
            ([{"op": "simmer", "minutes": -2}], "steps[0].minutes"),
            ([{"op": "simmer", "minutes": 5, "heat": "volcanic"}], "steps[0].heat"),
            ([{"op": "reduce", "to": {"share": 0}}], "steps[0].to.share"),
            ([{"op": "reduce", "to": {}}], "steps[0].to"),
            ([{"op": "reduce", "to": "half"}], "steps[0].to"),
            (
                [{"op": "reduce", "to": {"mass": {"value": 1, "unit": "L"}}}],
                "steps[0].to.mass.unit",
            ),
            ([{"op": "season", "amount": {"to_salt_pct": 99}}], "steps[0].amount.to_salt_pct"),
            (
                [
                    {
                        "op": "roux",
                        "fat": {"ingredient": "butter-unsalted", "amount": "3"},
                        "flour": 3,
                    }
                ],
                "steps[0].fat.amount",
            ),
            ("soup", "steps"),
        ):
            with self.subTest(str(steps)[:70]):
                found = problems(steps=steps)
                self.assertIn(field, found)
                self.assertNotIn("steps[0].to.nearly-dry", found)
        self.assertIn("target.grade", problems(target={"grade": "gloopy"}))
        self.assertIn("target.serving_c", problems(target={"serving_c": 200}))
        self.assertIn("target.volume.unit", problems(target={"volume": "3 pieces"}))
        self.assertIn("version", problems(version=2))
        self.assertIn("colour", problems(colour="red"))
        self.assertIn("name", problems(name="  "))
        self.assertIn("pan.diameter_cm", problems(pan={"diameter_cm": 0}))

    def test_text_that_is_no_sheet(self) -> None:
        for text in (
            "",
            "{",
            "[]",
            "3",
            '{"name": NaN}',
            b"\xff\xfe",
            "[" * 50_000,
            " " * (MAX_BYTES + 1),
        ):
            with self.subTest(text[:12]), self.assertRaises(BadInput):
                read_sheet(text)

    @settings(max_examples=300)
    @given(json_values)
    def test_nothing_but_bad_input_from_anything(self, value: object) -> None:
        for data in (
            value,
            {"name": "x", "steps": value},
            {"name": "x", "steps": [value]},
            {"name": "x", "target": value},
        ):
            try:
                check(read_sheet(data))
            except BadInput as bad:
                self.assertTrue(all(p.field and p.message and p.remedy for p in bad.problems))

    @settings(max_examples=300)
    @given(
        st.sampled_from(OPS),
        st.dictionaries(
            st.sampled_from(
                [
                    "amount",
                    "ingredient",
                    "fat",
                    "flour",
                    "to",
                    "minutes",
                    "heat",
                    "lid",
                    "colour",
                    "temperature_c",
                    "yolk",
                    "cream",
                    "juices",
                    "sauce",
                    "share",
                    "purpose",
                    "to_c",
                    "heat_to_c",
                    "keep_share",
                    "holds_back",
                    "juice_pct",
                    "covered",
                ]
            ),
            json_values,
            max_size=5,
        ),
    )
    def test_nothing_but_bad_input_from_any_step(self, op: str, rest: dict) -> None:
        try:
            check(read_sheet({"name": "x", "steps": [{"op": op, **rest}]}))
        except BadInput as bad:
            self.assertTrue(bad.problems)


class Schema(unittest.TestCase):
    def test_published_schema_is_current(self) -> None:
        self.assertEqual(json.loads(SCHEMA.read_text(encoding="utf-8")), json_schema())

    def test_a_second_validator_agrees(self) -> None:
        validator = Draft202012Validator(json_schema())
        folders = ("demo/sauces", "saucier/starts", "docs/formats/examples")
        found = {folder: sorted(ROOT.glob(f"{folder}/*.json")) for folder in folders}
        for folder, least in zip(folders, (8, 30, 2), strict=True):
            self.assertGreaterEqual(len(found[folder]), least, folder)
        shipped = [json.loads(path.read_text()) for paths in found.values() for path in paths]
        for document in (CHEESE_SAUCE, CREAM_REDUCTION, *shipped):
            validator.validate(write_sheet(read_sheet(document)))
            validator.validate(document)
        self.assertFalse(validator.is_valid({**CHEESE_SAUCE, "steps": [{"op": "levitate"}]}))


class Differences(unittest.TestCase):
    def test_amounts_read_whole(self) -> None:
        theirs = read_sheet(CHEESE_SAUCE)
        changed = json.loads(json.dumps(CHEESE_SAUCE))
        changed["steps"][1]["amount"] = {"value": 900, "unit": "mL"}
        changed["steps"].append({"op": "simmer", "minutes": 2})
        found = differences(theirs, read_sheet(changed))
        places = {d.where: (d.theirs, d.yours) for d in found}
        self.assertEqual(places["steps[1].amount"], ("1 L", "900 mL"))
        self.assertEqual(places["steps[5].op"], (None, "simmer"))
        self.assertEqual(differences(theirs, theirs), [])
