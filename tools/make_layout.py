#!/usr/bin/env python3
"""Writes the made-up relay board of crates/mend-formats/tests/files: 240 footprints round a two-row port, in the open
layout format. Run: tools/make_layout.py > crates/mend-formats/tests/files/harl-relay.kicad_pcb"""
import math
import random

random.seed(14)
out = []
say = out.append
say('(kicad_pcb (version 20240108) (generator "hand")')
say('  (general (thickness 1.2) (legacy_teardrops no)) (paper "A4")')
say('  (layers (0 "F.Cu" signal) (1 "In1.Cu" power) (2 "In2.Cu" power) (31 "B.Cu" signal) (44 "Edge.Cuts" user))')
say('  (setup (stackup (layer "F.Cu" (type "copper") (thickness 0.035)) (layer "dielectric 1" (type "core") (thickness 0.4))')
say('    (layer "In1.Cu" (type "copper") (thickness 0.018)) (layer "In2.Cu" (type "copper") (thickness 0.018))')
say('    (layer "B.Cu" (type "copper") (thickness 0.035))))')
say('  (net 0 "") (net 1 "GND") (net 2 "VBUS") (net 3 "D+") (net 4 "D-")')
X, Y, W, H = 100.0, 60.0, 90.0, 55.0


def edge(a, b):
    say(f'  (gr_line (start {a[0]:.4f} {a[1]:.4f}) (end {b[0]:.4f} {b[1]:.4f}) (stroke (width 0.1) (type solid)) (layer "Edge.Cuts"))')


R = 3.0
edge((X + R, Y), (X + W - R, Y))
edge((X + W, Y + R), (X + W, Y + H - R))
edge((X + W - R, Y + H), (X + R, Y + H))
edge((X, Y + H - R), (X, Y + R))
d = R * (1 - math.sqrt(0.5))
for s, m, e in [((X + W - R, Y), (X + W - d, Y + d), (X + W, Y + R)), ((X + W, Y + H - R), (X + W - d, Y + H - d), (X + W - R, Y + H)),
                ((X + R, Y + H), (X + d, Y + H - d), (X, Y + H - R)), ((X, Y + R), (X + d, Y + d), (X + R, Y))]:
    say(f'  (gr_arc (start {s[0]:.4f} {s[1]:.4f}) (mid {m[0]:.4f} {m[1]:.4f}) (end {e[0]:.4f} {e[1]:.4f}) (layer "Edge.Cuts"))')


def box(layer, w, h):
    a, b = f'(start {-w/2:.3f} {-h/2:.3f})', f'(end {w/2:.3f} {h/2:.3f})'
    return f'    (fp_rect {a} {b} (stroke (width 0.1) (type solid)) (fill none) (layer "{layer}"))'


def two_pads(ref, value, at, turn, back, size):
    w, h = size
    face = "B" if back else "F"
    say(f'  (footprint "Chips:C_{w}x{h}" (layer "{face}.Cu") (at {at[0]:.3f} {at[1]:.3f} {turn})')
    say(f'    (property "Reference" "{ref}" (at 0 -1.5 {turn}) (layer "{face}.SilkS")) (property "Value" "{value}" (at 0 1.5) (layer "{face}.Fab"))')
    say(box(f"{face}.Fab", w, h))
    for n, x in ((1, -w / 2), (2, w / 2)):
        say(f'    (pad "{n}" smd roundrect (at {x:.3f} 0 {turn}) (size {w*0.5:.3f} {h*1.1:.3f}) (layers "{face}.Cu" "{face}.Paste" "{face}.Mask") (roundrect_rratio 0.25) (net {n} "{"GND" if n == 2 else "VBUS"}"))')
    say('    (model "${MODELS}/chip.step" (offset (xyz 0 0 0))))')


def port():
    cx, cy = X + 30, Y + H - 4.0
    say(f'  (footprint "Ports:two_row" (layer "F.Cu") (at {cx} {cy} 180)')
    say('    (property "Reference" "J1" (at 0 -6) (layer "F.SilkS")) (property "Value" "two-row port" (at 0 6) (layer "F.Fab"))')
    say(box("F.Fab", 8.94, 7.35))
    roles = {1: (1, "GND"), 4: (2, "VBUS"), 9: (2, "VBUS"), 12: (1, "GND")}
    for row, y, h in (("A", 4.05, 1.0), ("B", 2.7, 0.8)):
        for k in range(12):
            n, name = roles.get(k + 1, (3, "D+"))
            say(f'    (pad "{row}{k+1}" smd rect (at {-2.75+0.5*k:.3f} {y} 180) (size 0.3 {h}) (layers "F.Cu" "F.Paste" "F.Mask") (net {n} "{name}"))')
    for x, y in ((-4.32, -2.1), (4.32, -2.1), (-4.32, 2.08), (4.32, 2.08)):
        say(f'    (pad "SH" thru_hole oval (at {x} {y} 180) (size 1.2 1.9) (drill oval 0.7 1.4) (layers "*.Cu" "*.Mask") (net 1 "GND"))')
    say('    (pad "" np_thru_hole circle (at -2.9 -1.0) (size 0.65 0.65) (drill 0.65) (layers "*.Cu" "*.Mask")))')


