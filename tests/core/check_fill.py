"""Judges lines that fill shapes with shapely: python3 check_fill.py CASES.json prints a JSON list.

CASES.json is a list of one of
  {"rings": [[[x, y], ...], ...], "angle": degrees, "spacing": mm, "phase": mm, "lines": [[x0, y0, x1, y1], ...]}
    rings are filled by the even-odd rule; the answer is the greatest distance between ends of the lines and of every level
    line at phase + k * spacing, turned by the angle, clipped to the shape; null where one has a line the other has not.
  {"rings": ..., "width": mm}
    the answer is the area left of the shape when it is shrunk and grown again by half the width, and that of the shape.
"""
import json
import math
import sys

from even_odd import even_odd
from shapely.affinity import rotate
from shapely.geometry import LineString

# Shorter lines, and gaps, are rounding.
LITTLE = 1e-3


def joined(spans):
    out = []
    for a, b in sorted(spans):
        if out and a - out[-1][1] <= LITTLE:
            out[-1][1] = max(out[-1][1], b)
        else:
            out.append([a, b])
    return [s for s in out if s[1] - s[0] > LITTLE]


def clipped(shape, y, low, high):
    found = LineString([(low, y), (high, y)]).intersection(shape)
    parts = getattr(found, "geoms", [found])
    return joined([(p.bounds[0], p.bounds[2]) for p in parts if p.length > 0])


def judge_lines(case):
    shape = rotate(even_odd(case["rings"]), -case["angle"], origin=(0, 0))
    if shape.is_empty:
        return 0 if not case["lines"] else None
    c, s = math.cos(math.radians(case["angle"])), math.sin(math.radians(case["angle"]))
    rows = {}
    for x0, y0, x1, y1 in case["lines"]:
        u0, u1, v = c * x0 + s * y0, c * x1 + s * y1, c * y0 - s * x0
        k = round((v - case["phase"]) / case["spacing"])
        if abs(case["phase"] + k * case["spacing"] - v) > LITTLE:
            return None
        rows.setdefault(k, []).append((min(u0, u1), max(u0, u1)))
    low, bottom, high, top = shape.bounds
    worst = 0.0
    first = math.ceil((bottom - case["phase"]) / case["spacing"] - 1e-9)
    last = math.floor((top - case["phase"]) / case["spacing"] + 1e-9)
    for k in range(min([first, *rows]), max([last, *rows]) + 1):
        want = clipped(shape, case["phase"] + k * case["spacing"], low - 1, high + 1)
        have = joined(rows.get(k, []))
        if len(want) != len(have):
            return None
        for (a, b), (p, q) in zip(want, have):
            worst = max(worst, abs(a - p), abs(b - q))
    return worst


def judge_reach(case):
    shape = even_odd(case["rings"])
    r = case["width"] / 2
    opened = shape.buffer(-r, 64).buffer(r, 64).intersection(shape)
    return [opened.area, shape.area]


cases = json.load(open(sys.argv[1]))
print(json.dumps([judge_reach(c) if "width" in c else judge_lines(c) for c in cases]))
