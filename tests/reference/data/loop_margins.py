#!/usr/bin/env python3
"""Margins of random loops by SciPy (1.10), independent of the program: crossings of the exact frequency response by
brentq, stability by the poles with a Padé approximation of twelfth order for the delay. Writes loop_margins.json."""
import json
import random
from math import factorial

import numpy as np
import numpy.polynomial.polynomial as P
from scipy.optimize import brentq

random.seed(14)


def parts(case):
    plant, servo, law = case["plant"], case.get("servo", {}), case["law"]
    a = [-plant["lp_per_s"], 1]
    if "lag_s" in servo:
        c = [1, servo["lag_s"]]
    elif servo:
        w = 2 * np.pi * servo["natural_hz"]
        c = [1, 2 * servo["damping"] / w, 1 / w**2]
    else:
        c = [1]
    f = [1, 1 / (2 * np.pi * case["lowpass_hz"])] if "lowpass_hz" in case else [1, 0]
    return a, c, f, law.get("level_per_s", 0)


def open_loop(case, w):
    """Per rate gain of 1."""
    a, c, f, level = parts(case)
    s = 1j * w
    rate = 1 / P.polyval(s, f)
    return case["plant"]["ldelta_per_s2"] / (P.polyval(s, a) * P.polyval(s, c)) * (rate + level / s) * np.exp(-s * case["delay_s"])


def rightmost(case, gain, n=12):
    a, c, f, level = parts(case)
    t = case["delay_s"]
    pade = [factorial(2 * n - j) * factorial(n) / (factorial(2 * n) * factorial(j) * factorial(n - j)) for j in range(n + 1)]
    num = [p * (-t) ** j for j, p in enumerate(pade)]
    den = [p * t**j for j, p in enumerate(pade)]
    d = P.polymul(P.polymul(a, c), P.polymul(f, den))
    m = P.polymul([case["plant"]["ldelta_per_s2"]], num)
    if level:
        d, m = P.polymul(d, [0, 1]), P.polymul(m, P.polyadd([0, 1], [level * x for x in f]))
    return max(P.polyroots(P.polyadd(d, [gain * x for x in m])).real)


def answer(case):
    w = np.geomspace(1e-3, 1e3, 200000)
    l = open_loop(case, w)
    phase = np.unwrap(np.angle(l))
    phase -= 2 * np.pi * round((phase[0] + np.pi / 4) / (2 * np.pi))
    at = np.where((phase[:-1] > -np.pi) & (phase[1:] <= -np.pi))[0][0]
    imaginary = lambda x: open_loop(case, x).imag
    crossing = brentq(imaginary, w[at], w[at + 1], xtol=1e-12)
    gain = 1 / abs(open_loop(case, crossing))
    k = case["law"]["rate_gain"]
    result = {"stable": bool(rightmost(case, k) < 0), "shakes_at_rate_gain": gain, "shakes_at_hz": crossing / 2 / np.pi,
              "gain_margin_db": 20 * np.log10(gain / k), "phase_margin_deg": None, "crossover_hz": None}
    over = np.where((k * abs(l[:-1]) > 1) & (k * abs(l[1:]) <= 1))[0]
    if len(over):
        i = over[-1]
        c = brentq(lambda x: np.log(k * abs(open_loop(case, x))), w[i], w[i + 1], xtol=1e-12)
        result["crossover_hz"] = c / 2 / np.pi
        result["phase_margin_deg"] = 180 + np.degrees(np.interp(c, w, phase))
    return result


cases = []
while len(cases) < 40:
    case = {"plant": {"lp_per_s": -round(random.uniform(1, 25), 3), "ldelta_per_s2": round(10 ** random.uniform(0.5, 3), 3)},
            "delay_s": round(random.uniform(0.004, 0.05), 4), "law": {"rate_gain": round(10 ** random.uniform(-2.5, 0), 5)}}
    if random.random() < 0.4:
        case["servo"] = {"lag_s": round(random.uniform(0.01, 0.1), 4)}
    elif random.random() < 0.9:
        case["servo"] = {"natural_hz": round(random.uniform(4, 14), 2), "damping": round(random.uniform(0.5, 1.1), 2)}
    if random.random() < 0.6:
        case["lowpass_hz"] = round(random.uniform(8, 80), 1)
    if random.random() < 0.5:
        case["law"]["level_per_s"] = round(random.uniform(0.5, 6), 2)
    expected = answer(case)
    if abs(expected["gain_margin_db"]) > 0.3:  # not on the edge, where Padé decides
        cases.append({"case": case, "answer": expected})
json.dump(cases, open("loop_margins.json", "w"), indent=1)
