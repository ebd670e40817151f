"""What one design sets is there for the others: machines, stock, supplies, own parts; kept with the change itself."""

from __future__ import annotations

from typing import Any

import pytest
from fastapi.testclient import TestClient

from building import adding, plate
from wingboard.core.changes.commands.functions import RemoveFunction
from wingboard.core.changes.commands.parts import ChoosePart, CopyPart, MeasurePart
from wingboard.core.changes.commands.workshop import EditMachine, RemoveFromWorkshop
from wingboard.core.record.errors import DesignError, UnknownThing
from wingboard.core.record.reading import Reading
from wingboard.core.record.workshop import Machine, Stock, Supply
from wingboard.services.desk import Desk

LASER = Machine(id="laser", name="Laser", kind="laser", bed_width=300, bed_height=200)
SHEET = Stock(id="white", material="acrylic", thickness=3, width=600, height=400, count=2)
FIVE = Supply(id="five", name="5 V", volts=5, amps=4)


def test_what_is_set_is_on_the_shelf_at_once_and_the_newest_counts(desk: Desk) -> None:
    ident = desk.add(plate(), "Start").design_id
    desk.command(ident, 1, (adding(LASER), adding(SHEET), adding(FIVE)))
    wider = LASER.model_copy(update={"bed_width": 400.0})
    desk.command(ident, 2, (EditMachine(machine="laser", bed_width=400),))
    shelf = Desk(desk.database).shelf()
    assert shelf.machines == (wider,)
    assert (shelf.stock, shelf.supplies, shelf.parts) == ((SHEET,), (FIVE,), ())


def test_what_a_supply_is_made_from_and_what_was_read_stay_in_their_design(desk: Desk) -> None:
    ident = desk.add(plate(), "Start").design_id
    made = Supply(id="low", name="5 V from it", volts=5, amps=1, fuse=1, made_from="twelve", linear=True, measured=0.4)
    desk.command(ident, 1, (adding(Supply(id="twelve", name="12 V", volts=12, amps=3)), adding(made)))
    kept = {supply.id: supply for supply in desk.shelf().supplies}
    assert kept["low"] == made.model_copy(update={"made_from": None, "measured": 0.0})
    other = desk.add(plate(), "Other").design_id
    desk.command(other, 1, (adding(kept["low"]),))
    assert desk.open(ident).design.workshop.supplies[1] == made
    desk.command(ident, 2, (RemoveFromWorkshop(kind="supplies", id="twelve"),))
    assert desk.open(ident).design.workshop.supplies == (made.model_copy(update={"made_from": None}),)


def test_an_own_part_is_chosen_in_another_design(desk: Desk) -> None:
    first = desk.add(plate(), "Start").design_id
    read = Reading(of="bush", values=(9.5,))
    desk.command(
        first, 1, (CopyPart(part="rotary-12", id="mine", name="Mine"), MeasurePart(part="mine", readings=(read,)))
    )
    second = desk.add(plate(("rotary-12", 100, 60)), "Other").design_id
    kept = desk.command(second, 1, (ChoosePart(function="f1", part="mine"),))
    part = next(p for p in kept.state.design.parts if p.id == "mine")
    assert part.readings == (read,)
    assert "mine" in desk.parts()


def test_a_change_that_is_refused_leaves_the_shelf_as_it_was(desk: Desk) -> None:
    ident = desk.add(plate(), "Start").design_id
    with pytest.raises(DesignError):
        desk.command(ident, 1, (adding(LASER), RemoveFunction(function="nobody")))
    assert desk.shelf().machines == ()


def test_taking_from_a_workshop_leaves_the_shelf_and_the_shelf_can_be_cleared(desk: Desk) -> None:
    ident = desk.add(plate(), "Start").design_id
    desk.command(ident, 1, (adding(LASER),))
    desk.command(ident, 2, (RemoveFromWorkshop(kind="machines", id="laser"),))
    assert desk.shelf().machines == (LASER,)
    desk.take_off_shelf("machine", "laser")
    with pytest.raises(UnknownThing):
        desk.take_off_shelf("machine", "laser")
    assert desk.shelf().machines == ()


