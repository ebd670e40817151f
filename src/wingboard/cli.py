"""The same core from a shell."""

from __future__ import annotations

import gc
import json
import signal
import socket
import sys
import threading
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Annotated, Any, Literal, NoReturn

import platformdirs
import typer
from pydantic import ValidationError

from wingboard import __version__
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import BATCH
from wingboard.core.changes.commands.wire import SetPins
from wingboard.core.cut.export import cut_files
from wingboard.core.cut.jobsheet import unsettled
from wingboard.core.findings.finding import SEVERITY_WORDS
from wingboard.core.findings.limits import LIMITS
from wingboard.core.overview.fixing import fix_of
from wingboard.core.overview.memory import Memory
from wingboard.core.overview.review import all_checks, left_to_fix, review
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.record.document import read_design, write_design
from wingboard.core.record.errors import DesignError
from wingboard.core.resolved.design import Resolved
from wingboard.core.wire.export import pins_csv, pins_json, wire_files
from wingboard.core.wire.program.channels import Unserved
from wingboard.demo import demo_texts
from wingboard.services.desk import Desk
from wingboard.services.logs import Level, start_log
from wingboard.store.database import Database, back_up
from wingboard.store.errors import StoreError

app = typer.Typer(
    name="wingboard", help="From what a panel must do to a panel cut once.", no_args_is_help=True, add_completion=False
)

DesignFile = Annotated[Path, typer.Argument(help="A design as the application exports it; - reads from standard input")]
Revision = Annotated[int, typer.Option("--revision", min=0, help="Of the design, as its boards shall say when asked")]
PORT = 8765


def fail(message: str, code: int = 2) -> NoReturn:
    """Say what is wrong on standard error, and stop."""
    typer.echo(f"wingboard: {message}", err=True)
    raise typer.Exit(code)


@contextmanager
def _failures_said() -> Iterator[None]:
    try:
        yield
    except DesignError as error:
        lines = [f"{p.path}: {p.message}" if p.path else p.message for p in error.problems]
        fail("; ".join(dict.fromkeys(lines)) if len(lines) < 4 else "\n  ".join([error.title, *lines]))
    except StoreError as error:
        fail(f"{error.title}. {error}")
    except OSError as error:
        fail(f"{error.filename or ''}: {error.strerror or error}")


def _load(path: Path) -> Design:
    text = sys.stdin.buffer.read() if str(path) == "-" else path.read_bytes()
    return read_design(text, catalogue())


def _print_json(value: object) -> None:
    typer.echo(json.dumps(value, ensure_ascii=False, indent=2))


@app.command()
def check(design: DesignFile, as_json: Annotated[bool, typer.Option("--json")] = False) -> None:
    """List what is wrong, with numbers. Exit 1 when something is left to fix."""
    with _failures_said():
        r, memory = Resolved(_load(design)), Memory()
        findings = tuple(fix_of(r, f.id, memory) or f if f.fixable and f.unsettled else f for f in review(r, memory))
    if as_json:
        _print_json([f.model_dump(mode="json") for f in findings])
    else:
        for f in findings:
            figures = f"  {f.figures()}" if f.figures() else ""
            accepted = f"  (accepted: {f.accepted})" if f.accepted else ""
            typer.echo(f"{SEVERITY_WORDS[f.severity]:8} {f.code:24} {f.title}: {f.detail}{figures}{accepted}")
            if f.fix:
                typer.echo(f"{'':33} fix: {f.fix.label}")
        typer.echo(f"{left_to_fix(findings)} left to fix, {len(findings)} findings")
    raise typer.Exit(1 if left_to_fix(findings) else 0)


@app.command()
def export(
    design: DesignFile,
    to: Annotated[Path, typer.Option("--to", help="Folder, made when it is not there")],
    only: Annotated[Literal["cut", "wire"] | None, typer.Option("--only")] = None,
    revision: Revision = 0,
) -> None:
    """Write the files for the machines and for soldering."""
    with _failures_said():
        r = Resolved(_load(design))
        findings = review(r)
        cut = {file.name: file.content for file in cut_files(r, findings)} if only != "wire" else {}
        files = {**cut, **(wire_files(r, revision) if only != "cut" else {})}
        for name, content in files.items():
            target = to / name
            target.parent.mkdir(parents=True, exist_ok=True)
            target.write_bytes(content)
            typer.echo(str(target))
    left = unsettled(findings)
    if left:
        typer.echo(f"wingboard: not settled before cutting: {'; '.join(str(line) for line in left)}", err=True)


@app.command()
def nets(design: DesignFile, as_json: Annotated[bool, typer.Option("--json")] = False) -> None:
    """Print the net list: what is joined to what, terminal by terminal, and what the record does not say."""
    from wingboard.core.wire.harness.plugs import nets_json
    from wingboard.core.wire.nets import net_list

    with _failures_said():
        resolved = Resolved(_load(design))
        found = net_list(resolved)
    if as_json:
        typer.echo(json.dumps(nets_json(resolved), indent=2, ensure_ascii=False))
        return
    for net in found.nets:
        ends = ", ".join(f"{found.devices[port.device].name} {port.terminal}" for port in net.ports)
        typer.echo(f"{net.id:28} {net.kind:7} {ends}")
    for missing in found.unsaid:
        typer.echo(f"wingboard: {found.devices[missing.device].name}: {missing.words}", err=True)


