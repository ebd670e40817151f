"""What once spoiled a design or took the server with it, each by name: refused at its place, or taken and shown."""

from __future__ import annotations

import io
import json
import re
from typing import Any

import pytest
from fastapi.testclient import TestClient
from PIL import Image

from building import plate
from wingboard.core.record.document import write_design
from wingboard.core.record.limits import LIMITS
from wingboard.services.desk import Desk

IDENT = "small"
TOGGLE = "toggle-large-on-off"


@pytest.fixture
def small(desk: Desk) -> Desk:
    """A desk with a small design."""
    desk.add(plate((TOGGLE, 40, 40), ("button-22", 100, 60), ("rotary-12", 150, 60)), "Start", ident=IDENT)
    return desk


def sent(client: TestClient, *commands: dict[str, Any], base: int = 1, key: str | None = None) -> Any:
    """The answer to a batch."""
    return client.post(f"/api/designs/{IDENT}/commands", json={"base": base, "commands": commands, "key": key})


def placed(function: str, part: str, x: float, y: float = 60) -> list[dict[str, Any]]:
    """Commands that add a function and place its part."""
    return [
        {"do": "add_function", "id": function, "name": function.upper()},
        {"do": "choose_part", "function": function, "part": part},
        {"do": "place", "function": function, "module": "plate", "x": x, "y": y},
    ]


FAR = [{"x": 19_000, "y": 19_000}, {"x": 19_001, "y": 19_000}, {"x": -20_000, "y": 3}]
LENGTH = {"start": {"x": 0, "y": 0}, "end": {"x": 1, "y": 0}, "length": 5000}
PICTURE = {"do": "add_reference", "id": "r", "module": "plate", "picture": "0" * 64, "width": 100, "height": 80}
ACCEPTED: dict[str, list[dict[str, Any]]] = {
    "a table": [{"do": "set_brief", "eye_distance": 650, "pitch": 90}],
    "a part far off the plate": [{"do": "place", "function": "f1", "module": "plate", "x": -4900, "y": 4900}],
    "a gap as wide as can be": [{"do": "set_brief", "gap": 5000}],
    "a name whose capitals are too many": [
        {"do": "add_function", "id": "long", "name": "ß" * 61},
        {"do": "choose_part", "function": "long", "part": "button-16"},
        {"do": "place", "function": "long", "module": "plate", "x": 20, "y": 90},
        {"do": "remove_legend", "function": "long"},
    ],
    "circles traced far off": [
        {**PICTURE, "scale": LENGTH},
        {"do": "trace_circle", "reference": "r", "points": FAR, "function": "f1"},
    ],
    "every limit nothing": [{"do": "set_limit", "limit": n, "value": 0, "reason": "none"} for n in LIMITS],
    "every limit huge": [{"do": "set_limit", "limit": n, "value": 10_000, "reason": "all"} for n in LIMITS],
    "stray pins": [
        {"do": "add_controller", "id": f"c{n}", "board": "atmega2560"} for n in range(32)
    ] + [{"do": "set_pins", "pins": [
        {"line": f"f1.stray-{c}-{p}", "controller": f"c{c}", "pin": str(p)} for c in range(32) for p in range(100)
    ]}],
    "a pair far off": [
        {"do": "place", "function": "f1", "module": "plate", "x": -4800, "y": 0},
        {"do": "pair", "first": "f1", "second": "f2"},
        {"do": "move", "functions": ["f2"], "dx": -200},
    ],
    "parts on one spot": [c for n in range(40) for c in placed(f"p{n}", TOGGLE, 100)],
}  # fmt: skip


@pytest.mark.parametrize("commands", ACCEPTED.values(), ids=ACCEPTED)
def test_an_odd_design_is_taken_shown_judged_and_undone(
    client: TestClient, small: Desk, commands: list[dict[str, Any]]
) -> None:
    before = small.open(IDENT).design
    for base, command in enumerate(commands if commands[0]["do"] == "place" else [commands], 1):
        batch = command if isinstance(command, list) else [command]
        answer = sent(client, *batch, base=base)
        assert answer.status_code in (200, 409), answer.text
        assert answer.status_code == 200 or "further than" in answer.json()["detail"]
    fresh = Desk(small.database).open(IDENT)
    whole = client.get(f"/api/designs/{IDENT}").json()
    assert not [f for f in whole["findings"] if f["id"].endswith(":not-judged")]
    for path in ("/brief", "/face/views/plate", "/parts", "/cut", "/wire", "/export"):
        assert client.get(f"/api/designs/{IDENT}{path}").status_code == 200
    while fresh.row.undo_to:
        fresh = small.undo(IDENT, fresh.row.number).state
    assert fresh.design == before


