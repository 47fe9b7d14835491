"""Lines to the server: those that have not said what they want within seconds are cut."""

import asyncio
import resource
from collections import OrderedDict
from typing import Any

from uvicorn.protocols.http.h11_impl import H11Protocol

HEAD_S = 6.0
"""A line has so long to send the head of its next request, from its first byte or from its opening."""
MOST_WAITING = 200
"""Lines that have said nothing yet; of more, the one that waits longest is cut."""

_waiting: "OrderedDict[PatientProtocol, None]" = OrderedDict()
"""Those lines, the oldest first. One loop serves them all."""


class PatientProtocol(H11Protocol):
    """As uvicorn speaks HTTP, but with patience for seconds only."""

    _cut_at: asyncio.TimerHandle | None = None

    def connection_made(self, transport: asyncio.Transport) -> None:  # type: ignore[override]
        super().connection_made(transport)
        self._wait()

    def data_received(self, data: bytes) -> None:
        super().data_received(data)
        if self.cycle is not None and not self.cycle.response_complete:
            self._served()
        elif self._cut_at is None and not self.transport.is_closing():
            self._wait()

    def connection_lost(self, exc: Exception | None) -> None:
        self._served()
        super().connection_lost(exc)

    def _wait(self) -> None:
        self._cut_at = self.loop.call_later(HEAD_S, self._cut)
        _waiting[self] = None
        if len(_waiting) > MOST_WAITING:
            next(iter(_waiting))._cut()

    def _served(self) -> None:
        if self._cut_at is not None:
            self._cut_at.cancel()
            self._cut_at = None
            _waiting.pop(self, None)

    def _cut(self) -> None:
        self._served()
        self.transport.abort()


def as_many_lines_as_may_be() -> None:
    """Raise the number of open files to what the machine allows: each line is one."""
    soft, hard = resource.getrlimit(resource.RLIMIT_NOFILE)
    wanted = 8192 if hard == resource.RLIM_INFINITY else min(hard, 8192)
    if soft < wanted:
        resource.setrlimit(resource.RLIMIT_NOFILE, (wanted, hard))


SPEAKS: dict[str, Any] = {"http": PatientProtocol, "ws": "none"}
"""How uvicorn is to speak with the outside."""
