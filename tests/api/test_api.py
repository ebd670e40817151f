"""The API: bad requests answered with problem details at their place, never a 500; strangers refused."""

import json
from typing import Any

import pytest
from fastapi.testclient import TestClient

from building import plate
from wingboard.services.desk import Desk

PART = ("toggle-large-on-off", 60.0, 60.0)


@pytest.fixture
def ident(desk: Desk) -> str:
    """A small design on the desk."""
    return desk.add(plate(PART, ("button-16-lit", 120, 60)), "Start", ident="small").design_id


def batch(*commands: dict[str, Any], base: int = 1) -> dict[str, Any]:
    """A request body."""
    return {"base": base, "commands": list(commands)}


MOVE = {"do": "move", "functions": ["f1"], "dx": 1}


def test_a_change_is_answered_with_findings_and_only_the_lettering_that_changed(client: TestClient, ident: str) -> None:
    whole = client.get(f"/api/designs/{ident}").json()
    assert set(whole["lettering"]) == {"f1", "f2"}
    named = {"do": "edit_legend", "function": "f2", "text": "GONG"}
    changed = client.post(f"/api/designs/{ident}/commands", json=batch(named)).json()
    assert (changed["revision"], changed["partial"], list(changed["lettering"])) == (2, True, ["f2"])
    undone = client.post(f"/api/designs/{ident}/undo", json={"base": 2}).json()
    assert undone["design"] == whole["design"]
    assert (undone["can_undo"], undone["can_redo"]) == (False, True)
    assert client.post(f"/api/designs/{ident}/redo", json={"base": 3}).json()["design"] == changed["design"]


NAN = '{"base": 1, "commands": [{"do": "move", "functions": ["f1"], "dx": NaN}]}'
CHOOSE = {"do": "choose_part", "function": "f1"}
ACCEPT = {"do": "accept", "finding": "x", "reason": "y"}
BAD: list[tuple[str, str, Any, int, str]] = [
    ("stale", "commands", batch(MOVE, base=7), 409, "stale-revision"),
    ("no such function", "commands", batch({**MOVE, "functions": ["f9"]}), 404, "unknown-thing"),
    ("NaN", "commands", NAN, 422, "invalid-request"),
    ("infinite", "commands", batch({**MOVE, "dx": 1e999}), 422, "invalid-request"),
    ("huge", "commands", batch({**MOVE, "dx": 1e18}), 422, "invalid-request"),
    ("unknown command", "commands", batch({"do": "explode"}), 422, "invalid-request"),
    ("unknown part", "commands", batch({**CHOOSE, "part": "no-such"}), 404, "unknown-thing"),
    ("nothing to do", "commands", {"base": 1, "commands": []}, 422, "invalid-request"),
    ("not json", "commands", "{", 422, "invalid-request"),
    ("accepting what is not there", "commands", batch(ACCEPT), 409, "not-possible"),
    ("nothing to undo", "undo", {"base": 1}, 409, "not-possible"),
    ("a line of nonsense", "face/line", {"base": 1, "text": "up a bit", "selection": ["f1"]}, 422, "not-a-length"),
    ("a probe of nothing", "face/probe", {"base": 1, "lead": "f9"}, 404, "unknown-thing"),
]  # fmt: skip


@pytest.mark.parametrize(("path", "body", "status", "kind"), [b[1:] for b in BAD], ids=[b[0] for b in BAD])
def test_bad_input_is_refused_and_nothing_changes(
    client: TestClient, ident: str, path: str, body: Any, status: int, kind: str
) -> None:
    text = body if isinstance(body, str) else json.dumps(body).replace("Infinity", "1e999")
    answer = client.post(f"/api/designs/{ident}/{path}", content=text, headers={"content-type": "application/json"})
    assert (answer.status_code, answer.json()["type"]) == (status, f"urn:wingboard:{kind}")
    assert answer.headers["content-type"] == "application/problem+json"
    assert answer.json()["detail"]
    assert client.get(f"/api/designs/{ident}").json()["revision"] == 1


@pytest.mark.parametrize("text", ["", "{", "[]", '{"format": "other"}', '{"name": "x", "functions": [{"id": "f1"}]}'])
def test_a_bad_file_is_not_imported(client: TestClient, text: str) -> None:
    answer = client.post("/api/designs/import", content=text)
    assert answer.status_code == 422
    assert answer.json()["title"] == "This file cannot be read as a design"
    assert client.get("/api/designs").json() == []


def test_export_import_copy_and_new(client: TestClient, ident: str) -> None:
    exported = client.get(f"/api/designs/{ident}/export")
    again = client.post("/api/designs/import", content=exported.content).json()
    assert again["design"] == client.get(f"/api/designs/{ident}").json()["design"]
    assert again["id"] != ident
    assert client.post(f"/api/designs/{ident}/copy").json()["design"]["name"] == "Test plate, copy"
    made = client.post("/api/designs", json={"name": "⚡", "width": 120, "height": 80}).json()
    assert (made["id"], made["readiness"]["to_fix"]) == ("panel", 0)
    assert client.post("/api/designs", json={"name": "x", "width": -3}).json()["errors"][0]["path"] == "width"


