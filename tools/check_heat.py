"""The heat solver against FiPy, a general-purpose finite-volume library for partial differential equations.

The reference case R7: a hot-air jet from above on a plate of 40 x 40 x 1.6 mm, one minute. Nothing of ours is used: the jet
is written out here from its equations (Martin's round-jet correlation and what follows from it), the plate is handed to
FiPy, which assembles and solves it with backward Euler; two step sizes are extrapolated to none.

    python3 -m venv /tmp/fipy && /tmp/fipy/bin/pip install -r tools/requirements.txt
    /tmp/fipy/bin/python tools/check_heat.py

It prints what FiPy gets and how far the figures of the test `r7_the_jet_on_a_plate_agrees_with_an_independent_solver` are
from it. The result that was measured stands in docs/heat-checks.md.
"""

import numpy as np
from fipy import CellVariable, DiffusionTerm, FaceVariable, Grid3D, ImplicitSourceTerm, TransientTerm
from fipy.solvers import LinearPCGSolver

# The plate (SI) and the room.
SIDE, LAYERS, CELL, THICKNESS = 40, 6, 1e-3, 1.6e-3
IN_PLANE, THROUGH, CAPACITY = 35.0, 1.2, 2.3e6
ROOM_C = 25.0
SECONDS = 60.0
# What the solver gives for the cell at (15.5, 20.5) mm, K over the room; the test holds it to 0.05 K of FiPy.
OURS = {"top": 253.934, "bottom": 242.529}

LOSS, EMISSIVITY, BOLTZMANN = 0.8, 0.9, 5.670e-8
NATURAL = {"top": 8.0, "bottom": 5.0}


def jet(r):
    """h (W/m2K) and gas excess (K) at r metres from the axis: 400 C, 60 L/min shown, 10 mm fan nozzle, 15 mm away."""
    diameter, distance, room_k = 10e-3, 15e-3, ROOM_C + 273.15
    narrow = (1 + 0.025 * ((20e-3 / diameter) ** 4 - 1)) ** -0.5
    mass = 1.19 * (60e-3 / 60) * 0.8 * narrow
    nozzle = 0.98 * (400 - ROOM_C) * np.exp(-0.025 / (mass * 1040))
    film = (room_k + nozzle + 150 + 273.15) / 2 / 273.0
    conductivity, viscosity = 0.0241 * film**0.81, 1.716e-5 * film**0.70
    reynolds = 4 * mass / (np.pi * diameter * viscosity)
    aspect = np.clip(distance / diameter, 2, 12)
    martin = 2 * np.sqrt(reynolds) * np.sqrt(1 + 0.005 * reynolds**0.55) / (1 + 0.04 * (aspect - 6))
    centre = conductivity / diameter * 0.70**0.42 * martin / (2 * 1.4)
    h = centre * 1.4 / np.sqrt((r / diameter) ** 2 + 1.4**2)
    effective = diameter * np.sqrt(room_k / (room_k + nozzle))
    on_axis = nozzle * (1 + (distance / (5 * effective)) ** 4) ** -0.25
    return h, on_axis / np.sqrt(1 + (r / (2.2 * diameter + 0.1 * distance)) ** 2)


def run(step):
    """Excess at the two places after a minute, by backward Euler with this step."""
    thin = THICKNESS / LAYERS
    mesh = Grid3D(nx=SIDE, ny=SIDE, nz=LAYERS, dx=CELL, dy=CELL, dz=thin)
    x, y, z = mesh.cellCenters.value
    half = lambda h: 1 / (1 + h * thin / (2 * THROUGH))
    radiation = 4 * EMISSIVITY * LOSS * BOLTZMANN * 400.0**3
    h, gas = jet(np.hypot(x - 15e-3, y - 20e-3))
    blown = np.cbrt(h**3 + (NATURAL["top"] * LOSS) ** 3)
    quiet = np.full_like(x, NATURAL["bottom"] * LOSS)
    top, bottom = z > THICKNESS - thin, z < thin
    loss = (top * (blown * half(blown) + radiation) + bottom * (quiet * half(quiet) + radiation)) / thin
    gain = top * h * gas * half(blown) / thin
    t = CellVariable(mesh=mesh, value=0.0, hasOld=True)
    upright = np.abs(mesh.faceNormals[2]) > 0.5
    k = FaceVariable(mesh=mesh, value=np.where(upright, THROUGH, IN_PLANE))
    equation = TransientTerm(CAPACITY) == DiffusionTerm(coeff=k) + CellVariable(mesh=mesh, value=gain) - ImplicitSourceTerm(
        coeff=CellVariable(mesh=mesh, value=loss)
    )
    solver = LinearPCGSolver(tolerance=1e-12, iterations=2000)
    for _ in range(round(SECONDS / step)):
        t.updateOld()
        equation.solve(var=t, dt=step, solver=solver)
    at = lambda layer: t.value[(layer * SIDE + 20) * SIDE + 15]
    return np.array([at(LAYERS - 1), at(0)])


coarse, fine = run(0.5), run(0.25)
found = 2 * fine - coarse
for name, value in zip(OURS, found):
    print(f"{name:6}: FiPy {value:.3f} K, ours {OURS[name]:.2f} K, difference {OURS[name] - value:+.3f} K")
