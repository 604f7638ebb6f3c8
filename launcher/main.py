"""The commands of ``./axispath``."""

import argparse

from launcher.browser_tools import install_browser_tools
from launcher.checks import run_checks
from launcher.environment import make_environment, prepare_sources
from launcher.packages import install_packages
from launcher.say import LauncherError, say
from launcher.site import DEFAULT_PORT, start


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="./axispath", description="Axis Path, a workbench for functions and their graphs."
    )
    commands = parser.add_subparsers(dest="command", metavar="command")
    begin = commands.add_parser("start", help="set everything up and start Axis Path")
    begin.add_argument("--port", type=int, default=DEFAULT_PORT, help="default: %(default)s")
    test = commands.add_parser("test", help="set everything up and run all checks and tests")
    test.add_argument("names", nargs="*", help="only these, such as tests.core.test_language")
    commands.add_parser("help", help="show this text")
    return parser


def main(arguments: list[str]) -> int:
    """Carry out one command and give the exit code."""
    parser = _parser()
    chosen = parser.parse_args(arguments)
    if chosen.command in (None, "help"):
        parser.print_help()
        return 0
    if chosen.command == "start" and not 1 <= chosen.port <= 65_535:
        parser.error("a port is a number from 1 to 65535")
    try:
        is_test = chosen.command == "test"
        install_packages(with_browser=is_test)
        make_environment("develop.lock" if is_test else "runtime.lock")
        if is_test:
            install_browser_tools()
        prepare_sources()
        return run_checks(chosen.names) if is_test else start(chosen.port)
    except LauncherError as err:
        say(f"Axis Path: {err}")
        return 1
    except KeyboardInterrupt:
        say("Stopped.")
        return 130