@app.command()
def pins(
    design: DesignFile,
    as_csv: Annotated[bool, typer.Option("--csv")] = False,
    as_json: Annotated[bool, typer.Option("--json")] = False,
) -> None:
    """Give every line a pin and print the list. Exit 1 when something does not fit."""
    from wingboard.core.wire.pins.solve import solve  # the solver takes a second to load

    with _failures_said():
        loaded = _load(design)
        found = solve(Resolved(loaded))
        solved = apply(loaded, (SetPins(pins=found.pins),), catalogue())
        with_pins = Resolved(solved)
    if as_json:
        typer.echo(pins_json(with_pins).decode(), nl=False)
    elif as_csv:
        typer.echo(pins_csv(with_pins).decode().replace("\r\n", "\n"), nl=False)
    else:
        for row in json.loads(pins_json(with_pins)):
            end = f"{row['board'] or '-':10} {row['pin'] or '-':4} {row['direction']:4}"
            typer.echo(f"{end} {row['function']}, {row['terminal']}  [{row['module']}] {row['note']}")
    for left in found.unfit:
        typer.echo(f"wingboard: no pins for {left.name}: {left.reason}", err=True)
    raise typer.Exit(1 if found.unfit else 0)


@app.command()
def program(
    design: DesignFile,
    to: Annotated[Path, typer.Option("--to", help="Folder in which each board gets one of its own")],
    revision: Revision = 0,
    sizes: Annotated[bool, typer.Option("--sizes", help="Compile them and say what they take")] = False,
) -> None:
    """Write the program of each board. Exit 1 when a line is not served, or a program does not fit."""
    from wingboard.core.wire.program.channels import programmed
    from wingboard.core.wire.program.sketch import homeless, sketch
    from wingboard.services.programs import size_of

    short = False
    with _failures_said():
        resolved = Resolved(_load(design))
        for board in programmed(resolved):
            found = sketch(resolved, board, revision)
            folder = to / found.folder
            folder.mkdir(parents=True, exist_ok=True)
            for name, text in found.files.items():
                (folder / name).write_text(text, "utf-8")
            words = ""
            if sizes:
                size = size_of(resolved, found, board)
                takes = size.partly or size.cannot or f"{size.flash} bytes of flash, {size.ram} of RAM"
                words = f": {takes}{f', {size.over}' if size.over else ''}"
                short |= bool(size.over or size.cannot)
            typer.echo(f"{folder}{words}")
            short |= _unserved_said(found.unserved)
        short |= _unserved_said(homeless(resolved))
    raise typer.Exit(1 if short else 0)


def _unserved_said(of: Iterable[Unserved]) -> bool:
    """Says what no program reads or drives; whether there is any."""
    left = list(of)
    for one in left:
        typer.echo(f"wingboard: {one.line.name}, {one.line.terminal}: {one.why}", err=True)
    return bool(left)


@app.command()
def link(
    simulated: Annotated[
        Path | None, typer.Option("--simulated", help="A design: its board's program on a simulated chip")
    ] = None,
    port: Annotated[str, typer.Option("--port", help="A serial port with a board")] = "",
    board: Annotated[str, typer.Option("--board", help="Its letter, A for the first")] = "A",
    revision: Revision = 0,
) -> None:
    """Type the protocol to a board by hand, as docs/protocol.md has it; ends where the input ends."""
    from wingboard.devices.byhand import simulated as running
    from wingboard.devices.byhand import typed
    from wingboard.devices.ports import Port, ports

    if bool(port) == bool(simulated):
        there = "; ".join(" ".join(one).strip() for one in ports()) or "none"
        fail(f"--port NAME or --simulated DESIGN says which board; ports here: {there}")
    with _failures_said():
        on = running(Resolved(_load(simulated)), board, revision) if simulated else Port(port)
        with on as wire:
            for line in typed(wire, sys.stdin):
                typer.echo(line)


@app.command()
def edit(
    design: DesignFile,
    commands: Annotated[Path, typer.Option("--commands", help="A JSON list of commands")],
    out: Annotated[Path, typer.Option("-o", "--out")],
) -> None:
    """Carry out commands on a design file and write the result."""
    with _failures_said():
        try:
            batch = BATCH.validate_json(commands.read_bytes())
        except ValidationError as error:
            first = error.errors()[0]
            where = "".join(f"[{s}]" if isinstance(s, int) else f".{s}" for s in first["loc"]).lstrip(".")
            fail(f"{commands}: {where}: {first['msg']}")
        out.write_text(write_design(apply(_load(design), batch, catalogue())), "utf-8")


@app.command()
def schema() -> None:
    """Print the JSON Schema of a design file."""
    _print_json(Design.model_json_schema())


