import contextlib
import io
import json
import subprocess
import sys
import unittest
from pathlib import Path
from tempfile import NamedTemporaryFile, TemporaryDirectory

from saucier.__main__ import main
from saucier.testing import CHEESE_SAUCE, CREAM_REDUCTION


def run(*arguments: str, stdin: str = "") -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [sys.executable, "-m", "saucier", *arguments], input=stdin, capture_output=True, text=True
    )


def in_process(command: str, text: str) -> tuple[str, int]:
    """What the command says of ``text`` on standard error, and its status, without a process."""
    said = io.StringIO()
    with NamedTemporaryFile("w", suffix=".json") as file, contextlib.redirect_stderr(said):
        file.write(text)
        file.flush()
        status = main([command, file.name])
    return said.getvalue(), status


class CommandLine(unittest.TestCase):
    def test_check_prints_the_state(self) -> None:
        found = json.loads(run("check", "-", "--json", stdin=json.dumps(CHEESE_SAUCE)).stdout)
        for key in (
            "mass_g",
            "volume_ml",
            "viscosity_pa_s",
            "grade",
            "viscosity_now_pa_s",
            "grade_now",
            "salt_pct",
            "fat_pct",
            "fat_volume_share",
            "emulsion",
            "allergens",
            "warnings",
        ):
            self.assertIn(key, found)
            self.assertIn(key, found["steps"][0])
        self.assertEqual(len(found["steps"]), 5)
        self.assertEqual(found["allergens"], ["gluten", "milk"])

    def test_solve_prints_the_new_sheet(self) -> None:
        with TemporaryDirectory() as folder:
            path = Path(folder) / "sheet.json"
            path.write_text(json.dumps(CREAM_REDUCTION))
            ran = run(
                "solve", str(path), "--grade", "nappe", "--volume", "2L", "--salt", "0.7", "--json"
            )
        found = json.loads(ran.stdout)
        self.assertEqual(found["grade"], "nappe")
        self.assertAlmostEqual(found["volume_ml"], 2000, delta=20)
        self.assertEqual(found["sheet"]["format"], "kestrel-fog/sauce")
        self.assertAlmostEqual(found["salt_pct"], 0.7, places=3)

    def test_how_sure(self) -> None:
        sauce = json.dumps(CHEESE_SAUCE)
        told = json.loads(run("sure", "-", "--json", stdin=sauce).stdout)
        self.assertEqual(told["grade"], "binding")
        self.assertTrue(0.5 < told["chance"] < 1 and told["doubts"] and told["mends"])
        self.assertIn("% of the doubt", run("sure", "-", stdin=sauce).stdout)
        butter = {
            "name": "b",
            "steps": [{"op": "add", "ingredient": "butter-unsalted", "amount": "9 g"}],
        }
        none = run("sure", "-", stdin=json.dumps(butter))
        self.assertEqual(none.returncode, 2)
        self.assertIn("target.grade", none.stderr)

    def test_words_for_people(self) -> None:
        ran = run("check", "-", stdin=json.dumps(CHEESE_SAUCE))
        self.assertIn("binding", ran.stdout)
        self.assertIn("likely", ran.stdout)

    def test_a_reader_that_has_seen_enough_gets_no_traceback(self) -> None:
        command = [sys.executable, "-m", "saucier", "schema"]
        with subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.PIPE) as process:
            assert process.stdout and process.stderr
            process.stdout.close()
            self.assertEqual(process.stderr.read(), b"")
        self.assertEqual(process.returncode, 0)

    def test_bad_input_is_one_line_and_exit_2(self) -> None:
        broken = json.dumps({**CHEESE_SAUCE, "steps": [{"op": "simmer", "minutes": "x"}]})
        for arguments, stdin, field in (
            (("check", "-", "--json"), broken, "steps[0].minutes"),
            (("check", "nowhere.json"), "", "sheet"),
            (("check", "-"), "nonsense", "sheet"),
            (("solve", "-", "--volume", "2 moons"), json.dumps(CHEESE_SAUCE), "volume"),
            (("solve", "-", "--volume", "-2L"), json.dumps(CHEESE_SAUCE), "volume"),
            (("solve", "-", "--grade", "thick"), json.dumps(CHEESE_SAUCE), "grade"),
            (("solve", "-", "--salt", "x"), json.dumps(CHEESE_SAUCE), "salt"),
            (("solve", "-", "--have", "brandy=1L"), json.dumps(CHEESE_SAUCE), "have"),
        ):
            with self.subTest(arguments):
                ran = run(*arguments, stdin=stdin)
                self.assertEqual(ran.returncode, 2)
                self.assertEqual(len(ran.stderr.strip().splitlines()), 1, ran.stderr)
                self.assertIn(field, ran.stderr)
                self.assertNotIn("Traceback", ran.stderr)

    def test_every_step_with_nonsense(self) -> None:
        """Each kind of step, one setting wrong: exit 2 and one line that names it."""
        milk = {"op": "add", "ingredient": "milk-whole", "amount": "1 L"}
        part = {"ingredient": "butter-unsalted", "amount": "50 g"}
        for step, field in (
            ({"op": "start"}, "fat"),
            ({"op": "start", "fat": {**part, "amount": "-1 g"}}, "fat.amount"),
            ({"op": "sweat", **part}, "ingredient"),
            ({"op": "dust", "ingredient": "wheat-flour", "amount": "5 moons"}, "amount"),
            ({"op": "deglaze", "ingredient": "moonshine", "amount": "5 g"}, "ingredient"),
            ({"op": "flame", "height": 3}, "height"),
            (
                {"op": "infuse", "ingredient": "onion", "amount": "60 g", "minutes": "long"},
                "minutes",
            ),
            ({"op": "strain", "holds_back": 9}, "holds_back"),
            ({"op": "melt", **part, "heat": "fierce"}, "heat"),
            ({"op": "liaison", "yolk": part}, "cream"),
            ({"op": "liaison", "yolk": part, "cream": part, "heat_to_c": 900}, "heat_to_c"),
            ({"op": "mount", "amount": 3}, "amount"),
            ({"op": "finish", **part, "temperature_c": "cold"}, "temperature_c"),
            ({"op": "return", **part}, "ingredient"),
            (
                {"op": "return", "ingredient": "poultry-breast", "amount": "1 kg", "juice_pct": 99},
                "juice_pct",
            ),
            ({"op": "use", "amount": "5 g"}, "sauce"),
            ({"op": "use", "sauce": {"name": "x", "steps": []}, "amount": "5 g"}, "sauce.steps"),
            (
                {"op": "use", "sauce": {"name": "x", "steps": [milk]}, "amount": "2 pieces"},
                "amount",
            ),
            ({"op": "blend", "keep_share": 1}, "keep_share"),
            ({"op": "reserve", "share": 0}, "share"),
            ({"op": "reserve", "share": 0.2, "purpose": "luck"}, "purpose"),
            ({"op": "cool", "to_c": 99}, "to_c"),
            ({"op": "hold", "minutes": -1}, "minutes"),
            ({"op": "reheat", "to_c": "hot"}, "to_c"),
        ):
            with self.subTest(step):
                text = json.dumps({"name": "x", "steps": [milk, step]})
                out, status = in_process("check", text)
                self.assertEqual(status, 2)
                self.assertEqual(len(out.strip().splitlines()), 1, out)
                self.assertIn(f"steps[1].{field}", out)

    def test_schema(self) -> None:
        self.assertIn("$defs", json.loads(run("schema").stdout))

    def test_recipes_out_and_in(self) -> None:
        out = run("export", "-", "--as", "json-ld", stdin=json.dumps(CHEESE_SAUCE)).stdout
        self.assertEqual(json.loads(out)["@type"], "Recipe")
        back = json.loads(run("read", "-", "--json", stdin=out).stdout)
        self.assertEqual({line["status"] for line in back["lines"]}, {"read"})
        self.assertIn("roux", [step["op"] for step in back["sheet"]["steps"]])
        self.assertIn(
            "# cheese sauce",
            run("export", "-", "--as", "markdown", stdin=json.dumps(CHEESE_SAUCE)).stdout,
        )
        for command, text, field in (
            (["export", "-", "--as", "papyrus"], json.dumps(CHEESE_SAUCE), "form"),
            (["read", "-"], "", "text"),
        ):
            found = run(*command, stdin=text)
            self.assertEqual(found.returncode, 2)
            self.assertIn(f"saucier: {field}:", found.stderr)

    def test_amounts_by_hand(self) -> None:
        steps = [*CHEESE_SAUCE["steps"]]
        steps[1] = {**steps[1], "amount": "8 ladles"}
        text = json.dumps({**CHEESE_SAUCE, "steps": steps})
        found = json.loads(run("check", "-", "--json", stdin=text).stdout)
        plain = json.loads(run("check", "-", "--json", stdin=json.dumps(CHEESE_SAUCE)).stdout)
        self.assertLess(
            found["viscosity_low_pa_s"] / found["viscosity_pa_s"],
            plain["viscosity_low_pa_s"] / plain["viscosity_pa_s"],
        )
