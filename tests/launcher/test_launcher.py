"""``./axispath`` itself: what it starts answers, what it stops is gone, what was killed recovers."""

import contextlib
import json
import os
import pwd
import re
import signal
import socket
import subprocess
import sys
import tempfile
import time
import unittest
import urllib.request
from pathlib import Path
from unittest import mock

from sqlalchemy import create_engine, text

from launcher import cluster, cluster_folder, interpreter, packages, ports, site, users
from launcher.main import main
from launcher.say import LauncherError

ROOT = Path(__file__).resolve().parent.parent.parent
TIMEOUT_S = 90


class StartTest(unittest.TestCase):
    """A checkout of its own, with links to the program and a ``var`` of its own."""

    def setUp(self) -> None:
        self.folder = tempfile.TemporaryDirectory(prefix="axis-path-launcher-")
        self.addCleanup(self.folder.cleanup)
        self.root = Path(self.folder.name)
        self.root.chmod(0o755)
        for name in ("axispath", "src", "requirements", ".venv"):
            (self.root / name).symlink_to(ROOT / name)
        # The launcher finds its root from its own place, so it is copied, not linked.
        (self.root / "launcher").mkdir()
        for path in (ROOT / "launcher").glob("*.py"):
            (self.root / "launcher" / path.name).write_text(path.read_text())
        (self.root / "axispath").unlink()
        (self.root / "axispath").write_text((ROOT / "axispath").read_text())

    def start(self, port: int) -> tuple[subprocess.Popen[str], str, list[str]]:
        process = subprocess.Popen(
            [sys.executable, str(self.root / "axispath"), "start", "--port", str(port)],
            stdout=subprocess.PIPE,
            stderr=subprocess.STDOUT,
            text=True,
            cwd=self.root,
            start_new_session=True,
        )
        self.addCleanup(self.end, process)
        said: list[str] = []
        assert process.stdout is not None
        for line in process.stdout:
            said.append(line.rstrip())
            found = re.search(r"Axis Path is at (http://127\.0\.0\.1:\d+)/", line)
            if found:
                return process, found[1], said
        raise AssertionError("\n".join(said))

    def end(self, process: subprocess.Popen[str]) -> None:
        if process.poll() is None:
            process.send_signal(signal.SIGINT)
        process.wait(timeout=TIMEOUT_S)
        if process.stdout is not None:
            process.stdout.close()

    def titles(self, address: str) -> list[str]:
        with urllib.request.urlopen(f"{address}/studies", timeout=20) as answer:
            page = answer.read().decode()
        return re.findall(r'class="study-title"[^>]*>([^<]+)<', page)

    def processes(self) -> list[str]:
        """What still runs out of this folder."""
        found = []
        for path in Path("/proc").glob("[0-9]*/cmdline"):
            try:
                command = path.read_bytes().replace(b"\0", b" ").decode()
                folder = os.readlink(path.parent / "cwd")
            except OSError:
                continue
            if str(self.root) in command or folder == str(self.root):
                found.append(command)
        return found

    def test_start_stop_and_recovery_keep_the_data(self) -> None:
        port = ports.any_free_port()
        process, address, said = self.start(port)
        self.assertEqual(
            [
                "Morning tide",
                "Mooring line",
                "Beam sweep",
                "Wake",
                "Breakwater",
                "Fuel log",
                "Ferry ramp",
                "Lock gate",
            ],
            self.titles(address),
        )
        self.assertTrue(any("Starting the database" in line for line in said))
        self.check_rights()
        self.check_that_a_second_start_is_refused(address)
        self.check_that_what_is_killed_comes_back(address)

        process.send_signal(signal.SIGINT)
        rest = process.stdout.read() if process.stdout else ""
        self.assertEqual(0, process.wait(timeout=TIMEOUT_S))
        self.assertIn("everything is kept", rest)
        self.assertEqual([], self.processes())
        log = (self.root / "var" / "postgres.log").read_text()
        self.assertIn("database system is shut down", log)

        process, address, _ = self.start(port)
        self.assertEqual(8, len(self.titles(address)))
        # Everything is killed at once, as a failing machine would.
        os.killpg(process.pid, signal.SIGKILL)
        for path in Path("/proc").glob("[0-9]*/cmdline"):
            try:
                command = path.read_bytes().decode()
                if str(self.root / "var") in command or f":{port}" in command:
                    os.kill(int(path.parent.name), signal.SIGKILL)
            except OSError:
                continue
        process.wait(timeout=TIMEOUT_S)

        process, address, _ = self.start(port)
        self.assertEqual(
            [
                "Morning tide",
                "Mooring line",
                "Beam sweep",
                "Wake",
                "Breakwater",
                "Fuel log",
                "Ferry ramp",
                "Lock gate",
            ],
            self.titles(address),
        )
        self.end(process)
        self.assertEqual([], self.processes())

    def check_rights(self) -> None:
        """Nothing but the launcher runs as root, and the application owns its tables only."""
        if os.geteuid() == 0:
            # Where a folder above the checkout is closed to others, the start warns and goes on.
            is_open = users.can_reach("axis-path", ROOT / "src")
            for pid in self.pids("axis_path.serving"):
                owner = pwd.getpwuid(Path(f"/proc/{pid}").stat().st_uid).pw_name
                self.assertEqual("axis-path" if is_open else "root", owner)
        (pid, *_) = self.pids("axis_path.serving")
        given = Path(f"/proc/{pid}/environ").read_bytes().split(b"\0")
        url = next(
            argument for argument in given if argument.startswith(b"AXIS_PATH_DATABASE_URL=")
        )
        engine = create_engine(url.partition(b"=")[2].decode())
        with engine.connect() as connection:
            self.assertFalse(
                connection.scalar(
                    text("SELECT rolsuper FROM pg_roles WHERE rolname = current_user")
                )
            )
        engine.dispose()

    def check_that_a_second_start_is_refused(self, address: str) -> None:
        done = subprocess.run(
            [sys.executable, str(self.root / "axispath"), "start"],
            capture_output=True, text=True, cwd=self.root, check=False, timeout=TIMEOUT_S,
        )  # fmt: skip
        self.assertEqual(1, done.returncode)
        self.assertIn(f"already runs from this folder at {address}", done.stdout)
        self.assertEqual(8, len(self.titles(address)))

    def check_that_what_is_killed_comes_back(self, address: str) -> None:
        for what in (str(self.root / "var" / "postgres"), "axis_path.serving"):
            with self.subTest(what):
                killed = self.pids(what)[0]
                os.kill(killed, signal.SIGKILL)
                until = time.monotonic() + TIMEOUT_S
                while time.monotonic() < until:
                    with contextlib.suppress(OSError):
                        if killed not in self.pids(what) and len(self.titles(address)) == 8:
                            break
                    time.sleep(0.1)
                else:
                    self.fail("it does not answer again")

    def pids(self, what: str) -> list[int]:
        """Return the processes whose command holds some words, the one begun first at first."""
        found = []
        for path in Path("/proc").glob("[0-9]*/cmdline"):
            with contextlib.suppress(OSError):
                command = path.read_bytes().replace(b"\0", b" ").decode()
                folder = os.readlink(path.parent / "cwd")
                if what in command and (str(self.root) in command or folder == str(self.root)):
                    began = int((path.parent / "stat").read_text().rpartition(")")[2].split()[19])
                    found.append((began, int(path.parent.name)))
        return [pid for _, pid in sorted(found)]

    def test_next_port_is_used_when_one_is_taken(self) -> None:
        with socket.socket() as taken:
            taken.bind(("127.0.0.1", 0))
            taken.listen()
            port = taken.getsockname()[1]
            _, address, said = self.start(port)
            self.assertNotIn(f":{port}/", f"{address}/")
            self.assertTrue(any(f"Port {port} is taken" in line for line in said))


