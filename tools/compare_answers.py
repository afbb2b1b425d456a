#!/usr/bin/env python3
"""Runs random scripts through two builds of butte-cli and names every answer that differs.

    tools/compare_answers.py OLD NEW [COUNT] [SEED]

A quarter each: solve, mix, stock, water. Figures may differ by 1e-9 of their size; the rest must be the same.
"""
import json
import random
import subprocess
import sys

SALTS = [("cn", "Ca(NO3)2·4H2O", "A"), ("kno3", "KNO3", None), ("mkp", "KH2PO4", "B"), ("sop", "K2SO4", "B"),
         ("epsom", "MgSO4·7H2O", "B"), ("map", "NH4H2PO4", "B"), ("mn", "MnSO4·H2O", "B"), ("bor", "H3BO3", None),
         ("zn", "ZnSO4·7H2O", "B"), ("mgn", "Mg(NO3)2·6H2O", None), ("kcl", "KCl", None), ("an", "NH4NO3", None)]


def water(rng):
    ca, mg, na = rng.uniform(0, 120), rng.uniform(0, 30), rng.uniform(0, 60)
    cl, so4, no3 = rng.uniform(0, 60), rng.uniform(0, 90), rng.uniform(0, 25)
    meq = ca / 20.04 + mg / 12.15 + na / 22.99 - cl / 35.45 - so4 / 48.03 - no3 / 62.0
    out = {"Ca": ca, "Mg": mg, "Na": na, "Cl": cl, "SO4": so4, "NO3": no3, "HCO3": max(0.0, meq) * 61.017}
    return {"ph": round(rng.uniform(6.4, 8.2), 2), "temperature_c": round(rng.uniform(5, 30), 1),
            "analysis_mg_per_l": {key: round(value, 3) for key, value in out.items()}}


def products(rng, tanks=False):
    chosen = rng.sample(SALTS, rng.randint(4, len(SALTS)))
    out = []
    for name, formula, tank in chosen:
        product = {"id": name, "formula": formula, "purity_percent": rng.choice([100, 99, 98.5]),
                   "price_per_kg": round(rng.uniform(0.4, 4), 2)}
        if tanks and tank and rng.random() < 0.3:
            product["tank"] = tank
        out.append(product)
    return out


def target(rng):
    return {"N": rng.uniform(80, 220), "P": rng.uniform(20, 60), "K": rng.uniform(100, 320), "Ca": rng.uniform(60, 220),
            "Mg": rng.uniform(15, 60), "S": rng.uniform(20, 110), "Mn": rng.uniform(0.2, 1), "B": rng.uniform(0.1, 0.6)}


def script(rng, verb):
    if verb == "water":
        asked = {"water": {**water(rng)}, "system": rng.choice(["open", "recirculating"])}
        if rng.random() < 0.4:
            asked["water"]["treatment"] = {"kind": "reverse_osmosis", "rejection_percent": rng.randint(85, 99)}
        return asked
    asked = {"water": water(rng), "products": products(rng, verb == "stock"), "volume_l": rng.choice([1, 100, 1000])}
    if verb == "solve":
        asked["target_mg_per_l"] = target(rng)
        asked["objective"] = rng.choice(["closest", "closest", "cheapest"])
        if rng.random() < 0.3:
            asked["max_mg_per_l"] = {"Na": 80, "Cl": 90, "N_NH4": 20}
        return asked
    asked["weights_g"] = {p["id"]: round(rng.uniform(0, 0.9) * asked["volume_l"], 3) for p in asked["products"]}
    if verb == "stock":
        asked["stock"] = {"factor": rng.choice([20, 50, 100, 200]), "temperature_c": rng.randint(5, 25),
                          "tanks": {"A": {"volume_l": 100}, "B": {"volume_l": 100}}}
    return asked


def answer(program, verb, text):
    done = subprocess.run([program, verb, "-"], input=text, capture_output=True, text=True, timeout=60)
    return done.returncode, json.loads(done.stdout) if done.stdout.strip() else done.stderr


def differences(a, b, path=""):
    if isinstance(a, dict) and isinstance(b, dict):
        for key in sorted(set(a) | set(b)):
            yield from differences(a.get(key), b.get(key), f"{path}.{key}")
    elif isinstance(a, list) and isinstance(b, list) and len(a) == len(b):
        for i, (one, other) in enumerate(zip(a, b)):
            yield from differences(one, other, f"{path}[{i}]")
    elif isinstance(a, (int, float)) and isinstance(b, (int, float)) and not isinstance(a, bool):
        if abs(a - b) > 1e-9 * max(abs(a), abs(b), 1e-6):
            yield path, a, b
    elif a != b:
        yield path, a, b


def main():
    old, new = sys.argv[1], sys.argv[2]
    count = int(sys.argv[3]) if len(sys.argv) > 3 else 900
    rng = random.Random(int(sys.argv[4]) if len(sys.argv) > 4 else 1)
    other = 0
    for i in range(count):
        verb = ["solve", "mix", "stock", "water"][i % 4]
        text = json.dumps(script(rng, verb), ensure_ascii=False)
        found = list(differences(list(answer(old, verb, text)), list(answer(new, verb, text))))
        if found:
            other += 1
            print(f"{i} {verb}: " + "; ".join(f"{path}: {a} -> {b}" for path, a, b in found[:4]))
    print(f"{count} scripts, {other} answers differ")
    sys.exit(bool(other))


main()
