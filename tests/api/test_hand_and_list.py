"""What the page asks while something is dragged, measured, typed, or given a part; and removed designs."""

from __future__ import annotations

from typing import Any

import pytest
from fastapi.testclient import TestClient

from building import plate
from wingboard.core.findings.limits import LIMITS
from wingboard.core.record.usual import MACHINES
from wingboard.services.desk import Desk

START = plate(("button-22", 40, 60), ("button-22", 100, 60), ("led-5-bezel", 150, 20))


@pytest.fixture
def ident(desk: Desk) -> str:
    return desk.add(START, "Start", ident="small").design_id


def post(client: TestClient, ident: str, path: str, **body: Any) -> Any:
    return client.post(f"/api/designs/{ident}/{path}", json=body)


def test_what_is_usual_comes_from_the_core(client: TestClient) -> None:
    said = client.get("/api/trade").json()
    assert [m["kind"] for m in said["machines"]] == list(MACHINES)
    assert (said["licensed_ac"], said["licensed_dc"]) == (LIMITS["touch-ac"].value, LIMITS["touch-dc"].value)
    assert "warning" in said["symbols"]
    (tool,) = client.get("/api/quantity/tools", params={"text": "1/8in×2"}).json()
    assert (tool["kind"], tool["diameter"], tool["flutes"]) == ("mill", 3.175, 2)
    assert client.get("/api/quantity/tools", params={"text": "wide"}).status_code == 422


def test_guides_come_with_what_is_dragged_even_from_the_tray(client: TestClient, ident: str) -> None:
    asked = post(client, ident, "face/guides", base=1, lead="f1", moving=["f1"], commands=[]).json()
    assert asked["module"] == "plate"
    assert {g["kind"] for g in asked["guides"]} >= {"middle", "centre", "edge"}
    away = {"do": "remove", "functions": ["f3"]}
    assert post(client, ident, "commands", base=1, commands=[away]).status_code == 200
    put = {"do": "place", "function": "f3", "module": "plate", "x": 60, "y": 90}
    carried = post(client, ident, "face/guides", base=2, lead="f3", moving=[], commands=[put])
    assert any(g["axis"] == "x" and g["kind"] == "centre" and g["at"] == 40 for g in carried.json()["guides"])
    assert post(client, ident, "face/guides", base=2, lead="f9", moving=[], commands=[]).status_code == 404
    found = client.get(f"/api/designs/{ident}/face/caught", params={"module": "plate", "x": 41, "y": 60}).json()
    assert (found["x"], found["y"], found["words"]) == (40, 60, "centre of F1")
    wrong = client.get(f"/api/designs/{ident}/face/caught", params={"module": "none", "x": 1, "y": 1})
    assert wrong.status_code == 404


def test_what_has_no_room_on_a_module_goes_to_another(client: TestClient, ident: str) -> None:
    outline = {"kind": "rect", "width": 12, "height": 12, "radius": 0}
    tiny = {"do": "add_module", "id": "tiny", "name": "Tiny", "outline": outline, "x": 300}
    away = {"do": "remove", "functions": ["f2"]}
    assert post(client, ident, "commands", base=1, commands=[tiny, away]).status_code == 200
    spot = post(client, ident, "face/free-spot", base=2, function="f2", module="tiny").json()
    assert (spot["module"], spot["free"], spot["y"]) == ("plate", True, 20)  # in the row of the last there


def test_cells_and_lines_are_kept_once_and_refused_at_their_place(client: TestClient, desk: Desk, ident: str) -> None:
    cells = [{"function": "f1", "column": "load", "text": "24 V 2 A"}, {"row": 3, "column": "name", "text": "Bell"}]
    first = post(client, ident, "brief/cells", base=1, key="k1", cells=cells)
    again = post(client, ident, "brief/cells", base=1, key="k1", cells=cells)
    assert (first.json()["revision"], again.json()["revision"], desk.head(ident)) == (2, 2, 2)
    assert [f.name for f in desk.open(ident).design.functions][-1] == "Bell"
    same = post(client, ident, "brief/cells", base=2, cells=cells[:1])
    assert (same.status_code, desk.head(ident)) == (200, 2)
    bad = {"function": "f2", "column": "load", "text": "x"}
    wrong = post(client, ident, "brief/cells", base=2, cells=[*cells[:1], bad])
    assert (wrong.status_code, wrong.json()["errors"][0]["path"]) == (409, "cells[1].text")
    wish = post(client, ident, "brief/wish", base=2, text="Bell amber lamp", group="Lamps").json()
    assert [f["want"] for f in wish["design"]["functions"] if f["name"] == "Bell"] == ["", "amber lamp"]
    twice = post(client, ident, "brief/wish", base=3, text="Bell red lamp", group="")
    assert (twice.status_code, desk.head(ident)) == (409, 3)


def test_the_best_part_is_one_with_nothing_against_it_or_says_why(client: TestClient, ident: str) -> None:
    for base, line in enumerate(("Wiper toggle switch", "Something", "Purple route selector"), 1):
        assert post(client, ident, "brief/wish", base=base, text=line, group="").status_code == 200
    found = post(client, ident, "parts/best", functions=["f4", "f5", "f6"]).json()
    assert found[0]["part"].startswith("toggle-")
    assert (found[1]["part"], found[1]["why"]) == (None, "Say what kind of control or light is wanted")
    assert found[2]["part"] is None or found[2]["why"] == ""


def test_a_refusal_says_what_was_asked_for(client: TestClient, ident: str) -> None:
    locked = {"do": "lock", "functions": ["f1"]}
    post(client, ident, "commands", base=1, commands=[locked])
    refused = post(client, ident, "commands", base=2, commands=[{"do": "move", "functions": ["f1"], "dx": 1}]).json()
    assert (refused["what"], refused["status"]) == ("Move F1", 409)


def test_a_removed_design_leaves_the_list_and_comes_back_whole(client: TestClient, desk: Desk, ident: str) -> None:
    other = desk.copy(ident).design_id
    assert [d["id"] for d in client.delete(f"/api/designs/{ident}").json()] == [other]
    assert [d["id"] for d in client.get("/api/designs/removed").json()] == [ident]
    assert client.get(f"/api/designs/{ident}").json()["revision"] == 1
    assert {d["id"] for d in client.post(f"/api/designs/{ident}/restore").json()} == {ident, other}
    assert client.get("/api/designs/removed").json() == []
    assert client.delete("/api/designs/nothing").status_code == 404


def test_solving_asked_for_twice_with_one_key_is_one_job(client: TestClient, ident: str) -> None:
    body = {"base": 1, "key": "solve-1"}
    first, again = (client.post(f"/api/designs/{ident}/wire/solve", json=body).json()["id"] for _ in range(2))
    assert first == again
    assert client.post(f"/api/designs/{ident}/wire/solve", json={"base": 1, "key": "solve-2"}).json()["id"] != first
