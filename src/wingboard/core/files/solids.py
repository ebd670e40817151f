"""Solids as files for printers: STL, one solid a file, and 3MF, several with their names and colours.

3MF is written with the library of the consortium that keeps the format, which there is not for every machine; where it
is missing :func:`knows_3mf` says so. Lengths in mm.
"""

from __future__ import annotations

import ctypes
from collections.abc import Sequence
from importlib.util import find_spec
from typing import Any, NamedTuple
from uuid import UUID, uuid5


class Mesh(NamedTuple):
    """A closed surface: corner points (n × 3, mm), triangles as the points' numbers (m × 3), seen from outside
    counter-clockwise; what it is called, and its colour as ``#RRGGBB``."""

    name: str
    colour: str
    points: Any
    triangles: Any


OURS = UUID("6ff2f6a1-0d0c-4c61-9a53-5f7c1b1f3f0b")
"""What the identities in a file are derived from, so that the same solids make the same bytes."""


def write_stl(mesh: Mesh) -> bytes:
    """One solid as binary STL, which knows neither units nor colours."""
    import trimesh  # not needed at the start
    from trimesh.exchange.stl import export_stl

    return bytes(export_stl(trimesh.Trimesh(mesh.points, mesh.triangles, process=False)))


def knows_3mf() -> bool:
    """Whether 3MF can be written on this machine."""
    return find_spec("lib3mf") is not None


def write_3mf(meshes: Sequence[Mesh]) -> bytes:
    """Solids with one origin as 3MF Core; the same bytes for the same solids."""
    import lib3mf  # a native library, not needed at the start
    from lib3mf import get_wrapper

    wrapper = get_wrapper()
    model = wrapper.CreateModel()
    model.SetUnit(lib3mf.ModelUnit.MilliMeter)
    model.SetBuildUUID(str(uuid5(OURS, "build")))
    paints = model.AddBaseMaterialGroup()
    for n, mesh in enumerate(meshes):
        made = model.AddMeshObject()
        made.SetName(mesh.name)
        made.SetUUID(str(uuid5(OURS, f"object {n}")))
        points = (lib3mf.Position * len(mesh.points))()
        for point, to in zip(mesh.points.tolist(), points, strict=True):
            to.Coordinates = (ctypes.c_float * 3)(*point)
        triangles = (lib3mf.Triangle * len(mesh.triangles))()
        for triangle, into in zip(mesh.triangles.tolist(), triangles, strict=True):
            into.Indices = (ctypes.c_uint32 * 3)(*triangle)
        made.SetGeometry(points, triangles)
        red, green, blue = (int(mesh.colour[k : k + 2], 16) for k in (1, 3, 5))
        paint = paints.AddMaterial(mesh.name, wrapper.RGBAToColor(red, green, blue, 255))
        made.SetObjectLevelProperty(paints.GetResourceID(), paint)
        item = model.AddBuildItem(made, wrapper.GetIdentityTransform())
        item.SetUUID(str(uuid5(OURS, f"item {n}")))
    return bytes(model.QueryWriter("3mf").WriteToBuffer())
