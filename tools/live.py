"""The built application with the demo kitchen, served from a scratch database."""

import os
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
USERNAME, PASSWORD = "refectory", "fog-over-the-ridge"


@contextmanager
def demo_server(port: int) -> Iterator[tuple[str, dict[str, str]]]:
    """The address of a demo server on ``port``, and the environment its commands run in."""
    with tempfile.TemporaryDirectory() as folder:
        env = {**os.environ, "KESTREL_DB": str(Path(folder) / "demo.sqlite3")}
        for command in (["migrate", "--verbosity", "0"], ["load_demo"]):
            subprocess.run(
                [sys.executable, "manage.py", *command],
                cwd=ROOT,
                env=env,
                check=True,
                stdout=subprocess.DEVNULL,
            )
        process = subprocess.Popen(
            [sys.executable, "-m", "kestrel.serve", "--port", str(port)],
            cwd=ROOT,
            env=env,
            stdout=subprocess.DEVNULL,
        )
        address = f"http://127.0.0.1:{port}"
        try:
            _wait_for(address)
            yield address, env
        finally:
            process.terminate()
            process.wait()


def _wait_for(address: str) -> None:
    for _ in range(100):
        try:
            with urllib.request.urlopen(f"{address}/api/accounts/me", timeout=1):
                return
        except OSError:
            time.sleep(0.1)
    raise RuntimeError(f"no server at {address}")
