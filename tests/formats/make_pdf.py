"""Pages of PDF drawn by cairo: words in embedded faces, clips in clips, dashes, turned and scaled groups, both fill rules. Prints the files' names.

make_pdf.py FOLDER SEED COUNT
"""

import json
import math
import random
import sys

import cairo

folder, seed, count = sys.argv[1], int(sys.argv[2]), int(sys.argv[3])
names = []
for n in range(count):
    rnd = random.Random(seed + n)
    name = f"{folder}/cairo-{n}.pdf"
    width, height = rnd.uniform(150, 500), rnd.uniform(150, 500)
    surface = cairo.PDFSurface(name, width, height)
    c = cairo.Context(surface)

    def colour():
        c.set_source_rgb(*(rnd.choice([0, 0.2, 0.5, 0.9]) for _ in range(3)))

    def blob(r):
        c.new_path()
        turns = rnd.randint(3, 7)
        for k in range(turns):
            a = 2 * math.pi * k / turns
            b = a + math.pi / turns
            p = (r * math.cos(a), r * math.sin(a))
            q = (r * rnd.uniform(0.3, 1.4) * math.cos(b), r * rnd.uniform(0.3, 1.4) * math.sin(b))
            if k == 0:
                c.move_to(*p)
            elif rnd.random() < 0.5:
                c.line_to(*p)
            else:
                c.curve_to(*q, q[0] * 0.7, q[1] * 1.2, *p)
        closed = rnd.random() < 0.7
        if closed:
            c.close_path()
        return closed

    for _ in range(12):
        c.save()
        c.translate(rnd.uniform(0, width), rnd.uniform(0, height))
        c.rotate(rnd.uniform(0, 2 * math.pi))
        kind = rnd.randint(0, 4)
        # The width of a line is one number here, whatever the way: it is scaled alike in both.
        across = rnd.uniform(0.5, 2)
        c.scale(across, rnd.choice([1, -1]) * (across if kind in (1, 3) else rnd.uniform(0.5, 2)))
        colour()
        if kind == 0:
            blob(rnd.uniform(20, 60))
            c.set_fill_rule(rnd.choice([cairo.FILL_RULE_EVEN_ODD, cairo.FILL_RULE_WINDING]))
            c.fill()
        elif kind == 1:
            closed = blob(rnd.uniform(20, 60))
            c.set_line_width(rnd.uniform(1, 6))
            # cairo goes back to the start after closing, and square ends there are drawn as a speck.
            ends = [cairo.LINE_CAP_BUTT, cairo.LINE_CAP_ROUND, cairo.LINE_CAP_SQUARE]
            c.set_line_cap(rnd.choice(ends[: 2 if closed else 3]))
            c.set_line_join(rnd.choice([cairo.LINE_JOIN_MITER, cairo.LINE_JOIN_ROUND, cairo.LINE_JOIN_BEVEL]))
            c.stroke()
        elif kind == 2:
            blob(50)
            c.clip()
            c.rectangle(-30, -30, 60, 45)
            c.clip()
            c.arc(0, 0, 40, 0, 2 * math.pi)
            c.fill()
        elif kind == 3:
            c.arc(0, 0, rnd.uniform(10, 50), 0, rnd.uniform(2, 6))
            c.set_line_width(3)
            c.set_dash([rnd.uniform(4, 12), rnd.uniform(3, 8)], rnd.uniform(0, 9))
            c.stroke()
        else:
            c.select_font_face(
                rnd.choice(["DejaVu Sans", "DejaVu Serif", "DejaVu Sans Mono"]),
                rnd.choice([cairo.FONT_SLANT_NORMAL, cairo.FONT_SLANT_ITALIC]),
                rnd.choice([cairo.FONT_WEIGHT_NORMAL, cairo.FONT_WEIGHT_BOLD]),
            )
            c.set_font_size(rnd.uniform(18, 60))
            c.move_to(0, 0)
            c.show_text(rnd.choice(["Gate", "Žluť", "Äpfel & Öl", "Beans 42", "&@Rg"]))
        c.restore()
    c.show_page()
    surface.finish()
    names.append(name)
print(json.dumps(names))
