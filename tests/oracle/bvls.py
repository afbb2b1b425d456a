"""Costs of bounded least-squares problems by scipy, one a line, for tests/core/oracle_test.cpp."""
import sys

import numpy as np
from scipy.optimize import lsq_linear

with open(sys.argv[1], encoding="ascii") as file:
    words = iter(file.read().split())


def take(n):
    return np.array([float(next(words)) for _ in range(n)])


for first in words:
    rows, columns = int(first), int(next(words))
    a = take(rows * columns).reshape(rows, columns)
    b, lower, upper = take(rows), take(columns), take(columns)
    upper[upper > 1e299] = np.inf
    # bvls is the exact active-set method; trf, the default, stops early.
    result = lsq_linear(a, b, (lower, upper), method="bvls", tol=1e-14, max_iter=10000)
    print(repr(float(result.cost)))
