#!/usr/bin/python3
"""A tank's balance against scipy: dm/dt = -U - k m / V integrated step by step (solve_ivp, DOP853), with the moment at
which an element runs out found as an event, on random tanks: rain, drain, refills daily, below a mark and never.
Usage: balance.py BUTTE_CLI. Fails where they part by more than 1e-6; prints how many figures it compared."""
import json
import random
import subprocess
import sys

import numpy as np
from scipy.integrate import solve_ivp

cli = sys.argv[1]
# IUPAC 2021 abridged; charges as the script's manual words them: phosphorus one, sulfur two.
MASS = {"N_NO3": 14.007, "N_NH4": 14.007, "P": 30.974, "K": 39.098, "Ca": 40.078, "Mg": 24.305, "S": 32.06,
        "Na": 22.990, "Cl": 35.45}
CHARGE = {"N_NO3": -1, "N_NH4": 1, "P": -1, "K": 1, "Ca": 2, "Mg": 2, "S": -2, "Na": 1, "Cl": -1}
KEYS = list(MASS)
random.seed(24)
compared = bad = 0
worst = 0.0


def one_day(volume, mmol, alkalinity, t, e, r, d, fixed, share):
    """Amounts after a day; each element's uptake stops where it is gone."""
    gone = set(k for k in KEYS if mmol[k] <= 0)
    y = np.array([volume, alkalinity] + [mmol[k] for k in KEYS])
    now = 0.0

    def rates(_, y):
        v = y[0]
        out = np.zeros_like(y)
        out[0] = r - t - e - d
        out[1] = -d * y[1] / v
        for i, k in enumerate(KEYS):
            m = y[2 + i]
            taken = t * share.get(k, 0) * m / v + (0 if k in gone else t * fixed.get(k, 0))
            out[2 + i] = -taken - d * m / v
            out[1] -= CHARGE[k] * taken
        return out

    while now < 1 - 1e-14:
        events = []
        for i, k in enumerate(KEYS):
            if k in gone or fixed.get(k, 0) == 0:
                continue
            def empty(_, y, i=i):
                return y[2 + i]
            empty.terminal, empty.direction = True, -1
            events.append((k, empty))
        s = solve_ivp(rates, (now, 1), y, method="DOP853", rtol=1e-12, atol=1e-12, events=[e for _, e in events])
        y, now = s.y[:, -1].copy(), s.t[-1]
        for (k, _), hits in zip(events, s.t_events):
            if len(hits):
                gone.add(k)
                y[2 + KEYS.index(k)] = 0
    return y[0], {k: y[2 + i] for i, k in enumerate(KEYS)}, y[1]


for case in range(40):
    full = random.uniform(50, 2000)
    start = {k: random.uniform(2, 200) for k in KEYS}
    refill = {k: random.uniform(0, 200) for k in KEYS}
    fixed = {k: random.uniform(0.1, 12) for k in KEYS[:7]}
    share = {"Na": random.uniform(0, .2), "Cl": random.uniform(0, .3), "S": random.choice([0, .1])}
    t, e = full * random.uniform(0.01, 0.12), full * random.uniform(0, 0.01)
    r, d = full * random.choice([0, 0.01]), full * random.choice([0, 0, 0.02])
    when = random.choice(["daily", "never", {"below_l": full * 0.7}])
    days = 5 if when == "never" else 20
    given = {"vessel": {"volume_l": full, "full_l": full, "temperature_c": 20},
             "start": {"elements_mg_per_l": start, "alkalinity_meq_per_l": 1.0},
             "refill": {"elements_mg_per_l": refill, "alkalinity_meq_per_l": 0.3}, "refill_when": when,
             "transpiration_l_per_day": t, "evaporation_l_per_day": e, "rain_l_per_day": r, "drain_l_per_day": d,
             "uptake_mmol_per_l": fixed, "uptake_of_concentration": share, "days": days, "precipitate": False}
    run = subprocess.run([cli, "balance"], input=json.dumps(given), capture_output=True, text=True)
    if run.returncode != 0:
        print("REFUSED:", run.stderr)
        sys.exit(1)
    answer = json.loads(run.stdout)["days"]
    v, mmol, a = full, {k: start[k] / MASS[k] * full for k in KEYS}, 1.0 * full
    for day in range(1, days + 1):
        v, mmol, a = one_day(v, mmol, a, t, e, r, d, fixed, share)
        pour = full - v if when == "daily" or (isinstance(when, dict) and v < when["below_l"]) else 0
        pour = max(pour, 0)
        v += pour
        a += 0.3 * pour
        for k in KEYS:
            mmol[k] += refill[k] / MASS[k] * pour
        got = answer[day]
        for name, mine, theirs, size in [("volume", v, got["volume_l"], full),
                                         ("alkalinity", a / v, got["alkalinity_meq_per_l"], 1 + abs(a / v))] + \
                [(k, mmol[k] * MASS[k] / v, got["elements_mg_per_l"][k], max(mmol[k] * MASS[k] / v, 1)) for k in KEYS]:
            compared += 1
            off = abs(mine - theirs) / size
            worst = max(worst, off)
            if off > 1e-6:
                bad += 1
                print("DISAGREES: case", case, "day", day, name, mine, theirs)
print(compared, "figures compared, worst", worst)
sys.exit(1 if bad or compared < 1000 else 0)