CROSSED = {"kind": "path", "points": [{"x": 0, "y": 0}, {"x": 90, "y": 90}, {"x": 90, "y": 0}, {"x": 0, "y": 90}]}
FLAT = {"kind": "path", "points": [{"x": 0, "y": 0}, {"x": 90, "y": 0}, {"x": 45, "y": 0}]}
REFUSED: dict[str, tuple[dict[str, Any], int]] = {
    "an arch higher than a half circle": (
        {"do": "set_brief", "opening": {"kind": "arch", "width": 300, "height": 200, "rise": 5000}}, 422),
    "an eye in the panel": ({"do": "set_brief", "eye_distance": 5e-324}, 422),
    "a crossed module": ({"do": "add_module", "name": "X", "outline": CROSSED}, 422),
    "a module without area": ({"do": "add_module", "name": "X", "outline": FLAT}, 422),
    "a limit that is none": ({"do": "set_limit", "limit": "no-such", "value": 1, "reason": "x"}, 404),
    "a crossed cut-out": ({"do": "edit_part", "part": "mine", "cutout": {**CROSSED}}, 422),
}  # fmt: skip


@pytest.mark.parametrize(("command", "status"), REFUSED.values(), ids=REFUSED)
def test_what_makes_no_sense_is_refused(client: TestClient, small: Desk, command: dict[str, Any], status: int) -> None:
    answer = sent(client, command)
    assert (answer.status_code, answer.headers["content-type"]) == (status, "application/problem+json")
    assert client.get(f"/api/designs/{IDENT}").json()["revision"] == 1


def many(count: int, **command: Any) -> list[dict[str, Any]]:
    """The same command so often, each with a name of its own."""
    return [{**command, **({"name": f"N{n}"} if "name" in command else {})} for n in range(count)]


MACHINE = {"do": "add_machine", "name": "", "kind": "laser", "bed_width": 300, "bed_height": 200}
STOCK = {"do": "add_stock", "material": "acrylic", "thickness": 3, "width": 600, "height": 400}
BOX = {"do": "add_keepout", "name": "", "x": 0, "y": 0, "width": 5, "height": 5, "clear": 5}
TOO_MANY: dict[str, list[dict[str, Any]]] = {
    "controllers": many(33, do="add_controller", board="atmega328p"),
    "machines": many(41, **MACHINE),
    "stock": many(201, **STOCK),
    "supplies": many(41, do="add_supply", name="", volts=5, amps=1),
    "hours": many(1001, do="log_hours", stage="cut", hours=1, controls=1),
    "keepouts": many(201, **BOX),
    "modules": many(51, do="add_module", name="", outline={"kind": "rect", "width": 9, "height": 9}),
    "functions": many(1998, do="add_function", name=""),
    "parts": many(500, do="copy_part", part="button-22", name=""),
    "graphics": many(501, do="add_graphic", module="plate", kind="text", text="T"),
    "procedures": many(51, do="add_procedure", name="", steps=["f1"]),
    "references": many(21, **{**PICTURE, "id": None}),
}


@pytest.mark.parametrize("commands", TOO_MANY.values(), ids=TOO_MANY)
def test_one_more_than_there_is_room_for_is_refused_and_nothing_is_spoiled(
    client: TestClient, small: Desk, commands: list[dict[str, Any]]
) -> None:
    answer = sent(client, *commands)
    assert answer.status_code == 409
    assert "There is room for" in answer.json()["detail"]
    assert sent(client, *commands[:5]).status_code == 200
    assert Desk(small.database).open(IDENT).row.number == 2


