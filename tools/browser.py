"""A real server and a real Chromium for the pictures and the drag measurement."""

from __future__ import annotations

import os
import shutil
import socket
import tempfile
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import uvicorn
from playwright.sync_api import Browser, Page, sync_playwright

from wingboard.api.app import create_app
from wingboard.cli import SERVER
from wingboard.core.record.design import Design
from wingboard.services.desk import Desk
from wingboard.store.database import Database

FLAGS = (
    "--no-sandbox",
    "--disable-gpu",
    "--disable-dev-shm-usage",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-domain-reliability",
    "--disable-sync",
    "--no-first-run",
    "--no-default-browser-check",
    "--no-proxy-server",
    "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1",
    "--enable-unsafe-swiftshader",
    "--use-angle=swiftshader",
)
"""Needed as root and without a network."""


def chromium_path() -> str:
    """Chromium's path. :raises RuntimeError: there is none."""
    found = os.environ.get("CHROMIUM") or shutil.which("chromium") or shutil.which("chromium-browser")
    if found is None:
        raise RuntimeError("no Chromium here; python3 wing.py test installs it")
    return found


@contextmanager
def served(desk: Desk) -> Iterator[str]:
    """The application over a desk on a free port; gives its address."""
    listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
    listener.bind(("127.0.0.1", 0))
    server = uvicorn.Server(uvicorn.Config(create_app(desk), **SERVER))
    thread = threading.Thread(target=server.run, kwargs={"sockets": [listener]}, daemon=True)
    thread.start()
    deadline = time.monotonic() + 20
    while not server.started and time.monotonic() < deadline:
        time.sleep(0.02)
    yield f"http://127.0.0.1:{listener.getsockname()[1]}"
    server.should_exit = True
    desk.news.close()
    thread.join(5)


@contextmanager
def desk_in_passing() -> Iterator[Desk]:
    """A desk over a database that is thrown away."""
    with tempfile.TemporaryDirectory() as folder:
        yield Desk(Database(Path(folder) / "wingboard.db"))


@contextmanager
def chromium() -> Iterator[Browser]:
    """A headless Chromium."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path=chromium_path(), args=list(FLAGS), ignore_default_args=["--hide-scrollbars"]
        )
        yield browser
        browser.close()


def new_page(browser: Browser, theme: str = "day") -> Page:
    """A page of 1280 × 800 with a theme."""
    context = browser.new_context(
        viewport={"width": 1280, "height": 800}, reduced_motion="reduce", locale="en-GB", timezone_id="UTC"
    )
    context.add_init_script(f"localStorage.setItem('theme', '{theme}')")
    return context.new_page()


AT_REST = """() => new Promise(done => {
  let since = performance.now();
  const moved = () => { since = performance.now(); };
  const watch = new MutationObserver(moved);
  watch.observe(document, {subtree: true, childList: true, characterData: true});
  const look = () => {
    if (document.documentElement.dataset.asking !== '0' || document.querySelector('main') === null) moved();
    if (performance.now() - since < 400) return setTimeout(look, 50);
    watch.disconnect();
    done(true);
  };
  look();
})"""


def at_rest(page: Page) -> None:
    """Wait until the page asked for nothing and drew nothing new for a while; its stream of news never ends."""
    page.evaluate(AT_REST)


COUNT_FRAMES = """() => new Promise(done => {
  let frames = 0; const start = performance.now();
  const tick = now => {
    frames++;
    now - start < 2000 ? requestAnimationFrame(tick) : done(frames / (now - start) * 1000);
  };
  requestAnimationFrame(tick);
})"""


def drag_frames(design: Design) -> tuple[float, float]:
    """Frames a second while one part is dragged, and milliseconds of script and layout a frame."""
    with desk_in_passing() as desk, served(desk) as address, chromium() as browser:
        ident = desk.add(design, "bench").design_id
        page = new_page(browser)
        page.goto(f"{address}/d/{ident}/face")
        part = page.locator("[data-fn=f7]")
        box = part.bounding_box()
        assert box is not None
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        client = page.context.new_cdp_session(page)
        client.send("Performance.enable")
        page.mouse.move(x, y)
        page.mouse.down()
        before = {m["name"]: m["value"] for m in client.send("Performance.getMetrics")["metrics"]}
        page.evaluate("window.counting = (" + COUNT_FRAMES + ")()")
        until, n = time.monotonic() + 2, 0
        while time.monotonic() < until:
            n += 1
            page.mouse.move(x + n % 40, y + n % 25)
        frames = float(page.evaluate("window.counting"))
        after = {m["name"]: m["value"] for m in client.send("Performance.getMetrics")["metrics"]}
        page.mouse.up()
        busy = sum(after[k] - before[k] for k in ("ScriptDuration", "LayoutDuration", "RecalcStyleDuration"))
        return frames, busy * 1000 / max(1.0, frames * 2)
