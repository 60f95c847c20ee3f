"""Outlines of glyphs by fontTools: a face file, which face, a place along its axes and glyph ids come in as JSON, path data goes out."""
import json
import sys

from fontTools.pens.svgPathPen import SVGPathPen
from fontTools.ttLib import TTFont
from fontTools.ttLib.tables._g_l_y_f import Glyph

asked = json.load(sys.stdin)
font = TTFont(asked["file"], fontNumber=asked["number"], lazy=True)
glyphs = font.getGlyphSet(location=asked["place"] or None)
order = font.getGlyphOrder()


def whole(name):
    """A glyph put together from others as one. It is moved to its side bearing as a whole; its parts are not, each by itself, as a glyph
    set would."""
    table = font["glyf"]
    points, ends, flags = table[name].getCoordinates(table)
    one = Glyph()
    one.numberOfContours = len(ends)
    one.coordinates, one.endPtsOfContours, one.flags = points, ends, flags
    return one, font["hmtx"][name][1] - table[name].xMin


out = {}
for glyph in asked["glyphs"]:
    name = order[glyph]
    pen = SVGPathPen(glyphs, ntos=lambda v: repr(float(v)))
    drawn = glyphs[name]
    if not asked["place"] and "glyf" in font and font["glyf"][name].isComposite():
        one, shift = whole(name)
        one.draw(pen, None, shift)
    else:
        drawn.draw(pen)
    out[glyph] = {"d": pen.getCommands(), "advance": drawn.width}
json.dump(out, sys.stdout)
