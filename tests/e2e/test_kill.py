"""Killed in the middle of a stream of edits, the application comes back with every acknowledged one."""

import json
import os
import signal
import subprocess
import sys
import threading
import time
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


def test_every_acknowledged_edit_survives_kill_9(tmp_path: Path) -> None:
    process, address = started(tmp_path)
    acknowledged = [1]

    def edit() -> None:
        while True:
            body = {"base": acknowledged[-1], "commands": [{"do": "move", "functions": ["f15"], "dx": 0.01}]}
            try:
                view = asked(address, "/api/designs/kestrel-line-9/commands", body)
            except OSError:
                return
            acknowledged.append(view["revision"])

    stream = threading.Thread(target=edit)
    stream.start()
    while len(acknowledged) < 40 and stream.is_alive():
        time.sleep(0.005)
    os.kill(process.pid, signal.SIGKILL)
    process.wait()
    stream.join(20)
    process, address = started(tmp_path)
    try:
        view = asked(address, "/api/designs/kestrel-line-9")
        assert view["revision"] in (acknowledged[-1], acknowledged[-1] + 1)  # the last may be kept but not yet answered
        x = next(f for f in view["design"]["functions"] if f["id"] == "f15")["place"]["x"]
        assert abs(x - 113 - 0.01 * (view["revision"] - 1)) < 1e-6
    finally:
        process.kill()
        process.wait()