def test_outlines_are_walked_counter_clockwise_from_the_origin(client: TestClient, small: Desk) -> None:
    corners = [(-50.0, -50.0), (-50.0, 51.0), (151.0, 51.0), (151.0, -50.0)]  # clockwise, and off the origin
    outline = {"kind": "path", "points": [{"x": x, "y": y} for x, y in corners]}
    answer = sent(
        client, {"do": "set_brief", "opening": outline}, {"do": "add_module", "name": "M", "outline": outline}
    )
    design = answer.json()["design"]
    for made in (design["brief"]["opening"], design["modules"][-1]["outline"]):
        points = [(p["x"], p["y"]) for p in made["points"]]
        assert min(x for x, _ in points) == min(y for _, y in points) == 0
        twice = sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(points, points[1:] + points[:1], strict=True))
        assert twice / 2 == pytest.approx(201 * 101)
    svg = client.get(f"/api/designs/{IDENT}/cut/module-1/face.svg").text
    assert 'viewBox="0 0 201 101"' in svg
    assert "-50" not in re.sub(r"data-for=\"[^\"]*\"", "", svg)
    # A plate made to fit is no larger than the opening less its gap.
    split = sent(client, {"do": "split_opening", "names": ["A"]}, base=2).json()
    assert split["modules"][0]["width"] == pytest.approx(201 - 2 * design["brief"]["gap"])


def test_a_full_shelf_gives_a_new_design_what_fits_and_can_be_cleared(client: TestClient, small: Desk) -> None:
    for n in range(2):
        ident = small.add(plate(), "Start").design_id
        body = {"base": 1, "commands": many(25, **MACHINE)}
        assert client.post(f"/api/designs/{ident}/commands", json=body).status_code == 200, n
    assert len(client.get("/api/shelf").json()["machines"]) == 50
    made = client.post("/api/designs", json={"name": "New"})
    assert made.status_code == 201
    assert len(made.json()["design"]["workshop"]["machines"]) == 40
    assert len(client.delete("/api/shelf/machine/laser-1").json()["machines"]) == 49
    assert client.delete("/api/shelf/machine/laser-1").status_code == 404


MOVE = {"do": "move", "functions": ["f1"], "dx": 1}


def test_keys_and_revisions_are_what_they_say(client: TestClient, small: Desk) -> None:
    assert sent(client, MOVE, base=2**63).status_code == 422
    first = sent(client, MOVE, key="one").json()
    assert sent(client, MOVE, key="one").json()["revision"] == first["revision"] == 2
    assert sent(client, {**MOVE, "dx": 2}, base=2, key="one").status_code == 409
    assert [sent(client, MOVE, base=n, key="").json()["revision"] for n in (2, 3)] == [3, 4]
    undone = [client.post(f"/api/designs/{IDENT}/undo", json={"base": 4, "key": "u"}).json() for _ in range(2)]
    assert [u["revision"] for u in undone] == [5, 5]


def test_what_changes_nothing_is_not_kept_and_undo_gives_back_what_was(client: TestClient, small: Desk) -> None:
    before = sent(client, MOVE).json()
    nothing = {"do": "move", "functions": ["f1"], "dx": 0}
    same = sent(client, nothing, {"do": "rename", "name": before["design"]["name"]}, base=2).json()
    assert same["revision"] == 2
    undone = client.post(f"/api/designs/{IDENT}/undo", json={"base": 2}).json()
    assert undone["design"] == json.loads(write_design(small.open(IDENT, 1).design))


def test_two_changes_to_two_fields_of_one_thing_both_stay(client: TestClient, small: Desk) -> None:
    sent(client, MACHINE | {"name": "Laser"}, MACHINE | {"name": "Laser"})
    machines = client.get(f"/api/designs/{IDENT}").json()["design"]["workshop"]["machines"]
    assert [m["id"] for m in machines] == ["laser-1", "laser-2"]
    edit = {"do": "edit_machine", "machine": "laser-1"}
    assert sent(client, {**edit, "kerf": 0.2}, base=2).status_code == 200
    stale = sent(client, {**edit, "margin": 7}, base=2)
    assert (stale.status_code, stale.json()["head"]) == (409, 3)
    after = sent(client, {**edit, "margin": 7}, base=stale.json()["head"]).json()["design"]["workshop"]["machines"][0]
    assert (after["kerf"], after["margin"]) == (0.2, 7)


