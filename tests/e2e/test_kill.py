"""Killed in the middle of a stream of edits and jobs, the application comes back with every acknowledged one."""

import json
import os
import signal
import subprocess
import sys
import threading
import time
import urllib.error
import urllib.request
from pathlib import Path
from typing import Any


def started(folder: Path) -> tuple[subprocess.Popen[str], str]:
    """A server in a process of its own, and its address."""
    command = [sys.executable, "-P", "-m", "wingboard", "serve", "--with-demo", "--data", str(folder), "--port", "0"]
    process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
    assert process.stdout is not None
    for line in process.stdout:
        if line.startswith("Open "):
            return process, line.split()[1]
    raise AssertionError("the server did not start")


def asked(address: str, path: str, body: Any = None) -> Any:
    """A request, with JSON both ways."""
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(address + path, data, {"content-type": "application/json"})
    deadline = time.monotonic() + 10
    while True:
        try:
            with urllib.request.urlopen(request, timeout=5) as answer:
                return json.load(answer)
        except urllib.error.URLError as error:
            if not isinstance(error.reason, ConnectionRefusedError) or time.monotonic() > deadline:
                raise


KILLS = int(os.environ.get("WINGBOARD_KILLS", "2"))
"""How often the server is killed; a hundred by hand."""
TRAM = "/api/designs/kestrel-line-9"


class Client:
    """Edits without end and starts jobs in between, and remembers what was acknowledged."""

    def __init__(self, address: str) -> None:
        self.address = address
        self.acknowledged = [asked(address, TRAM)["revision"]]
        self.moves = 0
        self.thread = threading.Thread(target=self._edit)
        self.thread.start()

    def _edit(self) -> None:
        while True:
            base = self.acknowledged[-1]
            body = {"base": base, "commands": [{"do": "move", "functions": ["f15"], "dx": 0.01}]}
            try:
                if base % 10 == 1:
                    asked(self.address, f"{TRAM}/wire/solve", {"base": base})
                    asked(self.address, f"{TRAM}/cut/archive", {})
                self.acknowledged.append(asked(self.address, f"{TRAM}/commands", body)["revision"])
                self.moves += 1
            except urllib.error.HTTPError as error:
                if error.code != 409:  # the solver may be faster: then the change is made again, as the page does
                    raise
                self.acknowledged.append(asked(self.address, TRAM)["revision"])
            except OSError:
                return


def test_everything_acknowledged_survives_kill_9_in_edits_and_jobs(tmp_path: Path) -> None:
    moved = 0
    for kill in range(KILLS):
        process, address = started(tmp_path)
        client = Client(address)
        while len(client.acknowledged) < 8 + kill * 7 % 40 and client.thread.is_alive():
            time.sleep(0.002)
        os.kill(process.pid, signal.SIGKILL)
        process.wait()
        client.thread.join(20)
        process, address = started(tmp_path)
        try:
            view = asked(address, TRAM)
            assert view["revision"] >= client.acknowledged[-1]
            place = next(f for f in view["design"]["functions"] if f["id"] == "f15")["place"]
            steps = round((place["x"] - 113) / 0.01)
            assert steps - moved in (client.moves, client.moves + 1)  # the last may be kept but not yet answered
            assert abs(place["x"] - 113 - 0.01 * steps) < 1e-6
            moved = steps
        finally:
            process.terminate()
            process.wait()
    assert [f.name for f in tmp_path.iterdir() if f.name.startswith("wingboard.db")] == ["wingboard.db"]
