"""Lengths as people type them."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wingboard.core.quantity import QuantityError, length, shown


@pytest.mark.parametrize(
    ("text", "mm"),
    [
        ("12", 12.0),
        ("12 mm", 12.0),
        ("12,5", 12.5),
        (".5mm", 0.5),
        ("-2.5", -2.5),
        ("+3", 3.0),
        ("3/16in", 4.7625),
        ('0.5"', 12.7),
        ("1-1/4 in", 31.75),
        ("1 1/4″", 31.75),
        ("- 1/8 in", -3.175),
        ("2cm", 20.0),
        ("0.3 m", 300.0),
    ],
)
def test_reads_what_builders_type(text: str, mm: float) -> None:
    assert length(text) == pytest.approx(mm, abs=1e-12)


@pytest.mark.parametrize("text", ["", "x", "1/0", "1e5", "nan", "inf", "9999", "1-1/4-2", "12 kg", "1 2.5", "1" * 400])
def test_refuses_the_rest_and_says_what_would_do(text: str) -> None:
    with pytest.raises(QuantityError):
        length(text)


@given(st.floats(min_value=-4999, max_value=4999))
def test_a_shown_length_reads_back(value: float) -> None:
    assert math.isclose(length(shown(value, 3).replace("--", "-")), value, abs_tol=0.00051)


@pytest.mark.parametrize("text", ["9999", "9999999", "123456789012", "20 000 000 mm".replace(" ", "", 2), "1000 in"])
def test_too_long_is_not_called_no_length(text: str) -> None:
    with pytest.raises(QuantityError, match="is longer than 5000 mm"):
        length(text)
