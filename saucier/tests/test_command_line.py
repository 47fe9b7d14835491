import json
import subprocess
import sys
import unittest
from pathlib import Path
from tempfile import TemporaryDirectory

from saucier.testing import CHEESE_SAUCE, CREAM_REDUCTION


def run(*arguments: str, stdin: str = "") -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [sys.executable, "-m", "saucier", *arguments], input=stdin, capture_output=True, text=True
    )


class CommandLine(unittest.TestCase):
    def test_check_prints_the_state(self) -> None:
        found = json.loads(run("check", "-", "--json", stdin=json.dumps(CHEESE_SAUCE)).stdout)
        for key in (
            "mass_g",
            "volume_ml",
            "viscosity_pa_s",
            "grade",
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

    def test_words_for_people(self) -> None:
        ran = run("check", "-", stdin=json.dumps(CHEESE_SAUCE))
        self.assertIn("binding", ran.stdout)
        self.assertIn("likely", ran.stdout)

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

    def test_schema(self) -> None:
        self.assertIn("$defs", json.loads(run("schema").stdout))
