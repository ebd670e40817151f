"""What the stations draw and list, asked over HTTP: each answer true to its design, nothing kept by asking."""

from __future__ import annotations

import csv
import io
from typing import Any

import pytest
from ezdxf.filemanagement import new
from fastapi.testclient import TestClient
from PIL import Image

from building import adding, plate
from wingboard.core.changes.commands.brief import SetBrief
from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.changes.commands.places import TurnItems
from wingboard.core.record.procedures import Procedure
from wingboard.core.record.space import KeepOut
from wingboard.services.desk import Desk

INCHES = 1
"""DXF's code of the unit (header variable ``$INSUNITS``, the format's published reference)."""
BAR = KeepOut(id="bar", name="steel bar", x=0, y=50, width=201, height=8, clear=40)


@pytest.fixture
def ident(desk: Desk) -> str:
    """Two toggles, a button and a rotary, an eye, a bar behind and a procedure."""
    commands = (
        SetBrief(eye_distance=600, eye_height=150, pitch=30, free_hand="right"),
        adding(BAR),
        EditFunction(function="f1", positions=("ON", "OFF")),
        EditFunction(function="f2", positions=("ON", "OFF")),
        TurnItems(functions=("f2",), by=90),
        adding(Procedure(id="down", name="Shut down", steps=("f1", "f2", "f3"))),
    )
    spots = (
        ("toggle-large-on-off", 40.0, 60.0),
        ("toggle-large-on-off", 60.0, 60.0),
        ("button-22", 120.0, 60.0),
        ("rotary-12", 165.0, 60.0),
    )
    return desk.add(plate(*spots, commands=commands), "Start", ident="small").design_id


def ask(client: TestClient, path: str) -> Any:
    """A JSON answer."""
    answer = client.get(f"/api/designs/small/{path}".rstrip("/"))
    assert answer.status_code == 200, answer.text
    return answer.json()


def tell(client: TestClient, path: str, body: Any = None, **kinds: Any) -> Any:
    """The JSON answer to a question with a body."""
    answer = client.post(f"/api/designs/small/{path}", json=body, **kinds)
    assert answer.status_code == 200, answer.text
    return answer.json()


@pytest.mark.usefixtures("ident")
class TestFace:
    """The views over a module, and what a drag asks."""

    def test_the_views_agree_with_the_findings_and_the_brief(self, client: TestClient) -> None:
        seen = ask(client, "face/views/plate")
        whole = ask(client, "")
        assert {h["function"] for h in seen["hands"]} == {"f1", "f2", "f3", "f4"}
        assert [b["name"] for b in seen["boxes"]] == ["steel bar"]
        assert seen["boxes"][0]["clear"] == 40
        assert seen["eye"]["distance"] == pytest.approx(600)
        sweep = seen["sweeps"][0]
        assert [s["function"] for s in sweep["steps"]] == ["f1", "f2", "f3"]
        assert [s["off"] for s in sweep["steps"][:2]] == pytest.approx([270, 0])
        thin = {tuple(f["subjects"]) for f in whole["findings"] if f["code"] == "face.bridge-thin"}
        worst = min(seen["webs"], key=lambda w: w["gap"] - w["needed"])
        assert (worst["gap"] < worst["needed"]) == bool(thin)
        depths = {b["function"]: b["depth"] for b in seen["bodies"]}
        short = {b["function"] for b in seen["bodies"] if b["short"]}
        assert short == {f for f, depth in depths.items() if depth > whole["design"]["brief"]["depth"]}

    def test_a_move_that_would_clash_says_so_and_one_that_would_not_is_silent(self, client: TestClient) -> None:
        def clashes(dx: float) -> list[str]:
            move = {"do": "move", "functions": ["f3"], "dx": dx}
            answer = tell(client, "face/clashes", {"base": 1, "lead": "f3", "commands": [move]})
            assert answer["module"] == "plate"
            return [f["code"] for f in answer["findings"] if f["severity"] == "must"]

        assert "face.bodies-collide" not in clashes(0)
        assert "face.bodies-collide" in clashes(40)
        assert ask(client, "")["revision"] == 1
        nobody = {"base": 1, "lead": "f9"}
        assert client.post("/api/designs/small/face/clashes", json=nobody).status_code == 404

    def test_what_a_drag_hears_is_what_the_change_then_brings(self, client: TestClient) -> None:
        move = {"do": "move", "functions": ["f2"], "dx": -6.0}
        before = tell(client, "face/clashes", {"base": 1, "lead": "f2", "commands": [move]})["findings"]
        after = tell(client, "commands", {"base": 1, "commands": [move]})["findings"]
        kept = [f for f in after if f["station"] == "face" and "f2" in f["subjects"] and f["severity"] != "note"]
        assert {f["id"] for f in before} == {f["id"] for f in kept if f["spot"]}
        assert before