@pytest.mark.parametrize("host", ["127.0.0.1:80@other", "127.0.0.1.other", "other", "localhost:x", "", "[::1]x"])
def test_other_hosts_are_refused_with_the_headers_that_keep_a_page_safe(client: TestClient, host: str) -> None:
    answer = client.get("/api/designs", headers={"host": host})
    assert answer.status_code == 421
    assert answer.headers["x-content-type-options"] == "nosniff"
    assert answer.headers["cache-control"] == "no-store"


def svg(body: str, size: str = 'width="100mm" height="100mm" viewBox="0 0 100 100"') -> bytes:
    """An SVG document."""
    spaces = 'xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink"'
    return f"<svg {spaces} {size}>{body}</svg>".encode()


def dxf(*entities: str) -> bytes:
    """A DXF document of these entities."""
    return ("0\nSECTION\n2\nENTITIES\n" + "".join(entities) + "0\nENDSEC\n0\nEOF\n").encode()


def line(x0: float, y0: float, x1: float, y1: float) -> str:
    """A DXF line."""
    return f"0\nLINE\n8\n0\n10\n{x0}\n20\n{y0}\n11\n{x1}\n21\n{y1}\n"


def circle(x: float, y: float, r: float) -> str:
    """A DXF circle."""
    return f"0\nCIRCLE\n8\n0\n10\n{x}\n20\n{y}\n40\n{r}\n"


def ellipse(x: str, ratio: str) -> str:
    """A DXF ellipse."""
    return f"0\nELLIPSE\n8\n0\n10\n0\n20\n0\n11\n{x}\n21\n0\n40\n{ratio}\n41\n0\n42\n6.283185\n"


BOMB = '<g id="a0"><rect width="9" height="9"/></g>' + "".join(
    f'<g id="a{n}">' + f'<use xlink:href="#a{n - 1}"/>' * 10 + "</g>" for n in range(1, 12)
)
DRAWINGS = {
    "a bomb of uses": svg(f"<defs>{BOMB}</defs><use xlink:href='#a11'/>"),
    "a use of itself": svg('<g id="a"><use xlink:href="#a"/><rect width="9" height="9"/></g>'),
    "a circle of a million kilometres": svg('<circle cx="0" cy="0" r="1e12"/>'),
    "an arc of a million kilometres": svg('<path d="M0 0A1e12 1e12 0 1 1 1e12 5Z"/>'),
    "a huge DXF circle": dxf(circle(0, 0, 1e12)),
    "twenty thousand loose lines": dxf(*(line(n, 0, n + 0.5, 0) for n in range(20_000))),
    "twenty thousand lines from one point": dxf(*(line(0, 0, n, 1) for n in range(20_000))),
    "a chain of twenty thousand": dxf(*(line(n, n % 2, n + 1, (n + 1) % 2) for n in range(20_000))),
    "an ellipse that is no number": dxf(ellipse("nan", "0.5")),
    "an ellipse without an axis": dxf(ellipse("0", "0.5")),
    "an ellipse as flat as a line": dxf(ellipse("10", "0")),
    "a DXF that stops": dxf(line(0, 0, 9, 0))[:40],
    "a lone surrogate": svg("<text>\\ud800</text>").replace(b"\\ud800", b"\xed\xa0\x80"),
    "an encoding that nobody knows": b'<?xml version="1.0" encoding="x-none"?>' + svg("<rect width='9' height='9'/>"),
    "entities": b'<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY a "aaaaaaaa">]>' + svg("<text>&a;</text>"),
    "deep nesting": svg("<g>" * 5000 + "<rect width='9' height='9'/>" + "</g>" * 5000),
    "a hundred thousand rectangles": svg('<rect x="1" width="9" height="9"/>' * 100_000),
}


@pytest.mark.parametrize("content", DRAWINGS.values(), ids=DRAWINGS)
def test_a_hostile_drawing_is_taken_or_refused_and_nobody_waits(
    client: TestClient, small: Desk, content: bytes
) -> None:
    answer = client.post(f"/api/designs/{IDENT}/brief/read-outline", content=content)
    assert answer.status_code in (200, 422), answer.text
    assert answer.status_code == 200 or answer.json()["detail"]
    assert client.get(f"/api/designs/{IDENT}").status_code == 200


