"""Judges lines that a round beam runs along, with shapely: python3 check_kerf.py CASES.json prints a JSON list.

CASES.json is a list of {"dxf": file, "kerf": mm, "kept": "inside" or "outside", "rings": [[[x, y], ...], ...]}; rings are the drawing, filled
by the even-odd rule, where the lines of the file are. The answer is how wide, in mm, the widest place is in which what stays after the
beam has gone along the lines differs from the drawing closed by a disc of half the kerf, and the area of all of them.
"""
import json
import sys

import ezdxf
from even_odd import even_odd
from ezdxf import path as ezpath
from shapely.geometry import LineString, Polygon, box
from shapely.ops import unary_union

FINE = 64
PIECE = 12


def loops(file):
    out = []
    for entity in ezdxf.readfile(file).modelspace():
        points = [(v.x, v.y) for v in ezpath.make_path(entity).flattening(0.002)]
        if len(points) > 2:
            out.append(points)
    return out


def judge(case):
    half = case["kerf"] / 2
    drawing = even_odd(case["rings"])
    lines = loops(case["dxf"])
    # In pieces: buffers of long lines that come back to themselves have holes of their own making.
    pieces = [LineString(points[i : i + PIECE + 1]) for points in lines for i in range(0, len(points) - 1, PIECE)]
    burnt = unary_union([piece.buffer(half, FINE) for piece in pieces])
    within = even_odd(lines)
    if case["kept"] == "inside":
        stays = within.difference(burnt)
        meant = drawing.buffer(half, FINE).buffer(-half, FINE)
    else:
        sheet = box(*drawing.buffer(50).bounds)
        stays = sheet.difference(within).difference(burnt)
        kept = sheet.difference(drawing)
        meant = kept.buffer(half, FINE).buffer(-half, FINE).intersection(sheet)
    off = stays.symmetric_difference(meant)
    places = getattr(off, "geoms", [off])
    # Four times the area for the length around: the diameter of what is round, and twice the width of what is long.
    return [max((4 * g.area / g.length for g in places if g.length > 0), default=0), off.area]


print(json.dumps([judge(case) for case in json.load(open(sys.argv[1]))]))