class FolderTest(unittest.TestCase):
    """A database that lost something is repaired, or left as it is; never is it deleted."""

    def setUp(self) -> None:
        folder = Path(self.enterContext(tempfile.TemporaryDirectory(prefix="axis-path-folder-")))
        folder.chmod(0o755)
        self.folder = folder / "postgres"

    def start(self) -> cluster.Cluster:
        running = cluster.start_cluster(self.folder)
        self.addCleanup(running.stop)
        return running

    def holds(self, running: cluster.Cluster, url: str) -> list[int]:
        engine = create_engine(url)
        try:
            with engine.connect() as connection:
                return list(connection.scalars(text("SELECT id FROM kept")))
        finally:
            engine.dispose()

    def test_data_survives_the_loss_of_any_small_file(self) -> None:
        running = self.start()
        engine = create_engine(running.url)
        with engine.begin() as connection:
            connection.execute(text("CREATE TABLE kept (id int)"))
            connection.execute(text("INSERT INTO kept VALUES (7)"))
        engine.dispose()
        running.stop()
        files = {path.name: path for path in self.folder.parent.iterdir() if path.is_file()}
        for lost in (
            lambda: (self.folder / "PG_VERSION").unlink(),
            lambda: (self.folder / "PG_VERSION").write_text(""),
            lambda: files["postgres.password"].write_text(""),
            lambda: files["postgres.web-password"].unlink(),
            lambda: files["postgres.roles"].unlink(),
        ):
            lost()
            running = self.start()
            self.assertEqual([7], self.holds(running, running.url))
            self.assertEqual([7], self.holds(running, running.admin_url))
            running.stop()

    def test_a_power_failure_during_the_first_start_is_begun_again(self) -> None:
        half = self.folder.with_name("postgres.unfinished")
        half.mkdir()
        (half / "base").mkdir()
        (half / "PG_VERSION").write_text("15\n")
        self.folder.with_name("postgres.password").write_text("")
        running = self.start()
        self.assertTrue(running.is_running)
        self.assertFalse(half.exists())

    def test_files_of_somebody_else_are_not_touched(self) -> None:
        self.folder.mkdir()
        (self.folder / "thesis.txt").write_text("mine")
        with self.assertRaises(LauncherError):
            cluster.start_cluster(self.folder)
        self.assertEqual("mine", (self.folder / "thesis.txt").read_text())

    def test_a_damaged_database_without_version_is_left_untouched(self) -> None:
        (self.folder / "base" / "1").mkdir(parents=True)
        with self.assertRaises(LauncherError) as caught:
            cluster.start_cluster(self.folder)
        self.assertIn("Nothing was changed", str(caught.exception))
        self.assertTrue((self.folder / "base" / "1").exists())