def test_only_our_own_page_on_our_own_address_may_write(client: TestClient, ident: str) -> None:
    def write(**headers: str) -> int:
        renamed = {k.replace("_", "-"): v for k, v in headers.items()}
        return client.post(f"/api/designs/{ident}/commands", json=batch(MOVE), headers=renamed).status_code

    assert write(host="evil.example") == 421
    assert write(origin="http://evil.example") == 403
    assert write(origin="null") == 403
    assert write(sec_fetch_site="cross-site") == 403
    assert client.get("/api/designs", headers={"host": "evil.example:8765"}).status_code == 421
    assert write(origin="http://127.0.0.1:8765", sec_fetch_site="same-origin") == 200
    headers = client.get("/api/designs").headers
    assert "default-src 'none'" in headers["content-security-policy"]


def test_bodies_have_a_limit_also_when_they_do_not_say_their_length(client: TestClient) -> None:
    def stream() -> Any:
        for _ in range(10):
            yield b" " * 1024 * 1024

    assert client.post("/api/designs/import", content=b" " * 9 * 1024 * 1024).status_code == 413
    assert client.post("/api/designs/import", content=stream()).status_code == 413


def test_a_probe_tells_distances_without_keeping_anything(client: TestClient, ident: str) -> None:
    body = {"base": 1, "lead": "f1", "commands": [{**MOVE, "dx": 40}]}
    around = client.post(f"/api/designs/{ident}/face/probe", json=body).json()
    near = around["neighbours"][0]
    assert (near["function"], near["needed"], near["short"]) == ("f2", 19.0, True)
    assert near["gap"] == pytest.approx(20 - 3.5 - 6)
    assert around["edge"]["gap"] == pytest.approx(120 - 60 - 11)
    assert client.get(f"/api/designs/{ident}").json()["revision"] == 1


def finished(client: TestClient, job: dict[str, Any]) -> dict[str, Any]:
    """A job when it has ended."""
    while job["state"] in ("waiting", "running"):
        job = client.get(f"/api/jobs/{job['id']}").json()
    return job


def test_solving_over_the_api_says_what_would_fit(client: TestClient, ident: str) -> None:
    body = {"base": 1}
    solved = finished(client, client.post(f"/api/designs/{ident}/wire/solve", json=body).json())["solved"]
    assert [u["name"] for u in solved["unfit"]] == ["F1", "F2"]
    client.post(f"/api/designs/{ident}/commands", json=batch(*solved["remedies"][0]["commands"]))
    again = finished(client, client.post(f"/api/designs/{ident}/wire/solve", json={"base": 2}).json())
    assert (again["state"], again["solved"]["unfit"], again["solved"]["revision"]) == ("done", [], 3)
    rows = client.get(f"/api/designs/{ident}/wire").json()["rows"]
    assert all(row["pin"] for row in rows)


def test_ways_networks_and_boards_of_ones_own_over_the_api(client: TestClient, ident: str) -> None:
    base = f"/api/designs/{ident}"
    ways = client.get(f"{base}/wire/schemes", params={"function": ["f1", "f2", "nobody"]}).json()
    assert ways["functions"] == ["f1", "f2"]
    by_scheme = {way["scheme"]: way for way in ways["options"]}
    assert by_scheme["direct"]["now"] and by_scheme["direct"]["commands"] == []
    assert "selector" in by_scheme["ladder"]["not_for"]
    client.post(f"{base}/commands", json=batch(*by_scheme["shift"]["commands"]))
    drawn = client.get(f"{base}/wire/networks").json()
    (chain,) = [network for network in drawn["networks"] if network["kind"] == "shift-in"]
    assert [line["at"] for line in chain["lines"]] == ["", "", ""]  # there is no board yet
    assert [pin["number"] for pin in chain["chips"][0]["pins"]] == list(range(1, 17))
    assert {way["name"] for way in drawn["topologies"]} >= {"one controller for all", "one for each module"}
    read = client.post(f"{base}/wire/board-text", json={"text": "A1-A6 io up\nB fly"}).json()
    assert [len(read["pins"]), read["wrong"][0]["line"]] == [6, 2]
    board = {"id": "mine", "name": "Mine", "width": 70, "height": 30, "pins": read["pins"]}
    client.post(f"{base}/commands", json={**batch({"do": "set_board", "board": board}), "base": 2})
    spots = client.get(f"{base}/stack/plate/free", params={"board": "mine"}).json()
    assert (spots["width"], spots["height"], spots["holes"]) == (70, 30, [])
    assert client.get(f"{base}/stack/plate/free", params={"board": "no-such"}).status_code == 404
    strange = client.post(f"{base}/commands", json={**batch({"do": "add_controller", "board": "no-such"}), "base": 3})
    assert (strange.status_code, strange.json()["errors"][0]["path"]) == (404, "commands[0].board")
    alike = {"do": "set_board", "board": {**board, "pins": [*read["pins"], read["pins"][0]]}}
    twice = client.post(f"{base}/commands", json={**batch(alike), "base": 3})
    assert twice.status_code == 409 and "Pin A1 is there twice" in twice.text


def test_missing_things_are_404_with_a_problem(client: TestClient, ident: str) -> None:
    for path in (
        "/api/nothing",
        "/api/designs/none",
        f"/api/designs/{ident}/cut/plate/none.svg",
        f"/api/designs/{ident}/cut/x/face.svg",
    ):
        answer = client.get(path)
        assert answer.status_code == 404
        assert answer.headers["content-type"] == "application/problem+json"
