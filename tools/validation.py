#!/usr/bin/env python3
"""Holds butte-cli against the tables of tests/data/truth and draws what comes of it.

    tools/validation.py build/dev/src/cli/butte-cli

Writes a parity plot (computed over reference, SVG) for each kind of figure into docs/validation/ and the table
between the marks of docs/validation.md. Needs nothing beyond Python's own library.
"""
import csv
import json
import math
import pathlib
import subprocess
import sys

ROOT = pathlib.Path(__file__).resolve().parent.parent
TRUTH = ROOT / "tests/data/truth"
OUT = ROOT / "docs/validation"
CLI = sys.argv[1] if len(sys.argv) > 1 else str(ROOT / "build/dev/src/cli/butte-cli")


def ask(verb, question):
    done = subprocess.run([CLI, verb, "-"], input=json.dumps(question), capture_output=True, text=True)
    return json.loads(done.stdout) if done.stdout else {}


def lines(name):
    return [json.loads(line) for line in (TRUTH / name).read_text().splitlines()]


def rows(name):
    with open(TRUTH / name, newline="") as file:
        return list(csv.DictReader(file))


def litre(grams, **more):
    products = [{"id": f"p{i}", "formula": f, **more.get("product", {})} for i, f in enumerate(grams)]
    return {"products": products, "weights_g": {f"p{i}": g for i, g in enumerate(grams.values())}, "volume_l": 1}


MOLAR = {}


def molar(formula):
    if formula not in MOLAR:
        done = subprocess.run([CLI, "composition", formula], capture_output=True, text=True)
        MOLAR[formula] = json.loads(done.stdout)["molar_mass_g_per_mol"]
    return MOLAR[formula]


def tank(grams, celsius, factor):
    question = litre(grams, product={"tank": "A"})
    question["stock"] = {"factor": factor, "temperature_c": celsius, "tanks": {"A": {"volume_l": 10}}}
    return ask("stock", question).get("tanks", {}).get("A", {})


