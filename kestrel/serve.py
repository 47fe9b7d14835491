"""Serve the application with uvicorn, with the planner beside it, and say where."""

import argparse
import os
import signal
import socket
import subprocess
import sys
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

import uvicorn
from django.conf import settings

from kestrel.door.asgi import App
from kestrel.door.lines import SPEAKS, as_many_lines_as_may_be
from kestrel.live import hang_up
from kestrel.private import write_for_owner_only

ROOT = Path(__file__).resolve().parent.parent


class Server(uvicorn.Server):
    """Uvicorn; screens that listen are told when it ends, and do not hold it up."""

    async def shutdown(self, sockets: list[socket.socket] | None = None) -> None:
        hang_up()
        await super().shutdown(sockets)


def config_of(app: App | str, **more: Any) -> uvicorn.Config:
    """How uvicorn is to serve ``app`` (or what a name such as ``module:application`` stands for): patient for
    seconds, and believing of where a request comes from only what the proxies of the settings say."""
    return uvicorn.Config(
        app,
        lifespan="off",
        log_level="warning",
        access_log=False,
        server_header=False,
        timeout_keep_alive=30,
        timeout_graceful_shutdown=5,
        proxy_headers=bool(settings.PROXIES),
        forwarded_allow_ips=settings.PROXIES,
        **SPEAKS,
        **more,
    )


@contextmanager
def planner_beside() -> Iterator[None]:
    """The planner's process, as long as this one runs; begun anew where it ends by itself."""
    over = threading.Event()

    def keep() -> None:
        while not over.is_set():
            process = subprocess.Popen([sys.executable, "manage.py", "planner"], cwd=ROOT)
            while process.poll() is None and not over.wait(0.5):
                pass
            if process.poll() is None:
                process.terminate()
                process.wait()
            over.wait(2.0)  # not in a hurry, where it cannot start at all

    thread = threading.Thread(target=keep, daemon=True)
    thread.start()
    try:
        yield
    finally:
        over.set()
        thread.join(5.0)


@contextmanager
def copies_by_the_day() -> Iterator[None]:
    """Every hour it is asked whether a copy of the day is wanted, in a process of its own."""
    over = threading.Event()

    def ask() -> None:
        while not over.wait(_FIRST_COPY_S if not asked else _NEXT_COPY_S):
            asked.append(True)
            command = [sys.executable, "manage.py", "backup", "--if-wanted"]
            subprocess.run(command, cwd=ROOT, check=False, stdout=subprocess.DEVNULL)

    asked: list[bool] = []
    threading.Thread(target=ask, daemon=True).start()
    try:
        yield
    finally:
        over.set()


_FIRST_COPY_S, _NEXT_COPY_S = 60.0, 3600.0


def main() -> None:
    """``python -m kestrel.serve [--port 8000] [--host 127.0.0.1]``."""
    parser = argparse.ArgumentParser(prog="kestrel.serve")
    parser.add_argument("--host", default=os.environ.get("KESTREL_HOST", "127.0.0.1"))
    parser.add_argument("--port", type=int, default=int(os.environ.get("KESTREL_PORT", "8000")))
    options = parser.parse_args()
    with socket.socket() as probe:
        if probe.connect_ex((options.host, options.port)) == 0:
            parser.error(f"port {options.port} is taken: stop what uses it or set KESTREL_PORT")

    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "kestrel.settings")
    write_for_owner_only()
    as_many_lines_as_may_be()
    print(f"Kestrel Fog is at http://{options.host}:{options.port}/  (Ctrl-C stops it)", flush=True)
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))  # the planner goes too
    config = config_of("kestrel.asgi:application", host=options.host, port=options.port)
    with planner_beside(), copies_by_the_day():
        Server(config).run()


if __name__ == "__main__":
    main()
