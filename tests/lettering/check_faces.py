"""Outlines of glyphs by fontTools: a face file, which face, a place along its axes and glyph ids come in as JSON, path data goes out."""
import json
import sys

from fontTools.pens.svgPathPen import SVGPathPen
from fontTools.ttLib import TTFont

asked = json.load(sys.stdin)
font = TTFont(asked["file"], fontNumber=asked["number"], lazy=True)
glyphs = font.getGlyphSet(location=asked["place"] or None)
order = font.getGlyphOrder()
out = {}
for glyph in asked["glyphs"]:
    pen = SVGPathPen(glyphs, ntos=lambda v: repr(float(v)))
    drawn = glyphs[order[glyph]]
    drawn.draw(pen)
    out[glyph] = {"d": pen.getCommands(), "advance": drawn.width}
json.dump(out, sys.stdout)