class Held:
    """One kind of figure: pairs of reference and computed, and how far apart they may be."""

    def __init__(self, key, title, unit, logarithmic, tolerance):
        self.key, self.title, self.unit, self.logarithmic, self.tolerance = key, title, unit, logarithmic, tolerance
        self.pairs, self.misses, self.away = [], [], []

    def take(self, reference, computed, about, allowed, low=None):
        """`low` to `reference` is the reference's own spread, where there is one."""
        least, most = min(reference, low if low is not None else reference), max(reference, low or reference)
        if computed is None:
            self.misses.append(f"{about}: no figure for {reference:.4g}")
            return
        away = max(least - computed, computed - most, 0)
        self.pairs.append((reference, computed))
        self.away.append(away / reference if self.logarithmic and reference else away)
        if away > allowed:
            self.misses.append(f"{about}: {computed:.4g} for {reference:.4g} {self.unit}")

    def row(self):
        count = len(self.pairs) + sum("no figure" in miss for miss in self.misses)
        relative = sorted(self.away)
        half, tenth = relative[len(relative) // 2], relative[int(0.9 * len(relative))]
        say = (lambda x: f"{100 * x:.2f} %") if self.logarithmic else (lambda x: f"{x:.3f}")
        return (f"| {self.title} | {self.tolerance} | {count - len(self.misses)} of {count} | {say(half)} | {say(tenth)} | "
                f"{say(relative[-1])} | [plot](validation/{self.key}.svg) |")

    def draw(self):
        size, edge = 420, 56
        value = (lambda v: math.log10(v)) if self.logarithmic else (lambda v: v)
        points = [(value(r), value(c)) for r, c in self.pairs if not self.logarithmic or (r > 0 and c > 0)]
        low = min(min(p) for p in points)
        high = max(max(p) for p in points)
        room = 0.04 * (high - low)
        low, high = low - room, high + room
        place = lambda v: edge + (v - low) / (high - low) * (size - edge - 14)
        x, y = place, lambda v: size - place(v)
        out = [f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {size} {size}" font-family="sans-serif" font-size="12">',
               f'<rect width="{size}" height="{size}" fill="white"/>',
               f'<line x1="{x(low):.1f}" y1="{y(low):.1f}" x2="{x(high):.1f}" y2="{y(high):.1f}" stroke="#999"/>']
        for mark in self.marks(low, high):
            text = f"{10 ** mark:g}" if self.logarithmic else f"{mark:g}"
            out += [f'<line x1="{x(mark):.1f}" y1="{y(low):.1f}" x2="{x(mark):.1f}" y2="{y(low) + 5:.1f}" stroke="black"/>',
                    f'<text x="{x(mark):.1f}" y="{y(low) + 18:.1f}" text-anchor="middle">{text}</text>',
                    f'<line x1="{x(low):.1f}" y1="{y(mark):.1f}" x2="{x(low) - 5:.1f}" y2="{y(mark):.1f}" stroke="black"/>',
                    f'<text x="{x(low) - 8:.1f}" y="{y(mark) + 4:.1f}" text-anchor="end">{text}</text>']
        out += [f'<circle cx="{x(r):.1f}" cy="{y(c):.1f}" r="2.4" fill="#1b6ca8" fill-opacity="0.55"/>' for r, c in points]
        out += [f'<text x="{size / 2:.0f}" y="{size - 8}" text-anchor="middle">{self.title}, reference, {self.unit}</text>',
                f'<text x="14" y="{size / 2:.0f}" text-anchor="middle" transform="rotate(-90 14 {size / 2:.0f})">computed, {self.unit}</text>',
                "</svg>"]
        (OUT / f"{self.key}.svg").write_text("\n".join(out) + "\n")

    def marks(self, low, high):
        if self.logarithmic:
            whole = [m for m in range(math.floor(low), math.ceil(high) + 1) if low <= m <= high]
            halves = [math.log10(f * 10 ** d) for d in range(math.floor(low), math.ceil(high) + 1) for f in (1, 2, 5)]
            return whole if len(whole) > 2 else [h for h in halves if low <= h <= high]
        step = 10 ** math.floor(math.log10(high - low))
        step = step if (high - low) / step > 2.5 else step / 2
        return [n * step for n in range(math.ceil(low / step), math.floor(high / step) + 1)]


def ceilings():
    held = Held("ceilings", "ceilings of mixed stocks", "g/L", True, "5 or 10 %")
    for row in lines("stocks.jsonl"):
        mix = {salt: g / 1000 for salt, g in row["mix_g"].items()}
        most = tank(mix, row["temperature_c"], 100).get("max_factor")
        plain = not any(ion in salt for salt in mix for ion in ("NO3", "PO4", "NH4"))
        held.take(row["total_g_per_l"], most and most * sum(mix.values()), f"{row['mix_g']} at {row['temperature_c']} degC",
                  row["total_g_per_l"] * (0.05 if plain else 0.10))
    return held


def saturations():
    held = Held("saturations", "one salt at saturation", "g/L", True, "2 %")
    for row in rows("saturation.csv"):
        wanted = float(row["g_as_sold_per_l_of_solution"])
        most = tank({row["formula_as_sold"]: 1}, float(row["temperature_c"]), 100).get("max_factor")
        held.take(wanted, most, f"{row['formula_as_sold']} at {row['temperature_c']} degC", 0.02 * wanted)
    return held


def densities():
    held = Held("densities", "densities", "kg/L", False, "0.5 %")
    for row in rows("density_single.csv") + rows("density_mixed.csv"):
        if "formula_as_sold" in row:
            grams = {row["formula_as_sold"]: float(row["g_as_sold_per_l_of_solution"])}
        else:
            grams = {p.split("=")[0]: float(p.split("=")[1]) for p in row["g_as_sold_per_l_of_solution"].split(";")}
        found = tank({salt: g / 1000 for salt, g in grams.items()}, float(row["temperature_c"]), 1000)
        wanted = float(row["density_kg_per_l"])
        held.take(wanted, found.get("density_kg_per_l"), f"{grams} at {row['temperature_c']} degC", 0.005 * wanted)
    return held


def gypsum():
    held = Held("gypsum", "saturation index of dissolved gypsum", "log10", False, "0.06")
    for row in rows("gypsum.csv"):
        mol = float(row["mol_salt_per_kg_water"])
        if mol > 0.6:
            continue
        grams = {"CaSO4": float(row["gypsum_dissolved_mmol_per_kg_water"]) / 1000 * molar("CaSO4")}
        if row["salt"]:
            grams[row["salt"]] = mol * molar(row["salt"])
        index = ask("equilibrium", {**litre(grams), "temperature_c": float(row["temperature_c"]), "co2": "closed"})
        held.take(0, index["saturation_index"]["gypsum"], f"{mol} mol/kg {row['salt']} at {row['temperature_c']} degC", 0.06)
    return held


def feeds():
    ph = Held("ph_feeds", "pH of feeds, closed and open", "pH", False, "spread of three databases + 0.01")
    ec = Held("ec_feeds", "EC of feeds", "mS/cm", True, "1.5 %")
    for row in lines("feeds.jsonl"):
        question = {**litre(row["g_per_l"]), "water": row["water"], "temperature_c": row["water"]["temperature_c"]}
        for key, air in (("ph_closed", {"co2": "closed"}), ("ph_open_417ppm", {"co2": "open", "pco2_atm": 10 ** -3.38})):
            span = [v for v in row[key] if v is not None]
            found = ask("equilibrium", {**question, **air}).get("ph")
            ph.take(max(span), found, f"{key} of {row['g_per_l']}", 0.01, min(span))
        wanted = row["ec_us_per_cm_25c"] / 1000
        mixed = ask("mix", {**litre(row["g_per_l"]), "water": row["water"]}).get("ec_ms_per_cm_25c")
        ec.take(wanted, mixed, f"{row['g_per_l']}", 0.015 * wanted)
    return [ph, ec]


def ec_single():
    held = Held("ec_single", "EC of one salt", "mS/cm", True, "2 %, MgSO4 4 %")
    for row in rows("conductivity_single.csv"):
        mmol = float(row["mmol_per_kg_water"])
        if row["temperature_c"] != "25" or mmol > 20:
            continue
        found = ask("mix", litre({row["salt"]: mmol * molar(row["salt"]) / 1000})).get("ec_ms_per_cm_25c")
        wanted = float(row["phreeqc_us_per_cm"]) / 1000
        held.take(wanted, found, f"{row['salt']} {mmol} mmol/kg", (0.04 if row["salt"] == "MgSO4" else 0.02) * wanted)
    return held


def ph_plain():
    held = Held("ph_plain", "pH of plain salts, acids and bases", "pH", False, "0.06, organic 0.15")
    for row in rows("ph_plain.csv"):
        salt, mmol = row["formula"], float(row["mmol_per_kg_water"])
        question = {**litre({salt: mmol * molar(salt) / 1000}), "temperature_c": float(row["temperature_c"]), "co2": "closed"}
        answer = ask("equilibrium", question)
        if answer.get("ph") is None:
            continue  # refused: the chemistry says that it does not know
        held.take(float(row["ph_without_air"]), answer["ph"], f"{salt} {mmol} mmol/kg at {row['temperature_c']} degC",
                  0.15 if salt.startswith("C") else 0.06)
    return held


def doses():
    held = Held("doses", "acid to a wanted pH", "mmol/L", True, "0.5 %")
    for row in lines("titrations.jsonl"):
        question = {"water": row["water"], "acid": {"id": "a", "formula": row["acid"]}, "target_ph": row["target_ph"], "volume_l": 1000}
        for key, air in (("mmol_per_l_closed", {"co2": "closed"}), ("mmol_per_l_open_417ppm", {"co2": "open", "pco2_atm": 10 ** -3.38})):
            span = row[key]
            if None in span:
                continue
            grams = ask("acid", {**question, **air}).get("dose_g")
            held.take(max(span), grams and grams / molar(row["acid"]), f"{row['acid']} to pH {row['target_ph']}, {air['co2']}",
                      max(0.004, 0.005 * max(span)), min(span))
    return held


def solids():
    held = Held("solids", "what falls out", "g/L", True, "8 %, or 0.12 g/L of gypsum, 0.015 g/L of others")
    for row in lines("precipitation.jsonl"):
        answer = ask("equilibrium", {**litre(row["g_per_l"]), "temperature_c": row["temperature_c"], "co2": "closed"})
        found = {solid["name"]: solid["g_per_l"] for solid in answer["solids"]}
        for solid, wanted in row["falls_out_g_per_l"].items():
            held.take(wanted, found.get(solid, 0.0), f"{solid} of {row['g_per_l']}",
                      max(0.08 * wanted, 0.12 if solid == "gypsum" else 0.015))
    return held


def main():
    OUT.mkdir(exist_ok=True)
    kinds = [ceilings(), saturations(), densities(), gypsum(), *feeds(), ec_single(), ph_plain(), doses(), solids()]
    table = ["| figure | may be off by | held | median off | nine of ten | most | |", "|---|---|---|---|---|---|---|"]
    beside = []
    for kind in kinds:
        kind.draw()
        table.append(kind.row())
        beside += [f"- {kind.title}: {miss}" for miss in kind.misses]
    table += ["", "Outside of what is allowed:", ""] + (beside or ["- none"])
    page = ROOT / "docs/validation.md"
    head, rest = page.read_text().split("<!-- figures -->")
    tail = rest.split("<!-- end -->")[1]
    page.write_text(head + "<!-- figures -->\n" + "\n".join(table) + "\n<!-- end -->" + tail)


main()
