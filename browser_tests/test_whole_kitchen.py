"""A whole kitchen taken in through the real interface: what is damaged changes nothing, what is whole is there."""

import tempfile
from pathlib import Path

from browser_tests.base import BrowserTest
from browser_tests.browser import resize
from kestrel.accounts.actions import open_kitchen
from kestrel.larder.models import Pan
from kestrel.sauces.actions import save_new
from kestrel.sauces.models import Sauce
from kestrel.tests.clients import PASSWORD
from kestrel.whole.writing import write_kitchen
from saucier.sheet import read_sheet
from saucier.testing import CHEESE_SAUCE


class WholeKitchens(BrowserTest):
    def test_a_file_into_an_empty_kitchen(self) -> None:
        far = open_kitchen("Upper kitchen", "ben", PASSWORD)
        sheet = read_sheet({**CHEESE_SAUCE, "name": "Sauce from the upper kitchen"})
        save_new(far.kitchens.get(), far, sheet)
        Pan.objects.filter(kitchen=self.kitchen).delete()
        self.sign_in()
        with tempfile.TemporaryDirectory() as folder:
            whole, half = Path(folder) / "kitchen.zip", Path(folder) / "half.zip"
            with whole.open("wb") as out:
                write_kitchen(far.kitchens.get(), out)
            half.write_bytes(whole.read_bytes()[:400])
            self.go("/larder?shelf=whole")
            self.see("Take one in")
            picked = self.find('input[type="file"]')
            picked.send_keys(str(half))
            self.see("Nothing was changed.")
            self.assertEqual(Sauce.objects.filter(kitchen=self.kitchen).count(), 0)
            self.find('input[type="file"]').send_keys(str(whole))
            self.see("sauces 1")
        self.assertEqual(
            Sauce.objects.get(kitchen=self.kitchen).name, "Sauce from the upper kitchen"
        )
        self.go("/sauces")
        self.see("Sauce from the upper kitchen")
        self.go("/larder?shelf=whole")
        self.see("something was entered here already")
        for width in (390, 1280):
            resize(self.driver, width, 800)
            self.assertEqual(self.overflow(), [])