def test_a_new_design_begins_with_the_workshop_there_is(client: TestClient, desk: Desk) -> None:
    ident = desk.add(plate(), "Start").design_id
    desk.command(ident, 1, (adding(SHEET), adding(LASER)))
    mill = {"name": "Mill", "kind": "mill", "bed_width": 200, "bed_height": 150}
    body = {"name": "New", "kind": "boat", "width": 300, "height": 150, "depth": 80, "machines": [mill]}
    made = client.post("/api/designs", json=body).json()["design"]
    assert [m["id"] for m in made["workshop"]["machines"]] == ["laser", "mill-1"]
    assert (made["brief"]["process"], made["brief"]["gap"]) == ("mill", 0.2)
    outline = made["modules"][0]["outline"]
    assert (outline["width"], outline["height"]) == pytest.approx((299.6, 149.6))
    assert client.get("/api/shelf").json()["stock"][0]["id"] == "white"


BAD: list[tuple[str, str, Any, int]] = [
    ("an empty list", "read-list", {"text": ""}, 409),
    ("a list too long", "read-list", {"text": "x\n" * 3000}, 409),
    ("a list that is no text", "read-list", {"text": 5}, 422),
]


@pytest.mark.parametrize(("path", "body", "status"), [b[1:] for b in BAD], ids=[b[0] for b in BAD])
def test_lists_that_cannot_be_read_are_problems(
    client: TestClient, desk: Desk, path: str, body: Any, status: int
) -> None:
    ident = desk.add(plate(), "Start").design_id
    answer = client.post(f"/api/designs/{ident}/brief/{path}", json=body)
    assert answer.status_code == status
    assert answer.headers["content-type"] == "application/problem+json"


@pytest.mark.parametrize("content", [b"", b"<svg", b"0\nSECTION\n", b"\x00\xff" * 50, b"<?xml version='1.0'?><a/>"])
def test_drawings_that_cannot_be_read_are_problems_and_nothing_changes(
    client: TestClient, desk: Desk, content: bytes
) -> None:
    ident = desk.add(plate(), "Start").design_id
    answer = client.post(f"/api/designs/{ident}/brief/read-outline", content=content)
    assert answer.status_code == 422
    assert answer.json()["detail"]
    assert desk.open(ident).row.number == 1


def test_the_brief_tells_what_follows_and_parts_what_they_cost(client: TestClient, desk: Desk) -> None:
    ident = desk.add(plate(("rotary-12", 100, 60)), "Start").design_id
    desk.command(ident, 1, (adding(LASER), CopyPart(part="rotary-12", id="mine", name="Mine")))
    brief = client.get(f"/api/designs/{ident}/brief").json()
    (bed,) = brief["beds"]
    assert (bed["module"], bed["machine"], bed["turn"], bed["pieces"], bed["over"]) == ("plate", "laser", 0, 1, 0)
    assert (bed["usable_width"], bed["usable_height"]) == (290, 190)  # 300 × 200 less 5 mm all round
    assert brief["chain"]["clear"] == pytest.approx(1.0)
    assert brief["estimate"]["controls"] == 1
    assert len(brief["side"]["bodies"]) == 1
    ways = client.get(f"/api/designs/{ident}/parts/candidates/f1").json()["candidates"]
    assert {w["scheme"] for w in ways} == {"direct", "ladder"}
    body = {"part": "mine", "readings": [{"of": "bush", "values": [9.6], "fit": "snug"}]}
    tried = client.post(f"/api/designs/{ident}/parts/try-readings", json=body).json()
    assert tried["part"]["hole"]["diameter"] == pytest.approx(9.7)
    assert desk.open(ident).row.number == 2
    assert client.get(f"/api/designs/{ident}/parts/candidates/nobody").status_code == 404
    assert client.get(f"/api/designs/{ident}/brief/list.csv").text.splitlines()[1].startswith("F1,")