def chip(ref, at, side, pins, turn=0):
    say(f'  (footprint "Packages:QFN" (layer "F.Cu") (at {at[0]} {at[1]} {turn})')
    say(f'    (property "Reference" "{ref}" (at 0 0) (layer "F.SilkS")) (property "Value" "controller" (at 0 0) (layer "F.Fab"))')
    yard = side + 0.5
    for a, b in (((-1, -1), (1, -1)), ((1, -1), (1, 1)), ((1, 1), (-1, 1)), ((-1, 1), (-1, -1))):
        say(f'    (fp_line (start {a[0]*yard/2:.3f} {a[1]*yard/2:.3f}) (end {b[0]*yard/2:.3f} {b[1]*yard/2:.3f}) (stroke (width 0.05) (type solid)) (layer "F.CrtYd"))')
    for k in range(pins):
        x = -side / 2 + (k + 0.5) * side / pins
        for n, (px, py) in enumerate(((x, -side / 2), (x, side / 2))):
            say(f'    (pad "{n*pins+k+1}" smd rect (at {px:.3f} {py:.3f} {turn}) (size 0.25 0.7) (layers "F.Cu" "F.Mask") (net 3 "D+"))')
    say('  )')


port()
chip("U1", (X + 30, Y + 30), 5.0, 8)
chip("U2", (X + 52, Y + 26), 7.0, 12, 45)
chip("U3", (X + 70, Y + 40), 4.0, 6)
count = 0
for row in range(16):
    for column in range(18):
        at = (X + 4 + column * 4.8, Y + 3 + row * 3.0)
        crowded = abs(at[0] - X - 30) < 6.5 and at[1] > Y + 44
        near_chip = any(math.hypot(at[0] - X - cx, at[1] - Y - cy) < r for cx, cy, r in ((30, 30, 5), (52, 26, 7), (70, 40, 4.5)))
        if crowded or near_chip or count >= 233:
            continue
        count += 1
        kind = random.choice(["C"] * 5 + ["R"] * 3 + ["L", "FB", "TP"])
        two_pads(f"{kind}{count}", "part", at, random.choice([0, 90]), random.random() < 0.35, random.choice([(1.0, 0.5), (1.6, 0.8)]))
for ref, x in (("Y1", 12.0), ("J2", 62.0), ("H1", 5.0)):
    two_pads(ref, "thing", (X + x, Y + 51.5), 0, False, (3.2, 2.5))
pts = " ".join(f"(xy {x:.3f} {y:.3f})" for x, y in ((X + .5, Y + .5), (X + W - .5, Y + .5), (X + W - .5, Y + H - .5), (X + .5, Y + H - .5)))
for layer in ("In1.Cu", "In2.Cu"):
    say(f'  (zone (net 1) (net_name "GND") (layer "{layer}") (hatch edge 0.5) (polygon (pts {pts})) (filled_polygon (layer "{layer}") (pts {pts})))')
half = " ".join(f"(xy {x:.3f} {y:.3f})" for x, y in ((X + 20, Y + 40), (X + 40, Y + 40), (X + 40, Y + H - .5), (X + 20, Y + H - .5)))
say(f'  (zone (net 1) (net_name "GND") (layer "B.Cu") (polygon (pts {half})) (filled_polygon (layer "B.Cu") (pts {half})))')
for k in range(300):
    x, y = X + random.uniform(2, W - 2), Y + random.uniform(2, H - 2)
    say(f'  (segment (start {x:.3f} {y:.3f}) (end {min(X+W-1, x+random.uniform(2, 12)):.3f} {y:.3f}) (width 0.2) (layer "F.Cu") (net 3))')
    say(f'  (via (at {x:.3f} {y:.3f}) (size 0.6) (drill 0.3) (layers "F.Cu" "B.Cu") (net 1))')
say('  (gr_text "relay" (at 140 70) (layer "F.SilkS")) (group "" (id "a"))')
say(')')
print("\n".join(out))
