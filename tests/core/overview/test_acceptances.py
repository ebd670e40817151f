"""What is accepted is accepted for exactly that; what is to fix may be overridden unless it can hurt someone."""

from __future__ import annotations

import pytest

from building import found, plate
from wingboard.core.changes.commands.brief import SetBrief
from wingboard.core.changes.commands.functions import AddFunction, EditFunction
from wingboard.core.changes.commands.judgement import AcceptFinding, RetractAcceptance
from wingboard.core.changes.commands.layers import EditLayer
from wingboard.core.changes.commands.legends import EditLegend, RemoveLegend
from wingboard.core.changes.commands.modules import AddScrew
from wingboard.core.changes.commands.parts import ChoosePart
from wingboard.core.changes.commands.places import MoveItems, PlacePart
from wingboard.core.cut.jobsheet import job_sheet
from wingboard.core.cut.scenes import every_scene
from wingboard.core.overview.waiting import readiness
from wingboard.core.record.errors import NotPossible
from wingboard.services.desk import Desk, State


class Session:
    """A design on a desk, changed step by step."""

    def __init__(self, desk: Desk, state: State) -> None:
        self.desk, self.state = desk, state

    def do(self, *commands: object) -> None:
        """Carry out and keep."""
        kept = self.desk.command(self.state.design_id, self.state.row.number, commands)  # type: ignore[arg-type]
        self.state = kept.state

    def left(self, code: str) -> list[tuple[str, ...]]:
        """What a check finds that is not accepted, by its subjects."""
        return [f.subjects for f in self.state.findings if f.code == code and f.unsettled]

    def accept(self, code: str, reason: str) -> None:
        """Accept the first finding of a check that is left."""
        finding = next(f for f in self.state.findings if f.code == code and f.unsettled)
        self.do(AcceptFinding(finding=finding.id, reason=reason))


def on(desk: Desk) -> Session:
    """A plate with two buttons, both without a legend."""
    bare = tuple(RemoveLegend(function=f) for f in ("f1", "f2"))
    return Session(desk, desk.add(plate(("button-22", 40, 60), ("button-22", 140, 60), commands=bare), "Start"))


def test_accepting_one_without_a_legend_never_accepts_another(desk: Desk) -> None:
    session = on(desk)
    assert session.left("face.no-legend") == [("f1", "f2")]
    session.accept("face.no-legend", "told by their colour")
    assert session.left("face.no-legend") == []
    session.do(AddFunction(id="z", name="Z"), ChoosePart(function="z", part="led-5-bezel"))
    session.do(PlacePart(function="z", module="plate", x=90, y=30))
    session.do(RemoveLegend(function="z"))
    assert session.left("face.no-legend") == [("z",)]
    session.accept("face.no-legend", "the link lamp")
    assert session.left("face.no-legend") == []
    reasons = {f.subjects: f.accepted for f in session.state.findings if f.code == "face.no-legend"}
    assert reasons == {("f1", "f2"): "told by their colour", ("z",): "the link lamp"}
    session.do(EditLegend(function="f1", text="ONE"))
    assert session.left("face.no-legend") == []
    ours = next(f for f in session.state.findings if f.code == "face.no-legend" and "f2" in f.subjects)
    session.do(RetractAcceptance(finding=ours.id))
    assert session.left("face.no-legend") == [("f2",)]


def test_small_words_accepted_on_one_control_are_not_accepted_on_the_next(desk: Desk) -> None:
    session = Session(desk, desk.add(plate(("button-22", 40, 60)), "Far away"))
    session.do(SetBrief(eye_distance=1200, eye_height=0))
    assert session.left("face.legend-small") == [("f1",)]
    session.accept("face.legend-small", "nobody reads it from there")
    session.do(AddFunction(id="z", name="Z"), ChoosePart(function="z", part="button-22"))
    session.do(PlacePart(function="z", module="plate", x=140, y=60))
    assert session.left("face.legend-small") == [("z",)]


def test_placing_an_unrelated_part_loses_no_acceptance(desk: Desk) -> None:
    session = on(desk)
    session.accept("face.no-legend", "told by their colour")
    before = {f.id for f in session.state.findings if f.accepted}
    session.do(AddFunction(id="z", name="Z"), ChoosePart(function="z", part="led-5-bezel"))
    session.do(PlacePart(function="z", module="plate", x=90, y=30))
    session.do(MoveItems(functions=("f1",), dx=1))
    assert before <= {f.id for f in session.state.findings if f.accepted}


def test_what_is_to_fix_is_overridden_with_a_reason_and_stands_first_on_the_job_sheet(desk: Desk) -> None:
    session = on(desk)
    session.do(AddScrew(module="plate", x=100, y=1))
    session.accept("face.off-module", "an open slot on purpose")
    (over,) = [f for f in session.state.findings if f.code == "face.off-module"]
    assert (over.severity, over.accepted, over.overridden) == ("must", "an open slot on purpose", True)
    ready = readiness(session.state.resolved, session.state.findings)
    assert (ready.to_fix, ready.overridden) == (0, 1)
    r = session.state.resolved
    sheet = job_sheet(r, session.state.findings, every_scene(r)).splitlines()
    assert sheet[2] == "OVERRIDDEN BY THE BUILDER, WITH REASON"
    assert sheet[3].endswith("an open slot on purpose")
    assert not [line for line in sheet if ".:" in line]  # a full stop before a figure or a reason


@pytest.mark.parametrize("code", ["cut.unsafe-material", "brief.control-idle"])
def test_what_can_hurt_and_what_is_only_a_note_is_not_accepted(desk: Desk, code: str) -> None:
    session = on(desk)
    session.do(EditLayer(layer="face", material="pvc"), EditFunction(function="f1", want="push button"))
    assert found(session.state.design, code)
    with pytest.raises(NotPossible, match="cannot be accepted"):
        session.accept(code, "I know better")
