"""Supply networks solved by SciPy: battery with its own resistance, meshes of copper, a linear regulator between.

Nodal analysis: Kirchhoff's current law at every node, solved by scipy.linalg.solve; the regulator holds
its outlet at 5 V and takes in at its inlet what it gives. Copper: ASTM B258, d = 0.127 mm * 92^((36 - n) / 39), at 20 C
with the resistivity of the international annealed copper standard, 1/58 ohm mm2/m. Networks are drawn at random.

    python3 networks.py > networks.json
"""

import json

import numpy as np
from scipy.linalg import solve as solve_linear

rng = np.random.default_rng(20261201)


def copper_ohm_per_m(awg):
    d_mm = 0.127 * 92 ** ((36 - awg) / 39)
    return (1 / 58) / (np.pi * d_mm**2 / 4)


def draw_case():
    on_battery, on_five = int(rng.integers(2, 5)), int(rng.integers(3, 9))
    cells = int(rng.integers(2, 5))
    case = {
        "emf_v": 4.2 * cells,
        "inside_ohm": round(float(rng.uniform(0.01, 0.06)), 4),
        "rail_of": [0] * on_battery + [1] * on_five,
        "wires": [],
        "draws": [],
        "inlet": int(rng.integers(0, on_battery)),
        "outlet": on_battery,
    }

    def wire(a, b):
        awg, length = int(rng.choice([20, 22, 24, 26, 28])), round(float(rng.uniform(0.05, 0.8)), 3)
        case["wires"].append({"a": a, "b": b, "awg": awg, "length_m": length})

    for first, count in ((0, on_battery), (on_battery, on_five)):
        for i in range(1, count):
            wire(first + int(rng.integers(0, i)), first + i)
        for _ in range(int(rng.integers(0, 3))):  # second ways: meshes
            a, b = rng.choice(count, 2, replace=False)
            wire(first + int(a), first + int(b))
    for node in range(1, on_battery + on_five):
        if rng.random() < 0.7:
            case["draws"].append({"node": node, "amps": round(float(rng.uniform(0.02, 1.2)), 3)})
    return case


def solve(case):
    n, battery = len(case["rail_of"]), 0
    outlet, inlet = case["outlet"], case["inlet"]

    def residual(x):
        v, from_battery, through = x[:n], x[n], x[n + 1]
        out = np.zeros(n + 2)
        for w in case["wires"]:
            i = (v[w["a"]] - v[w["b"]]) / (2 * copper_ohm_per_m(w["awg"]) * w["length_m"])
            out[w["a"]] += i
            out[w["b"]] -= i
        for d in case["draws"]:
            out[d["node"]] += d["amps"]
        out[battery] -= from_battery
        out[inlet] += through
        out[outlet] -= through
        out[n] = v[battery] - (case["emf_v"] - case["inside_ohm"] * from_battery)
        out[n + 1] = v[outlet] - 5
        return out

    # The equations are linear: their matrix is what they make of each unknown by itself.
    rest = residual(np.zeros(n + 2))
    matrix = np.column_stack([residual(unit) - rest for unit in np.eye(n + 2)])
    x = solve_linear(matrix, -rest)
    assert np.max(np.abs(residual(x))) < 1e-8
    return x[:n].tolist(), float(x[n]), float(x[n + 1])


cases = []
while len(cases) < 24:
    case = draw_case()
    volts, amps, through = solve(case)
    if volts[case["inlet"]] < 5.5:  # a regulator needs something to spare
        continue
    case["expected"] = {"volts": volts, "battery_a": amps, "regulator_a": through}
    cases.append(case)
print(json.dumps({"made_by": "networks.py", "cases": cases}, indent=1))
