"""Writes DXF files with every kind of entity that is read, and ezdxf's own flattening of each, by layer.

usage: make_dxf.py FOLDER SEED VERSIONS POINTS (of a spline's own flattening); prints JSON: [{file, version, layers: {name: [[ [x, y], ... ], ...]}}]
"""
import json
import math
import random
import sys

import ezdxf
from ezdxf import disassemble, path

FLAT = 0.002
POINTS = int(sys.argv[4])


def flattened(entity):
    """Polylines of an entity, inserts and their arrays taken apart."""
    out = []
    for e in disassemble.recursive_decompose([entity]):
        kind = e.dxftype()
        if kind == "HATCH":
            for p in path.from_hatch(e):
                points = [(v.x, v.y) for v in p.flattening(FLAT)]
                if points[0] != points[-1]:
                    points.append(points[0])
                out.append(points)
        elif kind in ("SOLID", "TRACE", "3DFACE"):
            vertices = e.wcs_vertices(close=True)
            out.append([(v.x, v.y) for v in vertices])
        elif kind == "SPLINE":
            curve = e.construction_tool()
            points = curve.control_points if curve.degree == 1 else curve.approximate(POINTS)
            out.append([(v.x, v.y) for v in points])
        elif kind in ("CIRCLE", "ARC", "ELLIPSE"):
            # Exact, where paths would have cubics in place of arcs.
            out.append([(v.x, v.y) for v in e.flattening(FLAT)])
        elif kind == "LWPOLYLINE" or (kind == "POLYLINE" and e.is_2d_polyline):
            for piece in e.virtual_entities():
                if piece.dxftype() == "LINE":
                    out.append([(piece.dxf.start.x, piece.dxf.start.y), (piece.dxf.end.x, piece.dxf.end.y)])
                else:
                    out.append([(v.x, v.y) for v in piece.flattening(FLAT)])
        else:
            out.append([(v.x, v.y) for v in path.make_path(e).flattening(FLAT)])
    return out


def draw(space, add, chance, r12, depth, doc):
    """One of each kind of entity in a layout or block."""
    p = lambda k=100: (chance.uniform(-k, k), chance.uniform(-k, k))
    extrusions = [(0, 0, 1), (0, 0, -1), (0.3, -0.2, 0.9), (1, 0, 0)]
    ext = lambda: extrusions[chance.choice([0, 0, 1, 2, 3])]
    add(lambda a: space.add_line(p(), p(), a))
    add(lambda a: space.add_circle(p(), chance.uniform(1, 40), a | {"extrusion": ext()}))
    add(lambda a: space.add_arc((*p(), chance.uniform(-5, 5)), chance.uniform(1, 40), chance.uniform(0, 360), chance.uniform(0, 360), dxfattribs=a | {"extrusion": ext()}))
    add(lambda a: space.add_polyline2d([(*p(), 0, 0, chance.choice([0, 0.4, -1, 2])) for _ in range(5)], format="xyseb", close=chance.random() < 0.5, dxfattribs=a | {"extrusion": ext()}))
    add(lambda a: space.add_polyline3d([(*p(), chance.uniform(-9, 9)) for _ in range(5)], close=chance.random() < 0.5, dxfattribs=a))
    add(lambda a: space.add_solid([p() for _ in range(chance.choice([3, 4]))], a))
    add(lambda a: space.add_3dface([p() for _ in range(4)], a))
    if r12:
        return
    add(lambda a: space.add_lwpolyline([(*p(), chance.choice([0, 0.4, -1, 2])) for _ in range(6)], format="xyb", close=chance.random() < 0.5, dxfattribs=a | {"extrusion": ext(), "elevation": 3}))
    add(lambda a: space.add_ellipse(p(), (*p(30), 0), chance.uniform(0.1, 1), chance.uniform(0, 6), chance.uniform(0, 6), a))
    add(lambda a: space.add_ellipse(p(), (*p(30), 0), chance.uniform(0.1, 1), 0, math.tau, a | {"extrusion": (0, 0, -1)}))
    for degree in (1, 2, 3, 5):
        add(lambda a: space.add_open_spline([p() for _ in range(8)], degree, dxfattribs=a))
    add(lambda a: space.add_rational_spline([p() for _ in range(7)], [chance.uniform(0.5, 3) for _ in range(7)], 3, dxfattribs=a))

    def hatch(a):
        h = space.add_hatch(dxfattribs=a)
        c = p()
        h.paths.add_polyline_path([(c[0], c[1]), (c[0] + 30, c[1], 0.5), (c[0] + 30, c[1] + 5), (c[0], c[1] + 5, -0.3)], is_closed=True)
        edges = h.paths.add_edge_path()
        edges.add_line((0, 0), (20, 0))
        edges.add_arc((20, 2), 2, 270, 450, ccw=True)
        edges.add_line((20, 4), (0, 4))
        edges.add_arc((0, 2), 2, 270, 90, ccw=False)
        ellipse = h.paths.add_edge_path()
        ellipse.add_ellipse((60, 10), (3, 1), 0.5, 0, 360)
        return h

    add(hatch)


