"""A sauce as a link: out and in again, cut short, made to burst."""

import base64
import unittest
import zlib

from saucier.errors import BadInput
from saucier.exchange import read_recipe, written
from saucier.kitchen import Kitchen
from saucier.sheet import MAX_BYTES
from saucier.starts import STARTS

KITCHEN = Kitchen()


class Links(unittest.TestCase):
    def test_every_shipped_sauce_comes_back_whole(self) -> None:
        for start in STARTS:
            link = f"https://kitchen.invalid/sauces/read{written(start, KITCHEN, 'link').text}"
            self.assertEqual(read_recipe(link, KITCHEN).sheet, start)
            self.assertLess(len(link), 2000, start.name)
            told = f"Try this one: {link} and tell me."
            self.assertEqual(read_recipe(told, KITCHEN).sheet, start)

    def test_cut_short_changed_or_made_to_burst(self) -> None:
        link = written(STARTS[0], KITCHEN, "link").text
        bomb = base64.urlsafe_b64encode(zlib.compress(b" " * (MAX_BYTES * 50))).decode()
        wrong = (
            link[: len(link) // 2],
            link.replace("#sheet=e", "#sheet=z"),
            f"#sheet={bomb}",
            "#sheet=abc",
        )
        for text in wrong:
            with self.subTest(text[:40]), self.assertRaises(BadInput) as caught:
                read_recipe(text, KITCHEN)
            self.assertEqual(caught.exception.problems[0].field, "text")


if __name__ == "__main__":
    unittest.main()
