#!/usr/bin/python3
"""The solver's modes against scipy on random formulas: bands first and cheapest (HiGHS), few products (HiGHS milp), the
best fit with few products (all subsets by lsq_linear bvls), shared stocks (least_squares from many starts).
Usage: modes.py BUTTE_CLI. Fails on any disagreement; prints how many it compared."""
import itertools
import json
import random
import subprocess
import sys

import numpy as np
from scipy.optimize import LinearConstraint, Bounds, least_squares, linprog, lsq_linear, milp

cli = sys.argv[1]
FORMULAS = ["KNO3", "Ca(NO3)2·4H2O", "KH2PO4", "MgSO4·7H2O", "K2SO4", "NH4NO3", "NH4H2PO4", "KCl", "Mg(NO3)2·6H2O",
            "(NH4)2SO4", "CaCl2·2H2O"]
KEYS = ["N", "P", "K", "Ca", "Mg", "S", "Cl", "N_NH4"]
USUAL = {"N": 180, "P": 40, "K": 220, "Ca": 150, "Mg": 35, "S": 60, "Cl": 20, "N_NH4": 15}
bad = 0
compared = {"violation": 0, "cost": 0, "fewest": 0, "few fit": 0, "shared": 0}


def run(verb, given):
    return subprocess.run([cli, verb], input=json.dumps(given), capture_output=True, text=True)


def fail(*words):
    global bad
    bad += 1
    print("DISAGREES:", *words)


comp = {f: json.loads(subprocess.run([cli, "composition", f], capture_output=True, text=True).stdout)["mass_fraction"]
        for f in FORMULAS}
random.seed(11)
for t in range(120):
    shelf = random.sample(FORMULAS, random.randint(4, 8))
    if t % 3 == 0:  # degenerate: the same salt in two or three bags
        shelf += random.choices(shelf, k=random.randint(1, 2))
    ids = [f"{f} bag {i}" for i, f in enumerate(shelf)]
    target = {k: round(random.uniform(.5, 1.3) * USUAL[k], 1) for k in random.sample(KEYS, random.randint(3, 6))}
    tol = random.choice([0, 2, 5, 10])
    prices = [round(random.uniform(.4, 3), 2) for _ in shelf]
    A = np.array([[1000 * comp[f][k] for f in shelf] for k in target])
    b = np.array(list(target.values()))
    n, m = len(shelf), len(b)
    base = {"products": [{"id": i, "formula": f, "price_per_kg": p} for i, f, p in zip(ids, shelf, prices)],
            "target_mg_per_l": target, "tolerance_percent": {"default": tol}}
    # Least violation, as a linear program with a slack for every row.
    G = np.block([[A, -np.eye(m)], [-A, -np.eye(m)]])
    h = np.concatenate([b * (1 + tol / 100), -b * (1 - tol / 100)])
    c = np.concatenate([np.zeros(n), 1 / b])
    least = linprog(c, A_ub=G, b_ub=h, method="highs").fun
    out = json.loads(run("solve", {**base, "require": "bands_first"}).stdout)
    compared["violation"] += 1
    if abs(out["violation"] - least) > 1e-6 * (1 + least):  # bands are kept a hair of 1e-7 inside
        fail("violation", t, out["violation"], least)
    # HiGHS keeps limits to 1e-7 only, so costs are compared to 3e-5 here and to 1e-7 in limits.py.
    # The least cost within the least violation, then the fewest products: two mixed-integer programs.
    big = 10
    z = np.concatenate([np.zeros(n + m), np.ones(n)])
    switch = np.hstack([np.eye(n), np.zeros((n, m)), -big * np.eye(n)])
    rows = [LinearConstraint(np.hstack([G, np.zeros((2 * m, n))]), ub=h), LinearConstraint(switch, ub=0),
            LinearConstraint(np.concatenate([c, np.zeros(n)]), ub=least + 1e-9 * (1 + least))]
    bounds = Bounds(np.zeros(2 * n + m), np.concatenate([np.full(n + m, np.inf), np.ones(n)]))
    whole = np.concatenate([np.zeros(n + m), np.ones(n)])
    cost = np.concatenate([np.array(prices) / 1000, np.zeros(n + m)])
    cheap = milp(cost, constraints=rows, bounds=bounds, integrality=whole, options={"mip_rel_gap": 0})
    if cheap.status == 0:
        out = json.loads(run("solve", {**base, "objective": "cheapest", "fewest_products": True}).stdout)
        compared["cost"] += 1
        if abs(out["cost"] - cheap.fun) > 3e-5 * cheap.fun:
            fail("cost", t, out["cost"], cheap.fun)
    few = milp(z, constraints=rows, bounds=bounds, integrality=whole, options={"mip_rel_gap": 0})
    if few.status == 0:
        out = json.loads(run("solve", {**base, "require": "bands_first", "fewest_products": True}).stdout)
        compared["fewest"] += 1
        count = sum(g > 0 for g in out["weights_g"].values())
        if count > round(few.fun) or out["violation"] > least + 1e-6 * (1 + least):
            fail("fewest", t, count, few.fun, out["violation"], least)
    # The best fit with at most three products: every subset tried.
    best = min(lsq_linear(A[:, list(s)] / b[:, None], np.ones(m), (0, np.inf), method="bvls", tol=1e-14).cost
               for s in itertools.combinations(range(n), 3))
    out = json.loads(run("solve", {**base, "at_most_products": 3}).stdout)
    x = np.array([out["weights_g"][i] for i in ids])
    compared["few fit"] += 1
    if (x > 0).sum() > 3 or abs(0.5 * (((A @ x - b) / b) ** 2).sum() - best) > 1e-8 * (1 + best):
        fail("few fit", t, 0.5 * (((A @ x - b) / b) ** 2).sum(), best)

for t in range(8):
    shelf = random.sample(FORMULAS, 6)
    keys = ["N", "P", "K", "Ca", "Mg"]
    crops = [{"name": str(k), "target_mg_per_l": {e: round(random.uniform(.4, 1.4) * USUAL[e], 1) for e in keys}}
             for k in range(3)]
    given = {"products": [{"id": f, "formula": f} for f in shelf], "crops": crops, "corrections": False}
    out = json.loads(run("solve", given).stdout)
    A = np.array([[1000 * comp[f][k] for f in shelf] for k in keys])
    T = np.array([list(c["target_mg_per_l"].values()) for c in crops])

    def misses(p):
        return np.concatenate([(p[6 + k] * (A @ p[:6]) - T[k]) / T[k] for k in range(3)])

    rng = np.random.default_rng(t)
    best = min(2 * least_squares(misses, np.concatenate([rng.uniform(0, 1, 6), rng.uniform(.3, 1.2, 3)]),
                                 bounds=(0, np.inf), xtol=1e-14, ftol=1e-14, gtol=1e-14).cost for _ in range(25))
    ours = sum(c["misfit"] for c in out["crops"])
    compared["shared"] += 1
    if ours > best * (1 + 1e-6) + 1e-9:
        fail("shared", t, ours, best)
print(compared)
sys.exit(1 if bad else 0)
