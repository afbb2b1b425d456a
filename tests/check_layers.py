#!/usr/bin/env python3
"""Layers as they must be: SQL and SQLite only in src/book/sqlite, Qt not in the core, no widgets in the book."""
import pathlib
import re
import sys

source = pathlib.Path(sys.argv[1])
rules = [
    ("SQL stays in src/book/sqlite", re.compile(r"QSql|SQLite format|sqlite3|#include <QtSql|\bPRAGMA\b|INSERT INTO|DELETE FROM"), lambda p: "book/sqlite" not in p),
    ("no Qt in the core, the words, the exchange", re.compile(r"#include <Q"), lambda p: p.startswith(("core/", "words/", "exchange/"))),
    ("no widgets in the book", re.compile(r"QWidget|QDialog|#include <QtWidgets"), lambda p: p.startswith("book/")),
    ("SQL is never put together from parts", re.compile(r"Sql\([^)\"]*\+|prepare\([^)]*\+|\.arg\([^)]*\)[^;]*exec"), lambda p: p.startswith("book/")),
]
faults = []
for path in sorted(source.rglob("*")):
    if path.suffix not in (".h", ".cpp"):
        continue
    name = path.relative_to(source).as_posix()
    for number, line in enumerate(path.read_text(encoding="utf-8").splitlines(), 1):
        for rule, pattern, concerns in rules:
            if concerns(name) and pattern.search(line):
                faults.append(f"{name}:{number}: {rule}: {line.strip()}")
print("\n".join(faults) or "every layer keeps to itself")
sys.exit(bool(faults))
