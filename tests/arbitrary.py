"""Commands of any kind with values at their limits, drawn from the schema by which commands are read."""

from __future__ import annotations

import re
from typing import Any

from hypothesis import strategies as st

from wingboard.core.changes.command import COMMANDS

SCHEMA: dict[str, Any] = COMMANDS.json_schema(ref_template="{model}")
DEFINITIONS: dict[str, Any] = SCHEMA["$defs"]
KINDS: list[str] = sorted(SCHEMA["discriminator"]["mapping"].values())

FUNCTIONS = ("f1", "f2", "f3", "f4", "f5")
POOLS: dict[str, tuple[str, ...]] = {
    "function": FUNCTIONS, "functions": FUNCTIONS, "first": FUNCTIONS, "second": FUNCTIONS, "steps": FUNCTIONS,
    "before": FUNCTIONS, "of": FUNCTIONS, "pair": FUNCTIONS,
    "part": ("toggle-large-on-off", "button-22", "rotary-12", "potentiometer", "readout-4-digits", "gauge-79",
             "encoder-push", "caption-two-lamp", "my-part-1", "my-part-2"),
    "parts": ("my-part-1", "encoder-plain", "potentiometer", "rotary-8"),
    "module": ("plate", "module-1", "module-2"), "layer": ("face", "diffuser", "back"),
    "machine": ("laser-1", "mill-1"), "stock": ("sheet-1",), "supply": ("supply-1",), "keepout": ("bar-1", "box-1"),
    "graphic": ("bracket-1", "box-1", "text-1", "placard-1", "symbol-1"), "symbol": ("warning", "none-such"),
    "procedure": ("procedure-1",), "reference": ("picture-1",), "circle": ("circle-1",),
    "controller": ("atmega328p-1", "atmega2560-1"),
    "id": ("laser-1", "sheet-1", "supply-1", "h1", "a", "z" * 48),
}  # fmt: skip
"""What a field names is mostly there; an id asked for is mostly free."""
WORDS = ("", "A", "GONG", "two words", "ß" * 61, "x" * 120, "|", "ﬁ\u202e", "=1+1", "🚋", "é|ü|😀")
PATTERNED = {
    "line": ("f1.on", "f1.way-1", "f2.press", "f3.wiper", "z9.none"),
    "pin": ("2", "13", "A0", "53", "99"),
    "picture": ("0" * 64,),
    "colour": ("#000000", "#FfFfFf"),
    "currency": ("EUR",),
}
FINDINGS = ("brief.forgotten:cable-exit", "brief.forgotten:lamp-test", "nothing")
LIMITS = ("bridge-least", "toggle-spacing", "chip-current", "touch-ac", "breaker-factor", "emergency-factor", "none")
PATHS = (
    [(0, 0, 0), (50, 0, 0), (25, 40, 0.2)],
    [(0, 0, 10), (100, 0, -10), (100, 60, 0), (0, 60, 0)],
    [(0, 0, 0), (10, 10, 0), (10, 0, 0), (0, 10, 0)],
    [(-50, -50, 0), (-50, 50, 0), (50, 50, 0), (50, -50, 0)],
    [(0, 0, 0), (0, 0, 0), (0, 0, 0)],
    [(-5000, 0, 0), (5000, 0, 1), (5000, 10, 0), (-5000, 10, 0)],
)


def command() -> st.SearchStrategy[dict[str, Any]]:
    """A command as JSON, each of its optional fields there or not."""
    return st.sampled_from(KINDS).flatmap(lambda kind: _object(kind, DEFINITIONS[kind]))


def _object(name: str, schema: dict[str, Any]) -> st.SearchStrategy[dict[str, Any]]:
    if name == "OutlinePoint":
        return st.just({"x": 0, "y": 0})
    required = set(schema.get("required", ()))
    always = {n: _value(n, s) for n, s in schema["properties"].items() if n in required or "const" in s}
    sometimes = {n: _value(n, s) for n, s in schema["properties"].items() if n not in always}
    return st.fixed_dictionaries(always, optional=sometimes)


def _value(name: str, schema: dict[str, Any]) -> st.SearchStrategy[Any]:
    if "$ref" in schema:
        return _object(schema["$ref"], DEFINITIONS[schema["$ref"]])
    if "const" in schema:
        return st.just(schema["const"])
    if "enum" in schema:
        return st.sampled_from(schema["enum"])
    for several in ("anyOf", "oneOf"):
        if several in schema:
            return st.one_of(*(_value(name, s) for s in schema[several]))
    return _of_type(name, schema)


def _of_type(name: str, schema: dict[str, Any]) -> st.SearchStrategy[Any]:
    kind = schema.get("type")
    if kind in ("number", "integer"):
        return _number(schema, whole=kind == "integer")
    if kind == "array":
        return _array(name, schema)
    if kind == "string":
        return _string(name, schema)
    if kind == "boolean":
        return st.booleans()
    return st.none() if kind == "null" else st.just({})


def _number(schema: dict[str, Any], whole: bool) -> st.SearchStrategy[float]:
    least = schema.get("minimum", schema.get("exclusiveMinimum", -1e4))
    most = schema.get("maximum", schema.get("exclusiveMaximum", 1e4))
    if "exclusiveMinimum" in schema:
        least = 1 if whole else 5e-324
    usual = [v for v in (0, 0.5, 1, 8, 40, 90, 120.25, 300) if least <= v <= most]
    ends = st.sampled_from([least, most, *usual])
    return ends.map(int) if whole else ends


def _array(name: str, schema: dict[str, Any]) -> st.SearchStrategy[list[Any]]:
    least, most = schema.get("minItems", 0), schema.get("maxItems", 6)
    if name == "points" and "OutlinePoint" in str(schema):
        return st.sampled_from([[{"x": x, "y": y, "bulge": b} for x, y, b in path] for path in PATHS])
    return st.lists(_value(name, schema["items"]), min_size=least, max_size=min(most, max(least, 4)))


def _string(name: str, schema: dict[str, Any]) -> st.SearchStrategy[str]:
    pattern = schema.get("pattern", "")
    for named, choices in {**PATTERNED, "lines": PATTERNED["line"]}.items():
        if named == name:
            return st.sampled_from(choices)
    if name == "finding":
        return st.sampled_from(FINDINGS)
    if name == "limit":
        return st.sampled_from(LIMITS)
    if pattern.startswith("^[a-z][a-z0-9-]{0,47}"):
        return st.sampled_from(POOLS.get(name, ("f1", "plate")))
    least, most = schema.get("minLength", 0), schema.get("maxLength", 200)
    fitting = [w for w in WORDS if (not pattern or re.search(pattern, w)) and least <= len(w) <= most]
    return st.sampled_from(fitting) if fitting else st.from_regex(pattern, fullmatch=True)
