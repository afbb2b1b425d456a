#!/usr/bin/python3
"""How long the closest fit takes against scipy's on the same problems, and how many solves a second the batch form makes
on one core. Usage: against_scipy.py BUTTE_CLI. Prints ratios of one run; times wander, ratios less."""
import json
import os
import random
import subprocess
import sys
import tempfile
import time

import numpy as np
from scipy.optimize import lsq_linear

cli = sys.argv[1]
FORMULAS = ["KNO3", "Ca(NO3)2·4H2O", "KH2PO4", "MgSO4·7H2O", "K2SO4", "NH4NO3", "NH4H2PO4", "KCl", "Mg(NO3)2·6H2O",
            "(NH4)2SO4", "CaCl2·2H2O"]
USUAL = {"N": 180, "P": 40, "K": 220, "Ca": 150, "Mg": 35, "S": 60, "N_NH4": 15}
comp = {f: json.loads(subprocess.run([cli, "composition", f], capture_output=True, text=True).stdout)["mass_fraction"]
        for f in FORMULAS}
A = np.array([[1000 * comp[f][k] for f in FORMULAS] for k in USUAL])
random.seed(1)
targets = [{k: round(v * random.uniform(.6, 1.4), 1) for k, v in USUAL.items()} for _ in range(400)]
waters = [{"name": f"w{i}", "analysis_mg_per_l": {"Ca": 8.0 * i, "Mg": 1.0 * i}} for i in range(10)]
given = {"products": [{"id": f, "formula": f} for f in FORMULAS],
         "targets": [{"name": str(i), "target_mg_per_l": t} for i, t in enumerate(targets)], "waters": waters}
with tempfile.TemporaryDirectory() as folder:
    out = os.path.join(folder, "out.csv")
    one = {**given, "targets": given["targets"][:1], "waters": waters[:1]}
    start = time.perf_counter()
    subprocess.run([cli, "solve", "--out", out], input=json.dumps(one), text=True, check=True, capture_output=True)
    overhead = time.perf_counter() - start
    start = time.perf_counter()
    subprocess.run([cli, "solve", "--out", out], input=json.dumps(given), text=True, check=True, capture_output=True)
    ours = (time.perf_counter() - start - overhead) / (len(targets) * len(waters) - 1)
start = time.perf_counter()
for t in targets:
    b = np.array(list(t.values()))
    lsq_linear(A / b[:, None], np.ones(len(b)), (0, np.inf), method="bvls", tol=1e-14)
theirs = (time.perf_counter() - start) / len(targets)
print(f"batch: {1 / ours:.0f} formulas a second on one core, each with reasons, feed, EC and pH ({1e6 * ours:.0f} us)")
print(f"scipy's bounded fit alone: {1e6 * theirs:.0f} us; a whole formula of ours takes {ours / theirs:.2f} of it")
