#!/usr/bin/env python3
"""Layers as they must be: SQL and SQLite only in src/book/sqlite, Qt not in the core, no widgets in the book."""
import pathlib
import re
import sys

source = pathlib.Path(sys.argv[1])
rules = [
    ("SQL stays in src/book/sqlite", re.compile(r"QSql|SQLite format|sqlite3|#include <QtSql|\bPRAGMA\b|INSERT INTO|DELETE FROM"), lambda p: "book/sqlite" not in p),
    ("no Qt in the core, the words, the exchange", re.compile(r"#include <Q"), lambda p: p.startswith(("core/", "reading/", "devices/", "words/", "exchange/", "sim/model/"))),
    ("what is read knows no file of ours", re.compile(r"nlohmann|json_reader|_json\.h"), lambda p: p.startswith(("reading/", "devices/", "ports/", "sim/"))),
    ("a cable knows no widgets", re.compile(r"QWidget|QDialog|#include <QtWidgets"), lambda p: p.startswith("ports/")),
    ("no widgets in the book", re.compile(r"QWidget|QDialog|#include <QtWidgets"), lambda p: p.startswith("book/")),
    ("widgets know no file format: edits/ stands between", re.compile(r"\bJson\b|nlohmann|json_reader|_json\.h|\.json\(\)"), lambda p: p.startswith("app/stations/")),
    ("a document knows no paper, no station, no window", re.compile(r'#include "(print|stations|window)/'), lambda p: p.startswith(("app/document/", "app/edits/", "app/mends/"))),
    ("no station knows the window", re.compile(r'#include "window/'), lambda p: p.startswith(("app/stations/", "app/print/", "app/paint/"))),
    ("no text is left to guess whether it is marks: PlainLabel, WrappedLabel, ClosedTextView, ClosedText", re.compile(r"new (QLabel|QTextBrowser|QTextEdit)\b|make_unique<Q(Label|TextDocument)>"), lambda p: p.startswith("app/")),
    ("SQL is never put together from parts", re.compile(r"Sql\([^)\"]*\+|prepare\([^)]*\+|\.arg\([^)]*\)[^;]*exec"), lambda p: p.startswith("book/")),
]
# Where a heavy header is needed at all; another file has to have a reason, and the number is raised here.
most_files = {"nlohmann": (re.compile(r"nlohmann/json.hpp|json_reader.h"), 23), "Eigen": (re.compile(r"#include <Eigen/"), 12)}
counts = {name: set() for name in most_files}
faults = []
for path in sorted(source.rglob("*")):
    if path.suffix not in (".h", ".cpp"):
        continue
    name = path.relative_to(source).as_posix()
    for number, line in enumerate(path.read_text(encoding="utf-8").splitlines(), 1):
        for kind, (pattern, _) in most_files.items():
            if pattern.search(line):
                counts[kind].add(name)
        own = re.match(r"app/stations/(\w+)/", name)
        other = re.search(r'#include "stations/(\w+)/', line)
        if own and other and own.group(1) != other.group(1):
            faults.append(f"{name}:{number}: no arrow from station to station: {line.strip()}")
        for rule, pattern, concerns in rules:
            if concerns(name) and pattern.search(line):
                faults.append(f"{name}:{number}: {rule}: {line.strip()}")
for kind, (_, most) in most_files.items():
    if len(counts[kind]) > most:
        faults.append(f"{kind} reaches {len(counts[kind])} files, at most {most}: " + ", ".join(sorted(counts[kind])))
print("\n".join(faults) or "every layer keeps to itself")
sys.exit(bool(faults))
