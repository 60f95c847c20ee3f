"""Shapes of rings for the judges that shapely is asked by."""
from shapely.geometry import Polygon


def even_odd(rings):
    """What rings enclose by the even-odd rule."""
    out = Polygon()
    for ring in rings:
        p = Polygon(ring)
        out = out.symmetric_difference(p if p.is_valid else p.buffer(0))
    return out
