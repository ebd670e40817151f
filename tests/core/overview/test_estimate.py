"""Money and hours, corrected by the log; and how far each function got."""

from __future__ import annotations

import pytest

from building import plate
from wingboard.core.changes.apply import apply
from wingboard.core.changes.command import Command
from wingboard.core.changes.commands.brief import SetBrief
from wingboard.core.changes.commands.functions import EditFunction
from wingboard.core.changes.commands.workshop import AddStock, LogHours, SetOnHand
from wingboard.core.overview.estimate import STAGES, estimate
from wingboard.core.overview.progress import threads
from wingboard.core.parts.catalogue import catalogue
from wingboard.core.record.design import Design
from wingboard.core.resolved.design import Resolved

BASE = plate(("button-22", 60, 60), ("button-22", 120, 60))


def after(*commands: Command) -> Design:
    """The base after these."""
    return apply(BASE, commands, catalogue())


def test_parts_to_buy_are_added_up_new_and_used() -> None:
    found = estimate(Resolved(after(SetOnHand(part="button-22", count=1))))
    assert (found.controls, found.parts) == (2, catalogue()["button-22"].price)
    assert found.parts_used == (150, 400)


def test_sheets_that_are_missing_cost_their_price() -> None:
    sheet = {"id": "s", "material": "acrylic", "thickness": 3, "width": 210, "height": 130, "price": 1500, "count": 1}
    design = after(AddStock.model_validate(sheet))
    # Diffuser and back are 3 mm and want one sheet each; the face is not in stock.
    assert estimate(Resolved(design)).sheets == 1500
    two = after(AddStock.model_validate({**sheet, "count": 2}))
    assert estimate(Resolved(two)).sheets == 0
    none = after(AddStock.model_validate({**sheet, "count": 0}))
    assert estimate(Resolved(none)).sheets == 2 * 1500


@pytest.mark.parametrize(
    ("process", "each"), [("laser", 0.10), ("mill", 0.20), ("printer", 0.30), ("hand", 0.50), (None, 0.50)]
)
def test_cutting_takes_longer_by_hand(process: str | None, each: float) -> None:
    found = estimate(Resolved(after(SetBrief.model_validate({"process": process}))))
    cut = next(s for s in found.stages if s.stage == "cut")
    assert (cut.each, cut.logged) == (each, False)
    assert found.hours == pytest.approx(sum(s.total for s in found.stages))
    assert [s.stage for s in found.stages] == list(STAGES)


def test_logged_hours_correct_the_rate() -> None:
    log = [LogHours(stage="wire", hours=3, controls=10), LogHours(stage="wire", hours=2, controls=10)]
    wire = next(s for s in estimate(Resolved(after(*log))).stages if s.stage == "wire")
    assert (wire.each, wire.spent, wire.total, wire.logged) == (0.25, 5.0, 0.5, True)


def test_against_a_bought_one() -> None:
    found = estimate(Resolved(after(SetBrief(bought_price=50_000))))
    assert found.saved_an_hour == pytest.approx((50_000 - found.money) / found.hours)
    assert estimate(Resolved(BASE)).saved_an_hour is None
    assert estimate(Resolved(Design(name="Empty"))).hours == 0


@pytest.mark.parametrize(
    ("state", "wire", "proof"), [("wanted", False, False), ("wired", True, False), ("proven", True, True)]
)
def test_wire_and_proof_are_as_the_builder_marks_them(state: str, wire: bool, proof: bool) -> None:
    design = after(EditFunction.model_validate({"function": "f1", "state": state}))
    thread = threads(Resolved(design))["f1"]
    assert (thread.part, thread.place, thread.legend, thread.pin) == (True, True, True, False)
    assert (thread.wire, thread.proof) == (wire, proof)
