"""The bench of simulated pots, in a browser: lit, through, and what was hidden told in the end."""

import threading

from browser_tests.base import BrowserTest
from standins.__main__ import Bench


class AtTheBench(BrowserTest):
    def test_what_was_hidden_is_told_once_the_pot_is_through(self) -> None:
        bench = Bench(("127.0.0.1", 0), self.live_server_url)
        threading.Thread(target=bench.serve_forever, daemon=True).start()
        self.addCleanup(bench.server_close)
        self.addCleanup(bench.shutdown)
        self.driver.get(f"http://127.0.0.1:{bench.server_port}/")
        self.driver.execute_script(
            """document.querySelector('[name=speed]').value = '60'
               document.querySelector('[name=stop_share]').value = '0.95'"""
        )
        self.press("Light the ring")
        self.see("Hidden was: ring", seconds=30)
        self.assertNotIn("The bench is off", self.find("output").text)
        self.assertEqual(self.overflow(), [])
