"""A finding: where, what was measured, what is needed, why, and the fix that one click applies."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Iterator
from typing import Literal

from pydantic import Field, PrivateAttr, ValidationError, ValidationInfo, field_validator

from wingboard.core.changes.command import Command
from wingboard.core.record.base import Record, Source

Severity = Literal["must", "judge", "note"]
Bound = Literal["least", "most", "below"]
"""What a needed figure is: the least, or the most, that is allowed, or the first that is too much."""
SEVERITY_WORDS: dict[Severity, str] = {"must": "to fix", "judge": "to judge", "note": "note"}
"""What each severity is called on the screen, on paper and from the shell."""
Station = Literal["brief", "parts", "face", "stack", "light", "cut", "wire"]


class Spot(Record):
    """Where on a module, in its coordinates (mm)."""

    module: str
    x: float
    y: float


MEASURED = ("mm", "mm²", "°", "°C", "%", "A", "mA", "W")
"""Units of what is measured; whatever else stands in their place is counted."""
_PLURAL = re.compile(r"(?<!without )\b(\w*[a-zD])s\b")


class Measure(Record):
    """A measured or needed figure with its unit, or a count of something, in the singular where it is one."""

    value: float
    unit: str = "mm"

    @field_validator("unit")
    @classmethod
    def _one_of_them(cls, unit: str, info: ValidationInfo) -> str:
        one = info.data.get("value") == 1 and unit not in MEASURED
        return _PLURAL.sub(r"\1", unit) if one else unit

    @property
    def counted(self) -> bool:
        """Whether it is a count."""
        return self.unit not in MEASURED

    def said(self, unit: bool = True, beside: float | None = None) -> str:
        """As it is shown: one decimal (two below one), counts whole, a true minus, no negative zero.

        With more decimals, three at most, where it could not be told from the figure that stands ``beside`` it.
        """
        places = 2 if 0 < abs(self.value) < 1 else 1
        while beside not in (None, self.value) and places < 3 and f"{self.value:.{places}f}" == f"{beside:.{places}f}":
            places += 1
        if self.unit != "mm" and self.value.is_integer():
            places = 0
        number = f"{round(self.value, places) + 0.0:.{places}f}".replace("-", "−")
        return f"{number}{'' if self.unit in ('°', '%') else ' '}{self.unit}" if unit else number


class Fix(Record):
    """Commands that settle a finding, and what they do in a few words."""

    label: str
    commands: tuple[Command, ...] = Field(min_length=1)


FixMaker = Callable[[], "Fix | Iterable[Fix] | None"]
"""Works out the fixes of a finding, the best first."""


class Finding(Record):
    """A check that failed. ``id`` stays the same as long as the same things fail the same check."""

    id: str
    code: str
    station: Station
    severity: Severity
    title: str
    detail: str
    subjects: tuple[str, ...] = ()
    spot: Spot | None = None
    measured: Measure | None = None
    needed: Measure | None = None
    bound: Bound = Field("least", description="needed is the least, or the most, allowed, or stays above all that is")
    source: Source
    fix: Fix | None = Field(None, description="Worked out when it is asked for, and only when it harms nothing")
    fixable: bool = Field(False, description="There may be a fix: ask for it")
    fixless: str = Field("", description="Why no fix is offered, once it was asked for")
    overridable: bool = Field(True, description="To fix, but a builder who knows better may override it, with a reason")
    accepted: str | None = Field(None, description="Why the builder lives with it")

    _maker: FixMaker | None = PrivateAttr(None)

    def with_maker(self, maker: FixMaker) -> Finding:
        """This finding, able to propose a fix when it is asked for one."""
        made = self.model_copy(update={"fixable": True})
        made._maker = maker
        return made

    def proposed(self) -> Iterator[Fix]:
        """The fixes that its check proposes, the best first, each worked out when it is asked for.

        No more follow where one would be no valid command.
        """
        try:
            made = self._maker() if self._maker else None
            yield from (made,) if isinstance(made, Fix) else made or ()
        except ValidationError:
            return

    def figures(self) -> str:
        """What was measured and what is needed, in one line; nothing where there are no figures."""
        if self.measured is None or self.needed is None:
            return ""
        needed = self.needed.said(unit=not self.needed.counted, beside=self.measured.value)
        words = {"least": f"{needed} needed", "most": f"at most {needed}", "below": f"less than {needed} needed"}
        return f"{self.measured.said(beside=self.needed.value)}, {words[self.bound]}"

    def told(self) -> Finding:
        """This finding as it is kept and shown: the design that its check looked at is let go."""
        made = self.model_copy()
        made._maker = None
        return made

    @property
    def acceptable(self) -> bool:
        """Whether the builder may live with it: what is to judge, and what is to fix unless it can hurt someone."""
        return self.severity == "judge" or (self.severity == "must" and self.overridable)

    @property
    def overridden(self) -> bool:
        """Whether it is to fix and the builder lives with it all the same."""
        return self.severity == "must" and self.accepted is not None

    @property
    def unsettled(self) -> bool:
        """Whether it still counts against cutting."""
        return self.accepted is None