class PiecesTest(unittest.TestCase):
    def test_a_long_log_is_rotated(self) -> None:
        log = Path(self.enterContext(tempfile.TemporaryDirectory())) / "site.log"
        with log.open("ab", buffering=0) as writer, mock.patch.object(site, "_LONGEST_LOG", 10):
            writer.write(b"a long line that is full")
            site.rotate(log)
            writer.write(b"next")
        self.assertEqual("next", log.read_text())
        self.assertIn("long line", log.with_name("site.log.1").read_text())

    def test_missing_packages_are_named_when_nobody_may_install_them(self) -> None:
        with (
            mock.patch.object(packages, "missing_packages", return_value=["postgresql"]),
            mock.patch.object(packages.os, "geteuid", return_value=1000),  # type: ignore[attr-defined]
            mock.patch.object(
                packages.shutil,  # type: ignore[attr-defined]
                "which",
                lambda name: None if name == "sudo" else f"/bin/{name}",
            ),
            self.assertRaises(LauncherError) as caught,
        ):
            packages.install_packages(with_browser=False)
        self.assertIn("apt-get install postgresql", str(caught.exception))

    def test_a_folder_that_the_database_cannot_reach_is_replaced(self) -> None:
        with tempfile.TemporaryDirectory() as name:
            wanted = Path(name) / "var" / "postgres"
            other = Path(name) / "elsewhere"
            with (
                mock.patch.object(cluster_folder, "can_reach", return_value=False),
                mock.patch.object(cluster_folder, "_ELSEWHERE", other),
            ):
                chosen = cluster_folder.choose_folder(wanted)
                self.assertEqual(chosen, cluster_folder.choose_folder(wanted))
            self.assertEqual(other, chosen.parent.parent)
            with mock.patch.object(cluster_folder, "can_reach", return_value=True):
                self.assertEqual(wanted, cluster_folder.choose_folder(wanted))

    def test_the_environment_is_made_of_debians_python_if_it_will_do(self) -> None:
        folder = Path(self.enterContext(tempfile.TemporaryDirectory()))
        own = folder / "python3"
        self.addCleanup(interpreter.chosen.cache_clear)
        for answer, is_chosen, has_pip in (
            ("3 11 True\n3.11.2 (main)", True, True),
            # Without its own pip that of the present Python installs.
            ("3 12 False\n3.12.1 (main)", True, False),
            ("3 9 True\n3.9.2 (main)", False, True),
            (None, False, True),
        ):
            with self.subTest(answer), mock.patch.object(interpreter, "DEBIANS", own):
                own.unlink(missing_ok=True)
                if answer is not None:
                    own.write_text(f"#!/bin/sh\ncat <<E\n{answer}\nE\n")
                    own.chmod(0o755)
                interpreter.chosen.cache_clear()
                program = str(own) if is_chosen else sys.executable
                self.assertEqual(program, interpreter.chosen().program)
                command = interpreter.environment_command(folder / "made")
                self.assertEqual([program, not has_pip], [command[0], "--without-pip" in command])
                self.assertEqual(not has_pip, "--python" in interpreter.pip_command())
        interpreter.chosen.cache_clear()
        # What runs these tests was made so.
        self.assertEqual(interpreter.chosen().version, sys.version.strip())

    def test_help_and_wrong_commands(self) -> None:
        with mock.patch("builtins.print"), mock.patch("sys.stdout.write"):
            self.assertEqual(0, main(["help"]))
            self.assertEqual(0, main([]))
        for wrong in (["fly"], ["start", "--port", "0"], ["start", "--port", "x"]):
            with (
                self.subTest(wrong),
                mock.patch("sys.stderr"),
                self.assertRaises(SystemExit) as caught,
            ):
                main(wrong)
            with self.subTest(wrong):
                self.assertEqual(2, caught.exception.code)