def jpeg(*pictures: Image.Image, progressive: bool = False) -> bytes:
    """JPEGs one after the other, as cameras write them with a preview."""
    stream = io.BytesIO()
    for picture in pictures:
        picture.save(stream, "JPEG", progressive=progressive)
    return stream.getvalue()


def multi_picture() -> bytes:
    """A JPEG with a second picture in it, by the index that cameras write (CIPA DC-007, multi-picture format)."""
    stream = io.BytesIO()
    Image.new("RGB", (40, 30)).save(stream, "MPO", save_all=True, append_images=[Image.new("RGB", (20, 15))])
    return stream.getvalue()


def test_a_cameras_picture_with_a_second_one_in_it_is_taken(client: TestClient) -> None:
    for content in (jpeg(Image.new("RGB", (40, 30)), Image.new("RGB", (20, 15))), multi_picture()):
        answer = client.post("/api/pictures", content=content)
        assert answer.status_code == 201, answer.text
        assert (answer.json()["width"], answer.json()["height"]) == (40, 30)
        assert client.get(f"/api/pictures/{answer.json()['picture']}").headers["content-type"] == "image/jpeg"


def test_a_picture_with_its_scans_repeated_without_end_is_refused(client: TestClient) -> None:
    whole = jpeg(Image.effect_noise((3000, 3000), 80).convert("RGB"), progressive=True)
    start = whole.index(b"\xff\xda")
    second = whole.index(b"\xff\xda", start + 2)
    bomb = whole[:second] + whole[start:second] * 2 + whole[second:]
    scan = b"\xff\xda\x00\x08\x01\x01\x00\x00\x00\x00\x00"
    answer = client.post("/api/pictures", content=(bomb[:start] + scan * 300_000)[:7_900_000])
    assert answer.status_code == 422, answer.text


LISTS = {
    "ends of lines of an old machine": "Gong\rHorn\rBell\r",
    "a cell longer than any": "x" * 140_000,
    "quotes that never end": 'name,want\n"Horn,toggle\n' * 50,
    "a lone surrogate": "Horn \ud800",
    "a byte of zero": "Ho\0rn",
    "only separators": ";;;;\n\t\t\t\n",
    "four hundred thousand tabs": "\t" * 399_999,
}


@pytest.mark.parametrize("text", LISTS.values(), ids=LISTS)
def test_a_hostile_list_is_read_or_refused(client: TestClient, small: Desk, text: str) -> None:
    body = json.dumps({"text": text}).encode()
    answer = client.post(
        f"/api/designs/{IDENT}/brief/read-list", content=body, headers={"content-type": "application/json"}
    )
    assert answer.status_code in (200, 409, 422), answer.text


def test_lines_of_an_old_machine_are_three_lines(client: TestClient, small: Desk) -> None:
    rows = client.post(f"/api/designs/{IDENT}/brief/read-list", json={"text": "Gong\rHorn\rBell\r"}).json()["rows"]
    assert [row["name"] for row in rows] == ["Gong", "Horn", "Bell"]


def test_six_hundred_parts_on_one_spot_are_opened_or_refused(client: TestClient) -> None:
    design = json.loads(write_design(plate((TOGGLE, 40, 40))))
    design["functions"] = [{**design["functions"][0], "id": f"f{n}", "name": f"F{n}"} for n in range(600)]
    answer = client.post("/api/designs/import", content=json.dumps(design))
    assert answer.status_code in (201, 422), answer.text[:300]
    if answer.status_code == 201:
        codes = [f["code"] for f in answer.json()["findings"]]
        assert all(codes.count(code) <= 201 for code in codes)


def test_a_cell_that_begins_a_formula_is_no_formula_for_a_spreadsheet(client: TestClient, small: Desk) -> None:
    names = ["=1+1", "+SUM(A1)", "-2", "@cmd", "\t=1", "A;=1+1", "a,\n=2".replace("\n", " ")]
    for base, name in enumerate(names[:4] + names[5:], 1):
        assert sent(client, {"do": "add_function", "name": name}, base=base).status_code == 200
    text = client.get(f"/api/designs/{IDENT}/brief/list.csv").text
    cells = [cell for row in text.splitlines() for cell in re.split(r'[,;]"?', row)]
    assert not [cell for cell in cells if cell.startswith(("=", "+", "-", "@"))]