def build(version, seed, folder, binary):
    chance = random.Random(seed)
    doc = ezdxf.new(version)
    if version != "R12":
        doc.header["$INSUNITS"] = 4
    msp = doc.modelspace()
    r12 = version == "R12"
    made = {}
    count = 0

    def in_model(build_one):
        nonlocal count
        count += 1
        layer = f"E{count}"
        doc.layers.add(layer)
        made[layer] = build_one({"layer": layer})

    draw(msp, in_model, chance, r12, 0, doc)
    inner = doc.blocks.new("INNER", base_point=(3, -2))
    draw(inner, lambda f: f({"layer": "0"}), chance, r12, 1, doc)
    outer = doc.blocks.new("OUTER", base_point=(-10, 5))
    outer.add_blockref("INNER", (20, 10), {"layer": "0", "rotation": 30, "xscale": -1, "yscale": 1, "zscale": 1})
    outer.add_blockref("INNER", (-20, 40), {"layer": "0", "xscale": 0.5, "yscale": 0.5, "zscale": 0.5})
    outer.add_line((0, 0), (10, 10), {"layer": "0"})
    # Unequal scales on one level only: ezdxf cannot take apart what gets skewed.
    scales = [("OUTER", 1, 1), ("OUTER", 2, 2), ("OUTER", -1, 1), ("OUTER", 1, -1), ("INNER", 0.5, 2), ("INNER", -3, 0.7)]
    for block, sx, sy in scales:
        for ext in ((0, 0, 1), (0, 0, -1)):
            in_model(lambda a: msp.add_blockref(block, (chance.uniform(-99, 99), chance.uniform(-99, 99)), a | {"rotation": chance.uniform(0, 360), "xscale": sx, "yscale": sy, "zscale": sx if abs(sx) == abs(sy) else 1, "extrusion": ext}))
    in_model(lambda a: msp.add_blockref("INNER", (0, 0), a | {"rotation": 15, "xscale": 2, "yscale": 2, "zscale": 2, "column_count": 3, "row_count": 2, "column_spacing": 70, "row_spacing": 90}))
    file = f"{folder}/{version}{'-binary' if binary else ''}-{seed}.dxf"
    doc.saveas(file, fmt="bin" if binary else "asc")
    # As it is after reading it back, so that rounding in the file is on both sides.
    again = ezdxf.readfile(file)
    layers = {}
    for e in again.modelspace():
        layers.setdefault(e.dxf.layer, []).extend(flattened(e))
    return {"file": file, "version": version, "layers": layers}


folder, seed, wanted = sys.argv[1], int(sys.argv[2]), sys.argv[3].split(",")
written = []
for i, name in enumerate(wanted):
    written.append(build(name.removesuffix("b"), seed + i, folder, name.endswith("b")))
print(json.dumps(written))
