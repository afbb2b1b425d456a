#!/usr/bin/env python3
"""The order lists of `butte-cli shelf` against scipy's milp: no cheaper whole bags bring what is missing, and what is
bought does. A use per week is summed up again from the lots. Takes the verb's answer on standard input."""
import json
import math
import sys

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp

answer = json.load(sys.stdin)
orders = 0
for product in answer["products"]:
    for lot in product["lots"]:
        kept = lot["left_kg"] + lot["used_kg"] + lot["wasted_kg"]
        bought = lot["bags"] * lot["bag_kg"] + lot["corrected_kg"]
        assert math.isclose(kept, bought, rel_tol=1e-9, abs_tol=1e-9), (lot, kept, bought)
    missing = max(product["need"]["high_kg"] - product["left_kg"], 0)
    assert math.isclose(missing, product["missing_kg"], rel_tol=1e-9, abs_tol=1e-9), product["product"]
    order = product["order"]
    if order is None:
        continue
    sizes = np.array([one["bag_kg"] for one in order["bags"]])
    prices = np.array([one["price"] for one in order["bags"]])
    bags = np.array([one["bags"] for one in order["bags"]])
    assert sizes @ bags >= missing * (1 - 1e-9), product["product"]
    assert math.isclose(prices @ bags, order["cost"], rel_tol=1e-12), product["product"]
    best = milp(prices, constraints=LinearConstraint(sizes, lb=missing), integrality=np.ones(len(sizes)), bounds=Bounds(0, np.inf),
                options={"mip_rel_gap": 0})
    assert best.success, best.message
    assert order["cost"] <= best.fun * (1 + 1e-7), (product["product"], order["cost"], best.fun)
    orders += 1
print(orders)
