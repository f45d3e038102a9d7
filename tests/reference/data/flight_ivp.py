#!/usr/bin/env python3
"""The equations of motion of a rigid aeroplane (Etkin, Dynamics of Flight; coefficients after Nelson) by SciPy 1.10's
solve_ivp, written from the books and not from the program: flat earth, air forces linear in the derivatives, the
downwash lag with the true rate of the angle of attack, a parabolic polar, far from the stall. Writes flight_ivp.json;
with --time it tells how many seconds of flight it solves in a second."""
import json
import sys
import time

import numpy as np
from scipy.integrate import solve_ivp

P = dict(mass=1.6, area=0.36, span=1.7, chord=0.215, cruise=13.0, ix=0.14, iy=0.11, iz=0.22, ixz=0.012,
         cla=4.9, cma=-0.7, clq=6.0, cmq=-9.0, cmadot=-2.5, cyb=-0.3, clb=-0.08, clb_lift=-0.05, cnb=0.06, cyp=0.02,
         clp=-0.48, cnp_lift=-0.125, cnp=0.01, cyr=0.15, clr=0.02, clr_lift=0.25, cnr=-0.09,
         parasite=0.014, induced=0.14, static=9.0, free=28.0)
RHO, G = 1.225, 9.80665
CL0 = P["mass"] * G / (0.5 * RHO * P["cruise"] ** 2 * P["area"])
CD0, K = P["parasite"] / P["area"], P["induced"] * P["area"]
CONTROL = dict(lift=0.01, side=-0.01, roll=0.004, pitch=0.006, yaw=0.002)
THROTTLE, WIND = 0.6, np.array([-2.0, 1.5, 0.3])


def matrix(q):
    a, b, c, d = q
    return np.array([[a * a + b * b - c * c - d * d, 2 * (b * c - a * d), 2 * (b * d + a * c)],
                     [2 * (b * c + a * d), a * a - b * b + c * c - d * d, 2 * (c * d - a * b)],
                     [2 * (b * d - a * c), 2 * (c * d + a * b), a * a - b * b - c * c + d * d]])


def rates(_, y):
    velocity, q, omega = y[3:6], y[6:10], y[10:13]
    R = matrix(q)
    u, v, w = velocity - R.T @ WIND
    V = np.sqrt(u * u + v * v + w * w)
    alpha, beta = np.arctan2(w, u), np.arcsin(v / V)
    Q = 0.5 * RHO * V * V * P["area"]
    p, qq, r = omega * np.array([P["span"], P["chord"], P["span"]]) / (2 * V)
    still = CL0 + P["cla"] * alpha
    CL = still + P["clq"] * qq + CONTROL["lift"]
    CD = CD0 + K * CL * CL
    CY = P["cyb"] * beta + P["cyp"] * p + P["cyr"] * r + CONTROL["side"]
    free = P["free"] * THROTTLE
    thrust = THROTTLE**2 * P["static"] * max(0, 1 - (u / free) ** 2)
    force = Q * np.array([-CD * np.cos(alpha) + CL * np.sin(alpha), CY, -CD * np.sin(alpha) - CL * np.cos(alpha)])
    force[0] += thrust
    accel = force / P["mass"] + R.T @ np.array([0, 0, G])
    air = accel - np.cross(omega, np.array([u, v, w]))
    alpha_rate = (air[2] * u - air[0] * w) / (u * u + w * w)
    roll = (P["clb"] + P["clb_lift"] * still) * beta + P["clp"] * p + (P["clr"] + P["clr_lift"] * still) * r + CONTROL["roll"]
    pitch = P["cma"] * np.sin(alpha) + P["cmq"] * qq + P["cmadot"] * alpha_rate * P["chord"] / (2 * V) + CONTROL["pitch"]
    yaw = P["cnb"] * beta + (P["cnp"] + P["cnp_lift"] * still) * p + P["cnr"] * r + CONTROL["yaw"]
    moment = Q * np.array([roll * P["span"], pitch * P["chord"], yaw * P["span"]])
    I = np.array([[P["ix"], 0, -P["ixz"]], [0, P["iy"], 0], [-P["ixz"], 0, P["iz"]]])
    spin = np.linalg.solve(I, moment - np.cross(omega, I @ omega))
    a, b, c, d = q
    o = omega
    quat = 0.5 * np.array([-b * o[0] - c * o[1] - d * o[2], a * o[0] + c * o[2] - d * o[1],
                           a * o[1] - b * o[2] + d * o[0], a * o[2] + b * o[1] - c * o[0]])
    return np.concatenate([R @ velocity, accel - np.cross(omega, velocity), quat, spin])


start = np.zeros(13)
start[2], start[3:6], start[6] = -100, [13.0, 0.4, 0.5], 1
start[10:13] = [0.3, -0.1, 0.2]
if "--time" in sys.argv:
    begin = time.perf_counter()
    solve_ivp(rates, (0, 20), start, method="RK45", max_step=1e-3 if "--fine" in sys.argv else np.inf, rtol=1e-6, atol=1e-8)
    print(20 / (time.perf_counter() - begin), "seconds of flight in a second")
    sys.exit()
times = [0.5, 1, 2, 4, 6]
solution = solve_ivp(rates, (0, 6), start, method="DOP853", t_eval=times, rtol=1e-11, atol=1e-12)
json.dump({"parameters": P, "control": CONTROL, "throttle": THROTTLE, "wind": list(WIND), "start": list(start),
           "times_s": times, "states": solution.y.T.tolist()}, open("flight_ivp.json", "w"), indent=1)
