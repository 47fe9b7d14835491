"""Serve the application with waitress and say where."""

import argparse
import os
import socket


def main() -> None:
    """``python -m kestrel.serve [--port 8000] [--host 127.0.0.1]``."""
    parser = argparse.ArgumentParser(prog="kestrel.serve")
    parser.add_argument("--host", default=os.environ.get("KESTREL_HOST", "127.0.0.1"))
    parser.add_argument("--port", type=int, default=int(os.environ.get("KESTREL_PORT", "8000")))
    options = parser.parse_args()
    with socket.socket() as probe:
        if probe.connect_ex((options.host, options.port)) == 0:
            parser.error(f"port {options.port} is taken: stop what uses it or set KESTREL_PORT")

    from waitress import serve

    from kestrel.wsgi import application

    print(f"Kestrel Fog is at http://{options.host}:{options.port}/  (Ctrl-C stops it)", flush=True)
    serve(application, host=options.host, port=options.port, threads=8, ident=None)


if __name__ == "__main__":
    main()
