"""Judges bridged plates in DXF files with ezdxf and shapely: python3 check_stencil.py CASES.json prints a JSON list.

CASES.json is a list of {file, bridges: [{from, to, width}]}; from and to are [x, y] in the file. Each answer: the number of
pieces of stock, and for each bridge its width measured across it at three places, the least of them.
"""
import json
import math
import sys

import ezdxf
from even_odd import even_odd
from ezdxf import path
from shapely.geometry import LineString, Point
from shapely.prepared import prep

FLATTEN_MM = 0.001
SPECK_MM2 = 1e-3
ACROSS_WIDTHS = 1.5


def stock(name):
    doc = ezdxf.readfile(name)
    return even_odd(
        [(v.x, v.y) for v in path.make_path(e).flattening(FLATTEN_MM)] for e in doc.modelspace()
    )


def width_at(region, x, y, ux, uy, width):
    reach = ACROSS_WIDTHS * width
    across = LineString([(x - reach * ux, y - reach * uy), (x + reach * ux, y + reach * uy)])
    within = across.intersection(region)
    for part in getattr(within, "geoms", [within]):
        if part.length > 0 and part.distance(Point(x, y)) < 1e-6:
            return part.length
    return 0.0


def judge(case):
    region = stock(case["file"])
    widths = []
    for b in case["bridges"]:
        (x0, y0), (x1, y1) = b["from"], b["to"]
        length = math.hypot(x1 - x0, y1 - y0)
        dx, dy = (x1 - x0) / length, (y1 - y0) / length
        local = region.intersection(Point((x0 + x1) / 2, (y0 + y1) / 2).buffer(length + 2 * b["width"]))
        widths.append(
            min(
                width_at(local, x0 + t * length * dx, y0 + t * length * dy, -dy, dx, b["width"])
                for t in (0.4, 0.5, 0.6)
            )
        )
    pieces = sum(1 for p in getattr(region, "geoms", [region]) if p.geom_type == "Polygon" and p.area > SPECK_MM2)
    return {"pieces": pieces, "widths": widths}


with open(sys.argv[1]) as f:
    print(json.dumps([judge(case) for case in json.load(f)]))
