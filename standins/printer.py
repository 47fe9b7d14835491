"""A simulated label printer: it fetches labels as any printer would, and puts out a picture of each and its
plain text, into a folder."""

import json
import threading
import urllib.error
import urllib.request
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

ASKS_EVERY_S = 1.0
KEPT = 20
"""Labels kept for the page."""


@dataclass
class Printer:
    """Fetches labels from ``app`` under its ``token`` into ``folder``. ``jams``: it loses its power after
    printing, before it can say so, that many times: the label comes again."""

    app: str
    token: str
    folder: Path
    jams: int = 0
    out: list[dict[str, Any]] = field(default_factory=list)
    trouble: str = ""
    _over: threading.Event = field(default_factory=threading.Event)

    def start(self) -> None:
        threading.Thread(target=self._run, daemon=True).start()

    def stop(self) -> None:
        self._over.set()

    def _run(self) -> None:
        while not self._over.is_set():
            if not self.print_next():
                self._over.wait(ASKS_EVERY_S)

    def print_next(self) -> bool:
        """Whether there was a label to print."""
        try:
            label = self._ask("GET", "/api/labels/next")
            if label is None:
                return False
            self._put_out(label)
            if self.jams > 0:
                self.jams -= 1
                return True
            self._ask("POST", f"/api/labels/{label['id']}/printed")
            return True
        except urllib.error.HTTPError as refused:
            self.trouble = f"{refused.code}: {refused.read(300).decode(errors='replace')}"
        except OSError as away:
            self.trouble = f"the app does not answer: {away}"
        return False

    def _put_out(self, label: dict[str, Any]) -> None:
        self.folder.mkdir(parents=True, exist_ok=True)
        name = self.folder / f"label-{int(label['id'])}"
        name.with_suffix(".svg").write_text(label["svg"], encoding="utf-8")
        name.with_suffix(".txt").write_text(label["text"] + "\n", encoding="utf-8")
        self.out = [
            *self.out[1 - KEPT :],
            {key: label[key] for key in ("id", "copies", "text", "svg")},
        ]

    def _ask(self, method: str, path: str) -> dict[str, Any] | None:
        request = urllib.request.Request(
            self.app + path, headers={"Authorization": f"Bearer {self.token}"}, method=method
        )
        with urllib.request.urlopen(request, timeout=5.0) as answer:
            self.trouble = ""
            if answer.status == 204:
                return None
            found: dict[str, Any] = json.load(answer)
            return found
