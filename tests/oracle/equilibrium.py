"""The same equilibria posed to scipy's root finder, for tests/core/oracle_test.cpp.

Reads data/equilibria.csv by itself and shares no code with the program. Each input line: degrees Celsius, net alkalinity,
then the totals of the components in the order of COMPONENTS (mol/kg), then a start: pH and the components' ln
molalities. Prints pH, ionic strength and the molalities of all species, one line a case.
"""
import csv
import sys

import numpy as np
from scipy.optimize import root

COMPONENTS = ["Na+", "K+", "NH4+", "Ca+2", "Mg+2", "NO3-", "Cl-", "SO4-2", "CO3-2", "PO4-3", "B(OH)3", "H4SiO4", "Fe+2",
              "Mn+2", "Zn+2", "Cu+2", "MoO4-2", "Cit-3", "Ac-"]
# Hydrogen in the form that alkalinity is counted against.
REFERENCE_HYDROGEN = {"CO3-2": 2, "PO4-3": 2, "Cit-3": 3, "Ac-": 1}
R = 8.314462618e-3


def log_k(row, kelvin):
    at_25 = float(row["log_k_25c"] or 0)
    if row["analytic_a1_to_a5"]:
        a = [float(x) for x in row["analytic_a1_to_a5"].split()]

        def f(t):
            return a[0] + a[1] * t + a[2] / t + a[3] * np.log10(t) + a[4] / t**2

        return at_25 + f(kelvin) - f(298.15)
    if row["delta_h_kj_per_mol"]:
        return at_25 + float(row["delta_h_kj_per_mol"]) / (R * np.log(10)) * (1 / 298.15 - 1 / kelvin)
    return at_25


def read(path, kelvin):
    """name -> (ln K, {component or H+ or H2O: power}, charge, size, linear term), over components only."""
    species = {}
    with open(path, encoding="utf-8") as file:
        for row in csv.DictReader(file):
            if row["kind"] == "solid":
                continue
            ln_k, powers = log_k(row, kelvin) * np.log(10), {}
            if row["kind"] == "component":
                powers[row["name"]] = 1.0
            for term in row["reaction"].split():
                factor, name = term.split("*") if "*" in term else ("1", term)
                factor = float(factor)
                if name in ("H+", "H2O"):
                    powers[name] = powers.get(name, 0) + factor
                    continue
                below = species[name]
                ln_k += factor * below[0]
                for key, power in below[1].items():
                    powers[key] = powers.get(key, 0) + factor * power
            species[row["name"]] = (ln_k, powers, int(row["charge"]), float(row["size_angstrom"] or 0),
                                    float(row["linear_term"] or 0))
    return species


def debye_hueckel(celsius):
    permittivity = 87.740 - 0.40008 * celsius + 9.398e-4 * celsius**2 - 1.410e-6 * celsius**3
    density = (999.83952 + 16.945176 * celsius - 7.9870401e-3 * celsius**2 - 46.170461e-6 * celsius**3
               + 105.56302e-9 * celsius**4 - 280.54253e-12 * celsius**5) / (1 + 16.879850e-3 * celsius) / 1000
    product = permittivity * (celsius + 273.15)
    return 1.82483e6 * np.sqrt(density) / product**1.5, 50.2916 * np.sqrt(density) / np.sqrt(product)


def solve(path, numbers):
    celsius, alkalinity, totals = numbers[0], numbers[1], numbers[2:2 + len(COMPONENTS)]
    start = numbers[2 + len(COMPONENTS):]
    species = read(path, celsius + 273.15)
    present = [i for i, total in enumerate(totals) if total > 0]
    a, b = debye_hueckel(celsius)
    names = [n for n, s in species.items()
             if all(p in ("H+", "H2O") or totals[COMPONENTS.index(p)] > 0 for p in s[1])]

    def gamma(name, strength):
        _, _, z, size, linear = species[name]
        return np.log(10) * (-a * z * z * np.sqrt(strength) / (1 + b * size * np.sqrt(strength))
                             + linear * min(strength, 6.0))

    def molalities(x):
        """x: ln molality of each component present, ln activity of H+, ln I, ln activity of water."""
        strength = np.exp(x[-2])
        out = {}
        for name in names:
            ln = species[name][0] - gamma(name, strength)
            for part, power in species[name][1].items():
                if part == "H+":
                    ln += power * x[-3]
                elif part == "H2O":
                    ln += power * x[-1]
                else:
                    ln += power * (x[present.index(COMPONENTS.index(part))] + gamma(part, strength))
            out[name] = np.exp(min(ln, 50))
        return out

    def gaps(x):
        m = molalities(x)
        out = []
        for i in present:
            held = sum(species[n][1].get(COMPONENTS[i], 0) * m[n] for n in names)
            out.append(np.log(held / totals[i]))
        hydrogen = sum(species[n][1].get("H+", 0) * m[n] for n in names)
        gross = sum(abs(species[n][1].get("H+", 0)) * m[n] for n in names)
        wanted = sum(k * totals[COMPONENTS.index(n)] for n, k in REFERENCE_HYDROGEN.items()) - alkalinity
        out.append((hydrogen - wanted) / gross)
        out.append(x[-2] - np.log(0.5 * sum(species[n][2]**2 * m[n] for n in names)))
        out.append(x[-1] - np.log(max(1 - 0.017 * sum(m.values()), 0.3)))
        return out

    x0 = [start[1 + i] for i in present] + [-start[0] * np.log(10), np.log(0.5 * sum(totals) + 1e-7), 0.0]
    best = None
    for method in ("hybr", "lm"):
        found = root(gaps, x0, method=method, tol=1e-14)
        worst = np.max(np.abs(gaps(found.x)))
        if best is None or worst < best[0]:
            best = (worst, found.x)
    m = molalities(best[1])
    print(repr(float(best[0])), repr(float(-best[1][-3] / np.log(10))), repr(float(np.exp(best[1][-2]))),
          *[repr(float(m.get(n, 0.0))) for n in species])


with open(sys.argv[2], encoding="ascii") as file:
    for line in file:
        solve(sys.argv[1], [float(word) for word in line.split()])
