#!/usr/bin/env python3
"""Is the code laid out as .clang-format says? Usage: check_format.py ROOT. Names every file that is not.

Other versions of clang-format lay out a few lines otherwise: Debian 12's holds.
"""
import pathlib
import subprocess
import sys

root = pathlib.Path(sys.argv[1])
files = sorted(str(path) for room in ("src", "tests", "bench") for ending in ("*.cpp", "*.h") for path in (root / room).rglob(ending))
told = subprocess.run(["clang-format", "--dry-run", "-Werror", *files], capture_output=True, text=True)
unformatted = sorted({line.split(":")[0] for line in told.stderr.splitlines() if ": error:" in line})
for path in unformatted:
    print(f"{path}: not as clang-format lays it out; clang-format -i {path}")
sys.exit(1 if told.returncode or not files else 0)
