"""Reads DXF files with ezdxf: python3 check_dxf.py FILE... prints a JSON list, one entry a file.

Each entry: version, errors and fixes of the audit, layers with colours, per layer the polylines, circles and points as
flattened points (within 0.001 mm), their exact length, and the number of lines and arcs they are made of.
"""
import json
import math
import sys

import ezdxf
from ezdxf import path



def length_of(vertices, closed):
    """Exact length of lines and arcs between vertices with bulges."""
    ends = vertices[1:] + vertices[:1] if closed else vertices[1:]
    total = 0.0
    for (x, y, bulge), (ex, ey, _) in zip(vertices, ends):
        chord = math.hypot(ex - x, ey - y)
        b = abs(bulge)
        total += chord if b < 1e-12 else chord * (1 + b * b) / (4 * b) * 4 * math.atan(b)
    return total


out = []
for name in sys.argv[1:]:
    doc = ezdxf.readfile(name)
    auditor = doc.audit()
    entities = []
    for e in doc.modelspace():
        if e.dxftype() == "POINT":
            points = [[e.dxf.location.x, e.dxf.location.y]]
        else:
            points = [[v.x, v.y] for v in path.make_path(e).flattening(0.001)]
        if e.dxftype() == "LWPOLYLINE":
            vertices = [(p[0], p[1], p[4]) for p in e.get_points("xyseb")]
            closed = e.closed
        elif e.dxftype() in ("CIRCLE", "POINT"):
            vertices, closed = [], e.dxftype() == "CIRCLE"
            length = 2 * math.pi * e.dxf.radius if closed else 0.0
        else:
            vertices = [(v.dxf.location.x, v.dxf.location.y, v.dxf.get("bulge", 0)) for v in e.vertices]
            closed = e.is_closed
        if vertices:
            length = length_of(vertices, closed)
        entities.append(
            {
                "type": e.dxftype(),
                "layer": e.dxf.layer,
                "closed": bool(closed),
                "points": points,
                "length": length,
                "pieces": len(vertices),
                "arcs": sum(1 for v in vertices if v[2]),
            }
        )
    out.append(
        {
            "version": doc.dxfversion,
            "units": doc.header.get("$INSUNITS", None),
            "extents": [list(doc.header["$EXTMIN"])[:2], list(doc.header["$EXTMAX"])[:2]],
            "errors": [str(e.message) for e in auditor.errors],
            "fixes": [str(e.message) for e in auditor.fixes],
            "layers": {l.dxf.name: [l.dxf.color, l.dxf.get("true_color", None)] for l in doc.layers},
            "entities": entities,
        }
    )
print(json.dumps(out))
