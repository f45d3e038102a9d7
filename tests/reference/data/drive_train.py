"""Working points of drives by SciPy, from the formulas stated here and nothing of the project's code.

Direct-current motor: I = (V - n * 60 / KV) / R, torque kT * (I - I0) with kT = 60 / (2 pi KV).
Propeller: torque CP * rho * n^2 * D^5 / (2 pi), thrust CT * rho * n^2 * D^4, rho 1.225 kg/m^3 (ISO 2533);
CT = 0.07 + 0.06 p / D, CP = 0.018 + 0.045 p / D standing (from memory, +-20 %), in flight CT * (1 - J / J0) and
CP * (1 - 0.85 (J / J0)^2) with J = v / (n D), J0 = 1.15 p / D. The speed controller passes 95 %.

Usage: python3 drive_train.py > drive_train.json (SciPy 1.10)
"""
import json, math
from scipy.optimize import brentq

rho = 1.225
rows = []
for kv, ohm, idle_a, diameter, pitch, volts, lead_ohm in [
    (1000, 0.09, 0.6, 0.2286, 0.127, 11.1, 0.02), (2300, 0.06, 0.9, 0.127, 0.1016, 14.8, 0.015),
    (550, 0.045, 1.1, 0.3302, 0.2032, 14.8, 0.01), (1450, 0.15, 0.4, 0.1778, 0.1016, 7.4, 0.04)]:
    ct, cp = 0.07 + 0.06 * pitch / diameter, 0.018 + 0.045 * pitch / diameter
    kt = 60 / (2 * math.pi * kv)
    amps = lambda n, r: (volts - n * 60 / kv) / r
    surplus = lambda n: kt * (amps(n, ohm + lead_ohm) - idle_a) - cp * rho * n * n * diameter**5 / (2 * math.pi)
    n = brentq(surplus, 1e-6, volts * kv / 60, xtol=1e-12)
    row = dict(rpm_per_v=kv, ohm=ohm, no_load_a=idle_a, diameter_m=diameter, pitch_m=pitch, volts=volts,
               lead_ohm=lead_ohm, rev_s=n, amps=amps(n, ohm + lead_ohm), thrust_n=ct * rho * n * n * diameter**4)
    v, thrust = 0.55 * 1.15 * pitch * n, 0.25 * row["thrust_n"]
    j0 = 1.15 * pitch / diameter
    pull = lambda m: ct * (1 - v / (m * diameter) / j0) * rho * m * m * diameter**4 - thrust
    m = brentq(pull, v / (j0 * diameter), 10 * n, xtol=1e-12)
    shaft_w = cp * (1 - 0.85 * (v / (m * diameter) / j0) ** 2) * rho * m**3 * diameter**5
    motor_a = shaft_w / (2 * math.pi * m) / kt + idle_a
    row.update(v_m_s=v, pull_n=thrust, flight_a=motor_a * (m * 60 / kv + motor_a * ohm) / (0.95 * volts))
    rows.append(row)
print(json.dumps(rows, indent=1))
