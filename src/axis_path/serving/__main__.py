"""Run a site on a socket that is open already: ``python -m axis_path.serving --listen-fd N``."""

import argparse
import logging
import socket
import sys

from axis_path.serving.site import Site
from axis_path.web.settings import read_settings


def main() -> None:
    """Run a site until it is ended by a signal."""
    parser = argparse.ArgumentParser(prog="axis_path.serving")
    parser.add_argument("--listen-fd", type=int, required=True, help="a listening TCP socket")
    chosen = parser.parse_args()
    logging.basicConfig(stream=sys.stderr, format="%(asctime)s %(levelname)s %(message)s")
    listener = socket.socket(fileno=chosen.listen_fd)
    listener.set_inheritable(True)
    Site(read_settings(), listener).run()


if __name__ == "__main__":
    main()
