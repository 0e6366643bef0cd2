"""The remote vacuum unit over time as motion.ts has it, written straightforwardly for SciPy's solve_ivp (RK45, same
tolerance, output at 1 kHz): four pulls and let-downs. Prints seconds taken and seconds of bench time."""

import json
import math
import time

import numpy as np
from scipy.integrate import solve_ivp

PATM, T = 101325.0, 293.15
RHO, R, T0, B, LIN = 1.185, 288.0, 293.15, 0.5, 0.98
AT = math.sqrt(1 - ((LIN - B) / (1 - B)) ** 2)
AD, AS, AR = math.pi / 4 * 0.23**2, math.pi / 4 * 0.0206**2, math.pi / 4 * 0.006**2
SPRING, BOOST, CRACK = 110.0, 3.6, 3e5
JUMP, HYST = (BOOST - 1) * CRACK, 0.0375
K = 1 - AR / AS
V = 4e-3
VV, VW = 0.65 * V, 0.35 * V
BAND = AD / AS * (PATM / 0.25) / 150
VALVE = VW / (0.25 * RHO * R * 293.15)
AIR, STIFF = 5e-8, 1.2e-13
FLOOR, SPEED, TANK = PATM - 20 * 3386.389, 4e-3, 0.02


def flow(c, up, down):
    r = down / up
    if r >= 1:
        return 0.0
    choked = c * up * RHO * R * math.sqrt(T0 * T)
    if r <= B:
        return choked
    if r > LIN:
        return choked * AT * (1 - r) / (1 - LIN)
    return choked * math.sqrt(1 - ((r - B) / (1 - B)) ** 2)


def both(c, a, b):
    return flow(c, a, b) if a >= b else -flow(c, b, a)


def rates(t, y, start, target, pull, at):
    vac, work, travel, inp, out, felt, tank = y
    travel = max(0.0, travel)
    way = target - start
    handle = start + math.copysign(min(abs(way), pull * (t - at)), way)
    applied = min(1.0, travel / 2e-4)
    give = AIR * PATM / (PATM + out) ** 2 + STIFF
    rod = (work - vac) * AD - SPRING
    off = rod / AS + K * inp - out
    gain = min(1e-10, give / 4e-3)
    held = applied if off < 0 else min(1.0, max(0.0, rod / 10))
    pushed = off * gain * held
    speed = pushed / AS
    pgain = min(6e-11, give / 5e-3)
    if inp > out:
        passed = (inp - out) * pgain
    elif out > inp and out > 0:
        passed = -(out - inp) * pgain * (1 - applied)
    else:
        passed = 0.0
    dout = (pushed + passed) / give
    din = (handle - inp) / 8e-3
    shift = JUMP - (BOOST - 1) * CRACK
    line = max(0.0, BOOST * inp + shift) * (1 + HYST)
    late = max(inp, min((line - shift) / BOOST, inp * (1 + HYST) + CRACK))
    dfelt = ((inp - felt) if inp > felt else (late - felt) if late < felt else 0.0) / 8e-3
    asked = felt + JUMP + (BOOST - 1) * (felt - CRACK) if felt >= CRACK else 0.0
    lacking = (asked - out) / BAND
    air = min(1.0, max(0.0, lacking)) if asked > 0 else 0.0
    join = VALVE * min(1.0, max(0.0, -lacking)) if asked > 0 else 3e-7
    let_in = both(VALVE * air, PATM, work) if air > 0 else 0.0
    joined = both(join, work, vac) if join > 0 else 0.0
    drawn = flow(1e-7, vac, tank) if vac >= tank else 0.0
    sweep = AD * speed
    vv, vw = max(0.2 * VV, VV - AD * travel), VW + AD * travel
    return [
        (joined - drawn + vac * sweep) / vv,
        (let_in - joined - work * sweep) / vw,
        speed,
        din,
        dout,
        dfelt,
        (drawn - SPEED * max(0.0, tank - FLOOR)) / TANK,
    ]


y = np.array([PATM, PATM, 0, 0, 0, 0, FLOOR])
scale = np.array([1e3, 1e3, 1e-4, 1e5, 1e5, 1e5, 1e3])
begin, bench = time.perf_counter(), 0.0
handle = 0.0
for i in range(4):
    for target in (35e5, 0.0):
        grid = np.arange(bench, bench + 6, 1e-3)
        sol = solve_ivp(
            rates, (bench, bench + 6), y, t_eval=grid, rtol=1e-5, atol=1e-5 * scale, max_step=0.05,
            args=(handle, target, 8e5, bench),
        )
        y = sol.y[:, -1]
        handle = target
        bench += 6
print(json.dumps({"seconds": time.perf_counter() - begin, "bench_s": bench}))
