"""DXF R2010 with named layers and units set, through ezdxf."""

from __future__ import annotations

import io

from ezdxf import units
from ezdxf._options import options
from ezdxf.document import Drawing
from ezdxf.filemanagement import new

from wingboard.core.files.scene import OPERATIONS, CirclePath, Item, Scene

LAYER_COLOURS = {"mask": 6, "engrave": 8, "pocket": 30, "inner": 4, "outline": 7}
"""AutoCAD colour index of each layer; the layer's name carries the meaning."""


def write_dxf(scene: Scene) -> bytes:
    """The scene as a DXF drawing in mm: circles as CIRCLE, the rest as closed LWPOLYLINE with bulges.

    Layers are named ENGRAVE, POCKET, INNER and OUTLINE, and MASK where there is any; a pocket's layer adds its depth,
    as ``POCKET_1.20_BEHIND``.
    """
    document = _new_document()
    space = document.modelspace()
    _show(document, scene.width, scene.height)
    for operation in OPERATIONS:
        if operation == "mask" and not scene.of("mask"):
            continue
        document.layers.add(operation.upper(), color=LAYER_COLOURS[operation])
    for item in scene.items:
        layer = _layer(document, item)
        if isinstance(item.path, CirclePath):
            space.add_circle((item.path.x, item.path.y), item.path.diameter / 2, dxfattribs={"layer": layer})
        else:
            line = space.add_lwpolyline((), close=not item.open, dxfattribs={"layer": layer})
            # All at once: added one by one, every vertex copies those before it. x, y, two widths, bulge.
            line.lwpoints.extend([(v.x, v.y, 0.0, 0.0, v.bulge) for v in item.path])
    for name in sorted(document.entitydb.dxf_types_in_use()):
        document.classes.add_class(name)  # the library would take them from a set, in another order each time
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode()


def _new_document() -> Drawing:
    options.write_fixed_meta_data_for_testing = True  # no clock, no random ids: same input, same bytes
    document = new("R2010")
    document.units = units.MM
    document.header["$MEASUREMENT"] = 1
    return document


def _show(document: Drawing, width: float, height: float) -> None:
    """Say how large the drawing is and look at all of it: readers scale by that, and else see nothing."""
    document.header["$EXTMIN"] = document.modelspace().dxf.extmin = (0.0, 0.0, 0.0)
    document.header["$EXTMAX"] = document.modelspace().dxf.extmax = (width, height, 0.0)
    document.header["$LIMMIN"], document.header["$LIMMAX"] = (0.0, 0.0), (width, height)
    document.set_modelspace_vport(height=max(height, width) * 1.1, center=(width / 2, height / 2))


def _layer(document: Drawing, item: Item) -> str:
    if item.operation != "pocket" or item.depth is None:
        return item.operation.upper()
    name = f"POCKET_{item.depth:.2f}_BEHIND"
    if name not in document.layers:
        document.layers.add(name, color=LAYER_COLOURS["pocket"])
    return name
