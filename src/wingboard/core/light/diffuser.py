"""What comes out in front of a diffuser: it lets a share through, spreads it, and gives it off by Lambert's law.

The spread is a bell curve whose width grows with the sheet's thickness (common practice: half the thickness); what it
would spread beyond the edge is lost, so that light never grows. What the walls of the box throw back is one mean part:
E = ρ Φ / (A (1 − ρ̄)), the estimate of an integrating sphere, Φ what the lamps send that does not reach the diffuser, ρ
of the walls, ρ̄ of all that is inside.
"""

from __future__ import annotations

import math

import numpy as np

from wingboard.core.light.emission import Field

SPREAD = 0.5
"""Standard deviation of the spread, in thicknesses (common practice)."""


def spread(field: Field, step: float, thickness: float) -> Field:
    """A field (rows × columns, one value every ``step`` mm) as it leaves a sheet of a thickness (mm)."""
    sigma = SPREAD * thickness / step
    if sigma < 0.1:
        return field
    reach = max(1, math.ceil(4 * sigma))
    bell = np.exp(-0.5 * (np.arange(-reach, reach + 1) / sigma) ** 2)
    bell /= bell.sum()
    return _along(_along(field, bell, 0), bell, 1)


def _along(field: Field, bell: Field, axis: int) -> Field:
    """A field spread along one axis; beyond its edge there is nothing."""
    reach = len(bell) // 2
    wide = np.pad(field, [(reach, reach) if a == axis else (0, 0) for a in (0, 1)])
    made = np.zeros_like(field)
    for n, share in enumerate(bell):
        made += share * (wide[n : n + field.shape[0]] if axis == 0 else wide[:, n : n + field.shape[1]])
    return made


def luminance(illuminance: Field, transmission: float) -> Field:
    """Luminance (cd/m²) of a diffuser that passes a share of the light on its back: L = τ E / π."""
    made: Field = transmission * illuminance / math.pi
    return made


def reflected(flux: float, area: float, white: float, mean: float) -> float:
    """The mean illuminance (lx) that white walls add, everywhere alike: E = ρ Φ / (A (1 − ρ̄)).

    :param flux: of all lamps that does not reach the diffuser itself (lm).
    :param area: of the box inside (mm²).
    :param white: what the walls throw back, ρ; :param mean: of all that is inside, the diffuser too, ρ̄.
    :raises ValueError: all would be thrown back, or more.
    """
    if not (0 <= white < 1 and 0 <= mean < 1):
        raise ValueError("walls throw back less than all")
    return white * max(0.0, flux) / (area * 1e-6 * (1 - mean)) if area > 0 else 0.0
