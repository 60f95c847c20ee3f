"""Judges layouts with shapely: python3 check_spacing.py LAYOUTS.json prints a JSON list.

LAYOUTS.json is a list of {"width", "height": mm, "sheets": [[shape, ...], ...]}; a shape is a list of rings [[x, y], ...] by the even-odd
rule, where it lies on its sheet. The answer is, for each layout, the least distance between two shapes of a sheet, 0 where they overlap
(holes are no part of a shape), and the least distance from a shape to the edge of its sheet, less than 0 beyond it; in mm, null where there is none.
"""
import json
import sys

from shapely.geometry import Polygon


def shape_of(rings):
    shape = Polygon()
    for ring in rings:
        shape = shape.symmetric_difference(Polygon(ring).buffer(0))
    return shape


def judge(layout):
    apart = None
    edge = None
    for sheet in layout["sheets"]:
        shapes = [shape_of(rings) for rings in sheet]
        for shape in shapes:
            x0, y0, x1, y1 = shape.bounds
            room = min(x0, y0, layout["width"] - x1, layout["height"] - y1)
            edge = room if edge is None else min(edge, room)
        for i, one in enumerate(shapes):
            for other in shapes[i + 1 :]:
                far = one.distance(other)
                apart = far if apart is None else min(apart, far)
    return {"apart": apart, "edge": edge}


with open(sys.argv[1]) as file:
    print(json.dumps([judge(layout) for layout in json.load(file)]))
