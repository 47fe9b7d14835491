"""A release: the version moves on, the changes are dated; refusals say what to do."""

import datetime
import unittest

from saucier.version import VERSION
from tools.release import CHANGES, PROJECT, NotNow, dated, numbered

DAY = datetime.date(2026, 12, 1)
TEXT = "# Changes\n\n## Unreleased\n\n- a spoon\n\n## 0.1.0 (2026-11-25)\n\nThe first.\n"


class Release(unittest.TestCase):
    def test_the_changes_are_dated_and_the_next_begin(self) -> None:
        text, notes = dated(TEXT, "0.2.0", DAY)
        self.assertEqual(notes, "- a spoon\n")
        self.assertIn("## Unreleased\n\n## 0.2.0 (2026-12-01)\n\n- a spoon\n\n## 0.1.0 (", text)
        self.assertTrue(text.endswith("The first.\n"))
        with self.assertRaisesRegex(NotNow, "Nothing stands under"):
            dated(text, "0.3.0", DAY)
        with self.assertRaisesRegex(NotNow, "in CHANGELOG.md already"):
            dated(TEXT, "0.1.0", DAY)

    def test_the_version_moves_on_in_its_one_place(self) -> None:
        project = PROJECT.read_text(encoding="utf-8")
        self.assertIn('\nversion = "99.0.0"\n', numbered(project, "99.0.0"))
        for version in ("0.0.1", "two", "", VERSION):
            with self.subTest(version), self.assertRaises(NotNow):
                numbered(project, version)

    def test_the_file_itself_can_be_released(self) -> None:
        text, notes = dated(CHANGES.read_text(encoding="utf-8"), "99.0.0", DAY)
        self.assertIn(f"## {VERSION} (", text)
        self.assertNotIn("## 0", notes)
