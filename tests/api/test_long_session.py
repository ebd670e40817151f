"""A long session, made in every way that the application has, is made again from its first revision and its log."""

from __future__ import annotations

from typing import Any

from fastapi.testclient import TestClient

from building import every_command, plate, replay
from wingboard.core.changes.commands.judgement import AcceptFinding, RetractAcceptance
from wingboard.core.parts.catalogue import catalogue
from wingboard.services.desk import Desk
from wingboard.store.designs import SNAPSHOT_EVERY


class Session:
    """A builder at one design, over HTTP."""

    def __init__(self, client: TestClient, ident: str) -> None:
        self.client, self.ident, self.head = client, ident, 1

    def ask(self, path: str, **body: Any) -> Any:
        """Send a change made against the newest revision; what the answer says."""
        answer = self.client.post(f"/api/designs/{self.ident}/{path}", json={"base": self.head, **body})
        assert answer.status_code in (200, 202), (path, body, answer.text)
        said = answer.json()
        self.head = said.get("revision", self.head)
        return said

    def settle(self) -> tuple[int, int]:
        """Go through the findings once: apply the fix of each, accept what is to judge; how many of both."""
        fixed = accepted = 0
        for finding in self.client.get(f"/api/designs/{self.ident}").json()["findings"]:
            found = self.client.get(f"/api/designs/{self.ident}/fix", params={"finding": finding["id"]}).json()
            if found["fix"]:
                self.ask("commands", commands=found["fix"]["commands"])
                fixed += 1
            elif finding["severity"] == "judge" and self.stands(finding["id"]):
                self.ask("commands", commands=[{"do": "accept", "finding": finding["id"], "reason": "Seen"}])
                accepted += 1
        return fixed, accepted

    def stands(self, finding: str) -> bool:
        """Whether the newest revision still has that finding."""
        return any(f["id"] == finding for f in self.client.get(f"/api/designs/{self.ident}").json()["findings"])

    def pins(self) -> None:
        """Have every line given a pin."""
        job = self.ask("wire/solve")
        while job["state"] in ("waiting", "running"):
            job = self.client.get(f"/api/jobs/{job['id']}").json()
        assert job["state"] == "done", job
        self.head = job["solved"]["revision"]


def test_a_long_session_is_made_again_from_its_log(client: TestClient, desk: Desk) -> None:
    elsewhere = desk.add(plate(("rotary-12", 60, 60)), "Start").design_id
    Session(client, elsewhere).ask("commands", commands=[{"do": "copy_part", "part": "rotary-12", "name": "Lent"}])
    lent = next(part for part in desk.open(elsewhere).design.parts if part.name == "Lent")
    start = plate(("toggle-large-on-off", 40, 40), ("button-22", 100, 60))
    session = Session(client, desk.add(start, "Start").design_id)
    for n, command in enumerate(every_command()):
        if isinstance(command, AcceptFinding | RetractAcceptance):
            continue  # there is no such finding here; those that there are come below
        session.ask("commands", commands=[command.model_dump(mode="json", exclude_unset=True) | {"do": command.do}])
        for way in ("undo", "redo") if n % 3 == 0 else ():
            session.ask(way)
    session.ask("commands", commands=[{"do": "add_function", "name": "With a lent part"}])
    borrower = desk.open(session.ident).design.functions[-1].id
    session.ask("commands", commands=[{"do": "choose_part", "function": borrower, "part": lent.id}])
    assert lent.id not in catalogue()
    module = desk.open(session.ident).design.modules[0].id
    session.ask("commands", commands=[{"do": "place", "function": "f1", "module": module, "x": 3, "y": 50}])
    session.ask("commands", commands=[{"do": "add_controller", "board": "atmega328p"}])
    session.pins()
    assert min(session.settle()) >= 2
    while session.head < 4 * SNAPSHOT_EVERY + 10:
        session.ask("face/line", text=f"x+{session.head % 7 + 1} r15", selection=["f1"])
        session.ask("undo")
        if session.head % 2:
            session.ask("redo")
    again = dict(replay(desk, session.ident))
    assert list(again) == list(range(2, session.head + 1))
    fresh = Desk(desk.database)
    for number, design in again.items():
        assert design.model_dump_json() == fresh.open(session.ident, number).design.model_dump_json(), number
