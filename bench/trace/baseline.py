"""The same work as ours.ts, written straightforwardly with pandas and SciPy: read the log, find what the handle did,
fit each pull and let-down (free knee), each hold, each fall of the vacuum, the split of rear against front, the
reserve. `python3 bench/trace/baseline.py FILE` (Debian: python3-pandas, python3-scipy)."""

import json
import resource
import sys
import time

import numpy as np
import pandas as pd
from scipy.optimize import curve_fit
from scipy.signal import medfilt

BAROMETER = 101325.0
VOLUME = 4e-3
GAS = 1.185 * 288.0 * 293.15
SLAVE, ROD, SPRING = np.pi / 4 * 0.0206**2, np.pi / 4 * 0.006**2, 110.0

start = time.perf_counter()
data = pd.read_csv(sys.argv[1])
t = data["Time [s]"].to_numpy()
x = data["Input [bar]"].to_numpy() * 1e5
y = data["Output [bar]"].to_numpy() * 1e5
supply = data["Supply [kPa]"].to_numpy() * 1e3
activation = data["Activation [kPa]"].to_numpy() * 1e3
front = data["Front [bar]"].to_numpy() * 1e5
rear = data["Rear [bar]"].to_numpy() * 1e5
read = time.perf_counter()


def clean(values):
    return medfilt(values, 3)


x, y, supply, activation, front, rear = map(clean, (x, y, supply, activation, front, rear))


def segments(values):
    """Rest, apply, hold, release by the slope of block means."""
    block = 50
    n = len(values) // block
    means = values[: n * block].reshape(n, block).mean(axis=1)
    slope = np.gradient(means, block * 1e-3)
    span = means.max() - means.min()
    state = np.where(slope > 0.02 * span, 1, np.where(slope < -0.02 * span, -1, 0))
    cuts = np.flatnonzero(np.diff(state)) + 1
    edges = np.concatenate([[0], cuts, [n]])
    found = []
    for a, b in zip(edges[:-1], edges[1:]):
        if b - a < 6:
            continue
        kind = {1: "apply", -1: "release", 0: "rest" if means[a:b].mean() < 0.05 * span else "hold"}[state[a]]
        found.append((kind, a * block, b * block, means[a], means[b - 1]))
    return found, span


def kinked(x, a, b, knee, d):
    return a + b * x + d * np.maximum(0, x - knee)


def fit_kinked(px, py):
    guess = [0, 1, np.median(px), 0]
    best, covariance = curve_fit(kinked, px, py, p0=guess, maxfev=4000)
    return best, np.sqrt(np.diag(covariance))


def settle(t, p, rate, drop, tau):
    return p + rate * t + drop * np.exp(-t / np.abs(tau))


def decay(t, start, rate):
    b = 0.5
    r = 1 - start / BAROMETER
    s = abs(rate) / BAROMETER
    choked = max(0.0, (b - r) / s) if s > 0 else np.inf
    linear = start - abs(rate) * t
    angle0 = np.arcsin(np.clip((r - b) / (1 - b), 0, 1))
    angle = np.minimum(np.pi / 2, angle0 + s * (t - choked) / (1 - b))
    return np.where(t <= choked, linear, BAROMETER * (1 - (b + (1 - b) * np.sin(angle))))


found, span = segments(x)
told = 0
curves = {}
for i, (kind, a, b, first, last) in enumerate(found):
    if kind in ("apply", "release") and abs(last - first) > 0.3 * span:
        px, py = x[a:b], y[a:b]
        off = py - px > np.maximum(0.15 * px, 0.01 * span)
        if off.mean() < 0.2:
            slope, covariance = np.polyfit(px, py, 1, cov=True)
            told += 2
            continue
        crack = px[off].min()
        above = px > crack + 0.04 * span
        best, errors = fit_kinked(px[above], py[above])
        curves[kind] = best
        told += 6 if kind == "apply" else 2
        full = activation[a:b] < 0.03 * supply[a:b].max()
        if kind == "apply" and full.sum() > 50:
            area = (py[full] * SLAVE - px[full] * (SLAVE - ROD) + SPRING) / supply[a:b][full]
            area.mean(), area.std()
            told += 1
    if kind == "hold" and t[b - 1] - t[a] > 10:
        ht, hp = t[a + 1000 : b] - t[a + 1000], y[a + 1000 : b]
        try:
            curve_fit(settle, ht, hp, p0=[hp[-1], -1e3, 1e4, 5], maxfev=4000)
            told += 1
        except RuntimeError:
            pass
    if kind in ("rest", "hold") and t[b - 1] - t[a] > 15:
        top = a + int(np.argmax(supply[a:b]))
        if supply[top] - supply[b - 1] > 500 and t[b - 1] - t[top] > 15:
            vt, vp = t[top:b] - t[top], supply[top:b]
            curve_fit(decay, vt, vp, p0=[vp[0], 20.0])
            told += 3

for kind, a, b, first, last in segments(front)[0]:
    if kind == "apply" and last - first > 0.3 * front.max():
        fit_kinked(front[a:b], rear[a:b])
        told += 3

applications = [s for s in found if s[0] == "apply"]
levels = [supply[max(0, s[1] - 5) : s[1] + 1].mean() for s in applications]
assisted = sum(y[s[1] : s[2]].max() > 1.1 * x[s[1] : s[2]].max() for s in applications[-20:])
told += 1
done = time.perf_counter()
print(
    json.dumps(
        {
            "rows": len(t),
            "read_s": read - start,
            "analyse_s": done - read,
            "segments": len(found),
            "told": told,
            "peakMB": resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024,
        }
    )
)