@app.command()
def parts(as_json: Annotated[bool, typer.Option("--json")] = False) -> None:
    """List the catalogue."""
    if as_json:
        _print_json([p.model_dump(mode="json", exclude_none=True) for p in catalogue().values()])
        return
    for part in catalogue().values():
        typer.echo(f"{part.id:26} {part.name}: {part.summary}")


@app.command()
def checks(as_json: Annotated[bool, typer.Option("--json")] = False) -> None:
    """List every check: code, station, severity, limits, source."""
    rows = [
        {
            "code": c.code,
            "station": c.station,
            "severity": c.severity,
            "title": c.title,
            "measures": c.measures,
            "limits": [
                {"limit": n, "value": LIMITS[n].value, "unit": LIMITS[n].unit, "source": LIMITS[n].source.said()}
                for n in c.limits
            ],
            "source": c.source.said(),
            "fix": c.fixes,
        }
        for c in all_checks()
    ]
    if as_json:
        _print_json(rows)
        return
    for row in rows:
        typer.echo(f"{row['severity']:6} {row['code']:28} {row['title']}: {row['measures']} ({row['source']})")


@app.command()
def demo(write: Annotated[Path, typer.Option("--write", help="Folder for the demo designs")]) -> None:
    """Write the demo designs as files."""
    with _failures_said():
        write.mkdir(parents=True, exist_ok=True)
        for name, text in demo_texts().items():
            (write / f"{name}.json").write_text(text, "utf-8")
            typer.echo(str(write / f"{name}.json"))


@app.command()
def openapi() -> None:
    """Print the HTTP interface's description (for the front end's generated types)."""
    from wingboard.api.app import interface

    _print_json(interface())


DataFolder = Annotated[Path | None, typer.Option("--data", help="Folder of the database")]


def _data_folder(data: Path | None) -> Path:
    return data or Path(platformdirs.user_data_dir("wingboard", appauthor=False))


@app.command()
def backup(
    to: Annotated[Path, typer.Argument(help="The file to write; it must not be there yet")],
    data: DataFolder = None,
) -> None:
    """Copy the whole database into one file, even while Wing Board is running."""
    source = _data_folder(data) / "wingboard.db"
    if not source.is_file():
        fail(f"{source}: there is no database")
    if to.exists():
        fail(f"{to} is there already; name another file")
    with _failures_said():
        back_up(source, to)
    typer.echo(str(to))


@app.command()
def serve(
    data: DataFolder = None,
    port: Annotated[int, typer.Option("--port", min=0, max=65535)] = PORT,
    with_demo: Annotated[bool, typer.Option("--with-demo", help="Add the demo designs when they are absent")] = False,
    log_level: Annotated[Level, typer.Option("--log-level", help="What the log in the data folder tells")] = "info",
) -> None:
    """Serve the application on this machine only."""
    gc.disable()  # until what stays is loaded: see steady_memory
    import uvicorn

    from wingboard.api.app import create_app
    from wingboard.services.steady import steady_memory
    from wingboard.services.workers import warm_up

    folder = _data_folder(data)
    with _failures_said():
        folder.mkdir(parents=True, exist_ok=True)
        start_log(folder, log_level)
        desk = Desk(Database(folder / "wingboard.db"))
        if with_demo:
            add_demo(desk)
    listener = _listener(port)
    address = f"http://127.0.0.1:{listener.getsockname()[1]}"
    typer.echo(f"Wing Board {__version__}: database {folder / 'wingboard.db'}")
    typer.echo(f"Open {address} (Ctrl C stops it; everything is kept)")
    application = create_app(desk)
    steady_memory()
    warming = threading.Timer(WARM_AFTER, warm_up)
    warming.daemon = True
    warming.start()
    server = uvicorn.Server(uvicorn.Config(application, **SERVER))
    # uvicorn hands the signal on when it has stopped; the default would end the program before the file is closed.
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    try:
        server.run(sockets=[listener])
    except KeyboardInterrupt:
        typer.echo("Stopped; everything is kept")
    finally:
        desk.database.close()


WARM_AFTER = 3.0
"""When the workers for files and archives are loaded (s): after the page has been."""
SERVER: dict[str, Any] = {
    "http": "wingboard.api.connections:Patient",
    "log_config": None,
    "log_level": "warning",
    "access_log": False,
    "server_header": False,
    "limit_concurrency": 256,
    "timeout_keep_alive": 15,
    "timeout_graceful_shutdown": 3,
}
"""How the server behaves: no more than so many connections at once, and none that stays for ever."""


def add_demo(desk: Desk) -> None:
    """Add each demo design that is not there yet."""
    there = {d.id for d in desk.designs()}
    for name, text in reversed(demo_texts().items()):
        if name not in there:
            desk.add(read_design(text, catalogue()), "Demo design", ident=name)


def _listener(port: int) -> socket.socket:
    # Named as TCP, or small answers wait for the other side (asyncio then leaves Nagle's algorithm on).
    listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
    listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listener.bind(("127.0.0.1", port))
    except OSError:
        fail(f"port {port} is taken, perhaps by another Wing Board; close that, or choose one with --port 0")
    return listener
