"""The app as this kitchen knows it: by HTTP, at a moment of the evening."""

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from typing import Any

Send = Callable[[str, str, Any, str], tuple[int, Any]]
"""Method, path under ``/api``, body, and the token of a device ("": a cook who is signed in): the status and what was
answered."""


@dataclass(frozen=True)
class Refused:
    """What the app did not take: 4xx, and what it said to it."""

    at_min: float
    method: str
    path: str
    status: int
    said: str


@dataclass
class Act:
    """Something done at a batch, as it was sent, and whether it was taken."""

    key: str
    batch: int
    at: str
    said: dict[str, Any]
    taken: bool
    why: str


@dataclass
class App:
    """``send`` reaches it; ``set_clock`` moves the moment it is there and here; ``planned`` returns once its planner has
    done what was asked for; ``began`` is minute 0."""

    send: Send
    set_clock: Callable[[datetime], None]
    planned: Callable[[], None]
    began: datetime
    minute: float = 0.0
    calls: int = 0
    refused: list[Refused] = field(default_factory=list)
    broken: list[Refused] = field(default_factory=list)
    acts: list[Act] = field(default_factory=list)

    def at(self, minute: float) -> None:
        """It is ``minute`` now."""
        self.minute = minute
        self.set_clock(self.moment)

    @property
    def moment(self) -> datetime:
        return self.began + timedelta(minutes=self.minute)

    def ask(self, method: str, path: str, body: Any = None, token: str = "") -> Any:
        """What it answers; None where it refuses, which is kept."""
        self.calls += 1
        status, answer = self.send(method, path, body, token)
        if status >= 400:
            kind = self.broken if status >= 500 else self.refused
            kind.append(Refused(self.minute, method, path, status, str(answer)[:300]))
            return None
        return answer

    def needed(self, method: str, path: str, body: Any = None) -> Any:
        """What it answers to what no evening goes on without. Raises :class:`RuntimeError` with what it said."""
        answer = self.ask(method, path, body)
        if answer is None:
            raise RuntimeError(str((self.broken + self.refused)[-1]))
        return answer

    def do(self, batch: int, *acts: dict[str, Any]) -> Any:
        """``acts`` at ``batch``, as a screen sends them; the batch as it is then, None where it refuses."""
        at = self.moment.isoformat()
        sent = [
            {"key": f"evening-{len(self.acts) + n}", "at": at, **act} for n, act in enumerate(acts)
        ]
        answer = self.ask("POST", f"/stove/{batch}/acts", {"acts": sent, "sent_at": at})
        became = {result["key"]: result for result in (answer or {"acts": []})["acts"]}
        for act in sent:
            result = became.get(act["key"], {"taken": False, "why": "refused"})
            self.acts.append(Act(act["key"], batch, at, act, result["taken"], result["why"]))
        return None if answer is None else answer["batch"]
