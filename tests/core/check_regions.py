"""Combines flattened regions with shapely and says area, kept area and number of kept pieces of each case as JSON.

Reads a list of {sheet: [w, h], keep, members: [{role, outlines: [{depth, points}]}]} from the file named first.
"""
import json
import sys

from shapely.geometry import Polygon, box
from shapely.ops import unary_union

# Polygons closer than this are one piece or two, depending on rounding; all counts within it are given.
TOUCH_MM = 2e-3
SPECK_MM2 = 1e-3


def region(outlines):
    out = Polygon()
    for depth in sorted({o["depth"] for o in outlines}):
        layer = unary_union([Polygon(o["points"]).buffer(0) for o in outlines if o["depth"] == depth])
        out = out.union(layer) if depth % 2 == 0 else out.difference(layer)
    return out


def pieces(shape):
    return sum(1 for p in getattr(shape, "geoms", [shape]) if p.geom_type == "Polygon" and p.area > SPECK_MM2)


def judge(case):
    shape = Polygon()
    for member in case["members"]:
        if not member["outlines"]:
            continue
        other = region(member["outlines"])
        if member["role"] == "join":
            shape = shape.union(other)
        elif member["role"] == "punch":
            shape = shape.difference(other)
        else:
            shape = shape.intersection(other)
    kept = shape if case["keep"] == "inside" else box(0, 0, *case["sheet"]).difference(shape)
    counts = {pieces(kept), pieces(kept.buffer(TOUCH_MM, join_style=2)), pieces(kept.buffer(-TOUCH_MM, join_style=2))}
    return {
        "area": shape.area,
        "length": shape.length,
        "keptArea": kept.area,
        "keptLength": kept.length,
        "pieces": sorted(counts),
    }


with open(sys.argv[1]) as file:
    json.dump([judge(case) for case in json.load(file)], sys.stdout)
