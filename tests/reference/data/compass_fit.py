"""Readings of a compass among iron, and what SciPy's least_squares makes of them (run with python3-scipy 1.10).

Writes compass-readings.csv beside itself and prints offset and matrix for worked values in senses_reference_test.cpp.
The residuals are those of core/senses/sphere_fit.h: |matrix (reading - offset)| - 48, matrix symmetric.
"""
import pathlib
import sys
import time

import numpy as np
from scipy.optimize import least_squares

FIELD = 48.0


def readings(n, seed):
    rng = np.random.default_rng(seed)
    u = rng.normal(size=(n, 3))
    u /= np.linalg.norm(u, axis=1)[:, None]
    soft = np.array([[1.05, 0.03, -0.02], [0.03, 0.94, 0.04], [-0.02, 0.04, 1.01]])
    return u * FIELD @ soft.T + [12.0, -31.0, 7.5] + rng.normal(0, 0.4, (n, 3))


def residuals(x, raw):
    m = np.array([[x[3], x[6], x[7]], [x[6], x[4], x[8]], [x[7], x[8], x[5]]])
    return np.linalg.norm((raw - x[:3]) @ m, axis=1) - FIELD


def jacobian(x, raw):
    m = np.array([[x[3], x[6], x[7]], [x[6], x[4], x[8]], [x[7], x[8], x[5]]])
    d = raw - x[:3]
    v = d @ m
    u = v / np.linalg.norm(v, axis=1)[:, None]
    j = np.empty((len(raw), 9))
    j[:, :3] = -(u @ m)
    j[:, 3:6] = u * d
    for k, (a, b) in enumerate(((0, 1), (0, 2), (1, 2))):
        j[:, 6 + k] = u[:, a] * d[:, b] + u[:, b] * d[:, a]
    return j


def fit(raw, jac="2-point"):
    start = np.r_[raw.mean(axis=0), 1, 1, 1, 0, 0, 0]
    return least_squares(residuals, start, jac=jac, args=(raw,), xtol=1e-12, ftol=1e-12)


if __name__ == "__main__":
    raw = readings(400, 1)
    with open(pathlib.Path(__file__).with_name("compass-readings.csv"), "w") as out:
        out.write("t_s,mx,my,mz\n")
        for i, row in enumerate(raw):
            out.write("%.2f,%.3f,%.3f,%.3f\n" % (i / 100, *row))
    print(repr(fit(np.round(raw, 3)).x))
    if "--time" in sys.argv:
        many = readings(20000, 2)
        for name, jac in (("2-point", "2-point"), ("analytic", jacobian)):
            times = []
            for _ in range(7):
                began = time.perf_counter()
                fit(many, jac)
                times.append(time.perf_counter() - began)
            print(name, "median of 7:", sorted(times)[3] * 1000, "ms")