class LockFilesTest(unittest.TestCase):
    def test_lock_files_have_hashes_and_agree(self) -> None:
        locked = {}
        for name in ("runtime", "develop"):
            text = (ROOT / "requirements" / f"{name}.lock").read_text()
            entries = re.findall(
                r"^([a-z0-9_.\[\]-]+==[^ ]+) \\\n((?:    --hash=sha256:.*\n?)+)", text, re.M
            )
            locked[name] = {entry for entry, _ in entries}
            count = len(re.findall(r"^[a-z0-9_.\[\]-]+==", text, re.M))
            self.assertEqual(count, len(entries))
        self.assertLessEqual(locked["runtime"], locked["develop"])

    def test_the_shipped_parts_are_there_with_their_licences(self) -> None:
        package = json.loads((ROOT / "package.json").read_text())
        self.assertTrue(package["dependencies"]["@alpinejs/csp"])
        static = ROOT / "src/axis_path/web/static"
        for name in (
            "vendor/bootstrap/bootstrap.min.css",
            "vendor/bootstrap/LICENSE",
            "vendor/alpine/alpine-csp.esm.min.js",
            "vendor/alpine/LICENSE",
            "fonts/stix-two-math-subset.woff2",
            "fonts/stix-two-math-OFL.txt",
            "fonts/atkinson-hyperlegible-next-OFL.txt",
            "icons/LICENSE",
        ):
            with self.subTest(name):
                self.assertGreater((static / name).stat().st_size, 500)
