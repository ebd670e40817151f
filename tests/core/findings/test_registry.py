"""The registry, checked both ways: every check registered, documented and seen to fire by some test."""

from collections import Counter
from pathlib import Path

import pytest

from wingboard.core.findings.finding import Bound, Measure
from wingboard.core.findings.limits import LIMITS
from wingboard.core.overview.review import all_checks

ROOT = Path(__file__).parents[3]


def test_every_check_is_documented_and_every_documented_code_exists() -> None:
    codes = {c.code for c in all_checks()}
    text = (ROOT / "docs" / "checks.md").read_text("utf-8")
    documented = {
        line.split("`")[1] for line in text.splitlines() if line.startswith("| `") and "." in line.split("`")[1]
    }
    assert codes == documented
    counted = Counter(c.station for c in all_checks())
    assert counted["brief"] + counted["parts"] >= 20
    assert counted["face"] >= 20


def test_every_check_is_named_by_a_test() -> None:
    texts = "\n".join(f.read_text("utf-8") for f in (ROOT / "tests" / "core").rglob("test_*.py"))
    assert [c.code for c in all_checks() if f'"{c.code}"' not in texts] == []


def test_every_limit_serves_a_check_and_names_its_source() -> None:
    used = {name for c in all_checks() for name in c.limits}
    assert used == set(LIMITS)
    assert all(c.source.said() and c.measures for c in all_checks())


@pytest.mark.parametrize(
    ("measured", "needed", "bound", "words"),
    [
        (3.03, 3, "most", "3.03%, at most 3%"), (4.0, 3, "most", "4%, at most 3%"),
        (0.196, 0.2, "least", "0.196%, 0.200% needed"),
        (50, 50, "below", "50%, less than 50% needed"), (3.0001, 3, "most", "3.000%, at most 3%"),
    ],
)  # fmt: skip
def test_two_figures_that_differ_are_told_apart(measured: float, needed: float, bound: Bound, words: str) -> None:
    figures = {"measured": Measure(value=measured, unit="%"), "needed": Measure(value=needed, unit="%")}
    found = all_checks()[0].finding(detail="").model_copy(update={**figures, "bound": bound})
    assert found.figures() == words
