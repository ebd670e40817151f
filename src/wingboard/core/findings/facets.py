"""The facets of a design that checks read, so that what a check found is kept while its facets stay the same."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Literal, get_args

from wingboard.core.record.design import Design
from wingboard.core.record.functions import Wanted

Facet = Literal[
    "name", "brief", "wishes", "places", "legends", "parts", "modules", "stack", "controllers", "pins", "limits",
    "soldered", "workshop", "cutting", "harness", "usb", "style", "graphics", "procedures", "references",
    "trials", "accepted",
]  # fmt: skip
"""A field of the design; its functions are three: what is wanted of them, where they stand, what they read."""
EVERY_FACET: tuple[Facet, ...] = get_args(Facet)
FACETS: tuple[Facet, ...] = tuple(facet for facet in EVERY_FACET if facet != "accepted")
"""What a check reads unless it says less: everything but what the builder accepted."""

_WISHES = (
    "id",
    "name",
    "part",
    "stop_role",
    "scheme",
    "step",
    "steady",
    "tests_lamps",
    "tests_by_program",
    "boot",
    "lost",
    "declared",
    "digits",
    "colour",
    "led",
    "film",
    *Wanted.model_fields,
)
_PLACES = (
    "id", "part", "place", "locked", "pair", "pocket", "digits", "colour", "led", "want", "indicator", "scheme",
)  # fmt: skip
_LEGENDS = ("id", "name", "legend", "positions")


def _of_functions(names: tuple[str, ...]) -> Callable[[Design], tuple[Any, ...]]:
    def facet(design: Design) -> tuple[Any, ...]:
        return tuple(tuple(getattr(f, name) for name in names) for f in design.functions)

    return facet


_OF_FUNCTIONS: dict[Facet, Callable[[Design], tuple[Any, ...]]] = {
    "controllers": lambda design: (design.controllers, design.boards),
    "wishes": _of_functions(_WISHES),
    "places": _of_functions(_PLACES),
    "legends": _of_functions(_LEGENDS),
}


def facet_of(design: Design, facet: Facet) -> Any:
    """The values a facet stands for: equal for two designs when nothing that it covers differs."""
    return _OF_FUNCTIONS[facet](design) if facet in _OF_FUNCTIONS else getattr(design, facet)
