"""How long a start takes, and how much memory a site holds: at rest, after a load, and a while later.

    PYTHONPATH=src:. .venv/bin/python -m bench.start [port]

It starts ``./axispath start`` in this checkout, which must have been started before, so that everything
is installed and compiled. The yardstick of the times is Python's own start with the same libraries;
memory is the proportional share (PSS) of all processes, so that what they share counts once.
"""

from __future__ import annotations

import http.cookiejar
import json
import os
import re
import signal
import subprocess
import sys
import threading
import time
import urllib.request
from pathlib import Path
from typing import Any

from bench.machine import telling_what_was_taken
from bench.scene_socket import socket_of

ROOT = Path(__file__).resolve().parent.parent
ROUNDS = 3
#: Twenty pages drag a slider for so long.
PAGES, LOAD_S = 20, 10.0
WINDOW = {"x": [-10, 10], "y": [-7, 7], "width": 660, "height": 430}
_REST_S, _LATER_S = 20.0, 40.0


class Page:
    """A study of its own, as a page has it open."""

    def __init__(self, base: str) -> None:
        jar = http.cookiejar.CookieJar()
        self._open = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar)).open
        self.base = base
        page = self._open(f"{base}/studies").read().decode()
        self._token = re.search(r'name="csrf-token" content="([^"]+)"', page)[1]  # type: ignore[index]
        made = self._open(f"{base}/studies", data=f"csrf_token={self._token}".encode())
        text = re.search(r'id="bench-state">(.*?)</script>', made.read().decode(), re.S)[1]  # type: ignore[index]
        state = json.loads(text)
        self.path, self.version = f"/studies/{state['id']}", state["version"]

    def post(self, what: str, **given: object) -> dict[str, Any]:
        """SavedQuery with JSON."""
        body = json.dumps({"version": self.version, "window": WINDOW, **given}).encode()
        headers = {"Content-Type": "application/json", "X-CSRFToken": self._token}
        address = f"{self.base}{self.path}/{what}"
        request = urllib.request.Request(address, body, headers)  # noqa: S310 - our own site
        answer = json.loads(self._open(request).read())
        self.version = answer.get("version", self.version)
        return answer  # type: ignore[no-any-return]

    def write(self, *lines: str) -> None:
        """Write lines."""
        for line in lines:
            self.post("commands", commands=[{"do": "write", "id": None, "text": line}])

    def drag(self, until: float) -> None:
        """Move the slider of the first line until a time."""
        socket = socket_of(self.base, f"{self.path}/socket")
        k = 0
        while time.monotonic() < until:
            k += 1
            drafts = [{"do": "set", "id": 1, "value": round(0.5 + k % 400 / 200, 3)}]
            socket.ask(json.dumps({
                "part": "scene", "version": self.version, "window": WINDOW, "drafts": drafts,
            }))  # fmt: skip
        socket.close()


def memory_mb(root: int) -> float:
    """Return the memory of a process and all below it, and of what they started apart."""
    parents = {}
    for path in Path("/proc").glob("[0-9]*/stat"):
        try:
            parents[int(path.parent.name)] = int(path.read_text().rpartition(")")[2].split()[1])
        except OSError:
            continue
    found, new = set(), {root}
    while new:
        found |= new
        new = {pid for pid, parent in parents.items() if parent in new} - found
    total = 0
    for pid in found:
        try:
            text = Path(f"/proc/{pid}/smaps_rollup").read_text()
        except OSError:
            continue
        total += int(re.search(r"^Pss:\s+(\d+)", text, re.M)[1])  # type: ignore[index]
    return total / 1024


def started(port: int) -> tuple[subprocess.Popen[str], str, float]:
    """Start the site; return its process, its address, and how long it took in seconds."""
    began = time.monotonic()
    process = subprocess.Popen(
        ["./axispath", "start", "--port", str(port)], cwd=ROOT, stdout=subprocess.PIPE, text=True,
        start_new_session=True,
    )  # fmt: skip
    for line in process.stdout or ():
        if found := re.search(r"http://[\d.]+:\d+", line):
            return process, found[0], time.monotonic() - began
    raise SystemExit("it did not start")


def imports_s() -> float:
    """Return how long Python takes to load the same libraries, in seconds."""
    began = time.monotonic()
    subprocess.run(
        [sys.executable, "-c", "import axis_path.serving.site"], check=True,
        env={**os.environ, "PYTHONPATH": str(ROOT / "src")},
    )  # fmt: skip
    return time.monotonic() - began


def main() -> None:
    """Start, load, wait, and print what was seen."""
    port = int(sys.argv[1]) if len(sys.argv) > 1 else 8790
    for number in range(ROUNDS):
        yardstick = imports_s()
        process, base, answering = started(port)
        began = time.monotonic() - answering
        page = Page(base)
        page.write("f(x) = x^3/20 - x")
        drawn = time.monotonic() - began
        print(f"start {number + 1}: answers after {answering:.1f} s ({answering / yardstick:.2f} times loading "
              f"the libraries), first curve after {drawn:.1f} s", flush=True)  # fmt: skip
        if number < ROUNDS - 1:
            end(process)
    time.sleep(_REST_S)
    print(f"memory at rest: {memory_mb(process.pid):.0f} MB", flush=True)
    pages = [Page(base) for _ in range(PAGES)]
    for driver in pages:
        driver.write(
            "s = 0.5", "f(x) = x^3/20 - x + s/3", "g(x) = (x^2 + 1)/((x - 3) (x + 4)) + s/4"
        )
    until = time.monotonic() + LOAD_S
    threads = [threading.Thread(target=driver.drag, args=(until,)) for driver in pages]
    for thread in threads:
        thread.start()
    most = 0.0
    while any(thread.is_alive() for thread in threads):
        most = max(most, memory_mb(process.pid))
        time.sleep(0.5)
    print(f"while {PAGES} pages drag: {most:.0f} MB at most", flush=True)
    time.sleep(_LATER_S)
    print(f"{_LATER_S:.0f} s later: {memory_mb(process.pid):.0f} MB", flush=True)
    end(process)


def end(process: subprocess.Popen[str]) -> None:
    """Stop the site."""
    process.send_signal(signal.SIGINT)
    process.wait(timeout=60)


if __name__ == "__main__":
    with telling_what_was_taken():
        main()
