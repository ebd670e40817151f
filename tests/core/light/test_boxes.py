"""Light over a caption's lens, against closed forms and the trade's rule of half the width."""

from __future__ import annotations

import math

import numpy as np
import pytest

from building import found, plate
from wingboard.core.light.boxes import LAMP, boxes_of, lamps_in, lit_lens
from wingboard.core.light.emission import Lamp
from wingboard.core.light.through import MILKY, MILKY_BACK
from wingboard.core.resolved.design import Resolved

PASSES = math.exp(-MILKY * 2)


def test_a_black_box_is_the_inverse_square_and_the_fourth_power_of_the_cosine() -> None:
    # A flat emitter of 1 cd 100 mm behind a lens of 200: E = I cos⁴θ / h², and the lens gives off τ E / π.
    field = lit_lens(200, 20, 100, (Lamp(0, 0, 100, 1.0),), white=0.0)
    row = field[field.shape[0] // 2]
    for x in (0.0, 50.0, 90.0):
        n = int((x + 100) / 0.5)
        angle = math.atan((x + 0.25) / 100)
        assert row[n] == pytest.approx(PASSES * math.cos(angle) ** 4 / 0.1**2 / math.pi, rel=0.02)


@pytest.mark.parametrize("side", [False, True])
@pytest.mark.parametrize("white", [0.0, 0.8, 0.94])
def test_the_lens_never_takes_more_light_than_the_lamps_give(side: bool, white: float) -> None:
    lamps = lamps_in(24, 8, 2, side, 1.0)
    field = lit_lens(24, 12, 8, lamps, white)
    met = float(field.mean()) * math.pi / PASSES * 24 * 12e-6
    assert 0 < met * (1 - MILKY_BACK) <= sum(lamp.flux for lamp in lamps)
    if not side:
        assert field == pytest.approx(np.flip(field, axis=1))


def test_half_the_width_or_two_lamps_make_it_even() -> None:
    def even(depth: float, many: int, side: bool = False) -> float:
        field = lit_lens(24, 12, depth, lamps_in(24, depth, many, side, LAMP.intensity), 0.8)
        return float(field.min() / field.mean())

    assert even(6, 1) < 0.1 < 0.3 < even(12, 1)  # common practice: as deep as half its width at least
    assert even(12, 1) < even(14, 2)  # … or two of them
    assert even(14, 2) > 0.6
    assert even(8, 2, side=True) > 0.6


def test_captions_of_a_design() -> None:
    design = plate(
        ("caption-two-lamp", 40, 60), ("caption-tile", 100, 60), ("caption-single", 150, 60), ("pilot-16", 20, 20)
    )
    boxes = boxes_of(Resolved(design))
    assert [(b.function, b.side, b.lamps) for b in boxes] == [("f1", False, 2), ("f2", True, 2), ("f3", False, 1)]
    said = {f.subjects for f in found(design, "light.box-patches")}
    assert said == {(b.function,) for b in boxes if b.evenness < 0.4}