@pytest.mark.usefixtures("ident")
class TestBrief:
    """The function list, the outlines and the elevation."""

    def test_a_pasted_list_is_read_back_from_its_own_csv(self, client: TestClient) -> None:
        read = tell(
            client, "brief/read-list", {"text": "Name\tGroup\tPositions\nGong\tSounds\t\nWiper\tGlass\tON/OFF\n"}
        )
        assert [(r["name"], r["group"]) for r in read["rows"]] == [("Gong", "Sounds"), ("Wiper", "Glass")]
        tell(client, "commands", {"base": 1, "commands": read["rows"]})
        text = client.get("/api/designs/small/brief/list.csv").text
        rows = list(csv.DictReader(io.StringIO(text.lstrip("\ufeff"))))
        assert len(rows) == 6
        twice = tell(client, "brief/read-list", {"text": text})
        assert twice["rows"] == []
        assert all("on the list already" in f["reason"] for f in twice["faults"])
        empty = client.post("/api/designs", json={"name": "Empty", "width": 200, "height": 100}).json()["id"]
        again = client.post(f"/api/designs/{empty}/brief/read-list", json={"text": text}).json()
        assert again["faults"] == []
        assert [r["name"] for r in again["rows"]] == ["F1", "F2", "F3", "F4", "Gong", "Wiper"]

    def test_lines_not_understood_come_back_with_their_reason(self, client: TestClient) -> None:
        read = tell(client, "brief/read-list", {"text": "Name\tVolts\nGong\t12\nHorn\ttwelve\n\t5\n"})
        assert [r["name"] for r in read["rows"]] == ["Gong"]
        assert [(f["line"], bool(f["reason"])) for f in read["faults"]] == [(3, True), (4, True)]

    def test_an_outline_is_offered_and_a_bad_file_explained(self, client: TestClient) -> None:
        document = new(units=INCHES)
        document.modelspace().add_lwpolyline([(0, 0), (4, 0), (4, 2), (0, 2)], close=True)
        stream = io.StringIO()
        document.write(stream)
        found = tell(client, "brief/read-outline", content=stream.getvalue())
        assert (found["outlines"][0]["width"], found["outlines"][0]["height"]) == pytest.approx((101.6, 50.8))
        for content in (b"", b"\x00\x01\x02", b"<svg/>", b"0\nSECTION\n"):
            answer = client.post("/api/designs/small/brief/read-outline", content=content)
            assert answer.status_code == 422, content
            assert answer.json()["detail"]

    def test_the_side_view_stands_at_the_pitch(self, client: TestClient) -> None:
        side = ask(client, "brief")["side"]
        (x0, y0), (x1, y1) = ((p["x"], p["y"]) for p in side["plate"][:2])
        assert abs(x1 - x0) / ((x1 - x0) ** 2 + (y1 - y0) ** 2) ** 0.5 == pytest.approx(0.5, abs=1e-6)  # sin 30°
        assert side["eye"]["x"] < 0
        assert {b["id"] for b in side["bodies"]} == {"f1", "f2", "f3", "f4"}


@pytest.mark.usefixtures("ident")
class TestParts:
    """The drawer, choosing and measuring."""

    def test_the_drawer_counts_what_is_used_and_what_is_to_buy(self, client: TestClient) -> None:
        tell(client, "commands", {"base": 1, "commands": [{"do": "set_on_hand", "part": "button-22", "count": 5}]})
        sheets = {s["part"]["id"]: s for s in ask(client, "parts")["sheets"]}
        assert (sheets["button-22"]["used_by"], sheets["button-22"]["to_buy"]) == (["f3"], 0)
        toggles = sheets["toggle-large-on-off"]
        assert toggles["to_buy"] == toggles["needed"] >= len(toggles["used_by"]) == 2
        shopping = list(
            csv.reader(io.StringIO(client.get("/api/designs/small/parts/shopping.csv").text.lstrip("\ufeff")))
        )
        assert any("Large toggle" in cell for row in shopping for cell in row)

    def test_candidates_are_ranked_and_misfits_come_last_with_reasons(self, client: TestClient) -> None:
        tell(client, "commands", {"base": 1, "commands": [{"do": "add_function", "id": "w", "name": "Wiper", "want": "rotary switch, 5 positions", "positions": ["A", "B", "C", "D", "E"]}]})  # fmt: skip  # noqa: E501
        found = ask(client, "parts/candidates/w")["candidates"]
        assert found
        fits = [not k["misfits"] for k in found]
        assert fits == sorted(fits, reverse=True)
        assert all(k["pins"] + k["analogue"] > 0 for k in found if not k["misfits"])
        assert client.get("/api/designs/small/parts/candidates/nobody").status_code == 404

    def test_readings_are_tried_without_being_kept(self, client: TestClient) -> None:
        copy = {"do": "copy_part", "part": "rotary-12", "id": "mine", "name": "Mine"}
        tell(client, "commands", {"base": 1, "commands": [copy]})
        body = {"part": "mine", "readings": [{"of": "bush", "values": [10.0, 10.02, 9.98]}]}
        sheet = tell(client, "parts/try-readings", body)
        assert sheet["part"]["hole"]["diameter"] == pytest.approx(10.02 + 0.2)  # the largest, and a free fit
        assert ask(client, "")["revision"] == 2


def picture(kind: str, size: tuple[int, int] = (40, 30)) -> bytes:
    """A small picture file."""
    stream = io.BytesIO()
    Image.new("RGB", size, "white").save(stream, kind)
    return stream.getvalue()


@pytest.mark.parametrize("kind", ["PNG", "JPEG"])
def test_a_picture_is_kept_once_and_read_by_its_content(client: TestClient, kind: str) -> None:
    first, second = (client.post("/api/pictures", content=picture(kind)) for _ in range(2))
    assert first.status_code == second.status_code == 201
    assert first.json() == second.json()
    assert (first.json()["width"], first.json()["height"]) == (40, 30)
    kept = client.get(f"/api/pictures/{first.json()['picture']}")
    assert kept.headers["content-type"] == f"image/{kind.lower()}"
    assert Image.open(io.BytesIO(kept.content)).size == (40, 30)


@pytest.mark.parametrize(
    "content",
    [b"", b"GIF89a", picture("GIF"), picture("PNG")[:60], picture("BMP")],
    ids=["none", "stub", "gif", "cut", "bmp"],
)
def test_what_is_no_picture_is_refused(client: TestClient, content: bytes) -> None:
    answer = client.post("/api/pictures", content=content)
    assert answer.status_code == 422
    assert answer.json()["detail"]
    assert client.get(f"/api/pictures/{'0' * 64}").status_code == 404
