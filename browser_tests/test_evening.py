"""One evening, three pots, on a tablet of ten inches: from the first pour to the journal and the fridge."""

from selenium.webdriver.common.keys import Keys

from browser_tests.base import BrowserTest
from browser_tests.browser import resize
from kestrel.journal.models import Entry
from kestrel.keeping.models import Kept
from kestrel.larder.actions import add_pan
from kestrel.stove.models import Act, Batch
from saucier.testing import add, melt, reduce_to, roux, simmer

WIDE, HIGH = 1024, 768
WHITE = [roux(45, 45), add("milk-whole", 600), simmer(5), melt("parmesan-style-hard", 60)]
CREAM = [
    add("wine-white-dry", 100),
    reduce_to(share=0.4),
    add("cream-35", 400),
    reduce_to(share=0.7),
]
STOCK = [roux(40, 40), add("stock-light", 700), simmer(10)]

NEEDED = """
  const shown = ['.figures .left b', '.now h2', '.much', '.timer b']
    .flatMap((css) => [...document.querySelectorAll(css)]).filter((e) => e.getClientRects().length)
  if (!shown.length) return ['nothing to read']
  const foot = document.querySelector('.moves')?.getBoundingClientRect().top ?? innerHeight
  return shown.filter((e) => e.getBoundingClientRect().bottom > Math.min(foot, innerHeight) + 1)
    .map((e) => e.className + ': ' + e.textContent.trim())
"""
"""What a cook at the stove reads and would have to scroll to."""


class Evening(BrowserTest):
    def test_three_pots_from_the_first_pour_to_the_journal(self) -> None:
        resize(self.driver, WIDE, HIGH)
        for name, width in (("saucepan 18", 18), ("saucepan 20", 20)):
            pan = {"shape": "straight", "diameter_cm": width, "depth_cm": 11, "tare_g": 1100}
            add_pan(self.kitchen, name=name, **pan)
        pots = {}
        self.sign_in()
        for name, steps, target in (
            ("White with cheese", WHITE, {"grade": "nappe"}),
            ("Wine cream", CREAM, {"grade": "light-coat"}),
            ("Velouté", STOCK, {"grade": "nappe"}),
        ):
            sauce = self.saved(name=name, steps=steps, target=target, family=None, pan=None)
            self.go(f"/sauces/{sauce.pk}")
            self.press("Cook it")
            self.see(f"Step 1 of {len(steps)}")
            pots[name] = Batch.objects.get(version__sauce=sauce).pk
        pans = [Batch.objects.get(pk=pot).plan["pan"]["name"] for pot in pots.values()]
        self.assertEqual(len(set(pans)), 3, pans)  # a pan is under one pot at a time

        # By hand, all of them at once: what is typed counts, whatever pot comes next.
        self.at(pots["White with cheese"])
        self.on(2)
        self.went_in("5 ladles")
        self.at(pots["Wine cream"])
        self.went_in("a glass")
        self.on(2)
        self.find(".figures .left b")
        self.assertEqual(self.driver.execute_script(NEEDED), [])
        self.press("½ gone")
        self.see("50 % gone")
        self.at(pots["Velouté"])
        self.on(2)
        self.went_in("650 mL")
        self.on(3)
        self.key("t")
        self.see("running: press to stop")
        self.assertEqual(self.driver.execute_script(NEEDED), [])
        self.at(pots["Wine cream"])
        self.on(3)
        self.went_in("3 ladles")
        self.on(4)
        self.find(".figures .left b")
        self.assertEqual(self.driver.execute_script(NEEDED), [])
        self.driver.refresh()
        self.find(".figures .left b")

        puts = {
            act.batch_id: act.data["grams"] for act in Act.objects.filter(kind="put").order_by("pk")
        }
        self.assertEqual(len(Act.objects.filter(kind="put")), 4)
        self.assertAlmostEqual(puts[pots["Velouté"]], 655, delta=15)

        # Off they go: weighed, looked at, judged.
        self.written("Wine cream", pots["Wine cream"], 4, 330.0, "Again just so")
        self.written("Velouté", pots["Velouté"], 3, 700.0, "Nearly")
        self.at(pots["White with cheese"])
        self.on(5, of=4)
        self.enter("Weighed", f"{640.0 + self.tare_g(pots['White with cheese']):g}")
        self.find(".weighing [role=radio], .spoons [role=radio]").click()
        self.press("Put it away…")
        self.wait(lambda: self.all(".go"), "where it is to be put away")
        self.see(f"Put away {640.0 + self.tare_g(pots['White with cheese']):g} g less its pan")

        for name, grams in (("Wine cream", 330.0), ("Velouté", 700.0)):
            entry = Entry.objects.get(batch_id=pots[name])
            self.assertEqual(entry.weighed_g, grams)
        self.go("/journal")
        self.see("Wine cream")
        self.see("Velouté")
        self.assertEqual(self.overflow(), [])
        self.assertEqual(Kept.objects.count(), 0)  # proposed, and not pressed yet

    def tare_g(self, pot: int) -> float:
        """What the pan of ``pot`` weighs: it is weighed with it."""
        return float(Batch.objects.get(pk=pot).plan["pan"]["tare_g"])

    def at(self, pot: int) -> None:
        self.go(f"/stove/{pot}")
        self.find(".moves")

    def on(self, step: int, of: int | None = None) -> None:
        """On to ``step``, by the space bar."""
        for _ in range(8):
            if f"Step {step} of" in self.said() or (of and "What does it weigh?" in self.said()):
                return
            before = self.said()
            self.key(Keys.SPACE)
            self.wait(lambda before=before: self.said() != before, "the next step")
        self.fail(f"never came to step {step}")

    def went_in(self, amount: str) -> None:
        """Typed and left, without a press of any button."""
        many = Act.objects.filter(kind="put").count()
        self.find(".much").click()
        field = self.find(".went input")
        field.send_keys(Keys.CONTROL, "a")
        field.send_keys(amount, Keys.ENTER)
        self.wait(lambda: Act.objects.filter(kind="put").count() == many + 1, f"{amount} to be in")

    def written(self, name: str, pot: int, steps: int, weighed: float, verdict: str) -> None:
        self.at(pot)
        self.on(steps + 1, of=steps)
        self.see("What does it weigh?")
        self.enter("Weighed", f"{weighed + self.tare_g(pot):g}")
        self.find("[role=radio]").click()
        self.press(verdict)
        self.press("Write it down")
        self.wait(lambda: Entry.objects.filter(batch_id=pot).exists(), f"{name} in the journal")
