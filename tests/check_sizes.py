#!/usr/bin/python3
"""Fails when a source file or a function body grows past what one reader holds in mind."""
import pathlib
import sys

LONGEST_FILE = 420
LONGEST_FUNCTION = 70


def function_lengths(lines):
    """Length of every body (a table of data is none) that opens at column 0 or inside a class: brace counting is enough for formatted code."""
    depth, start, container = 0, 0, []
    for number, line in enumerate(lines, 1):
        code = line.split("//")[0]
        opens, closes = code.count("{"), code.count("}")
        if opens > closes:
            head = code.strip()
            is_scope = head.startswith(("namespace", "class", "struct", "enum", "extern", "union")) or head == "{" or head.startswith("constexpr std::array")
            container.extend([(number, is_scope)] + [(number, True)] * (opens - closes - 1))
        elif closes > opens:
            for _ in range(closes - opens):
                if container:
                    begin, is_scope = container.pop()
                    if not is_scope and all(scope for _, scope in container):
                        yield begin, number - begin + 1


bad = []
for path in sorted(pathlib.Path(sys.argv[1]).rglob("*")):
    if path.suffix not in (".h", ".cpp"):
        continue
    lines = path.read_text(encoding="utf-8").splitlines()
    if len(lines) > LONGEST_FILE:
        bad.append(f"{path}: {len(lines)} lines, at most {LONGEST_FILE}")
    for begin, length in function_lengths(lines):
        if length > LONGEST_FUNCTION:
            bad.append(f"{path}:{begin}: a body of {length} lines, at most {LONGEST_FUNCTION}")
print("\n".join(bad) or "all files and functions are short enough")
sys.exit(1 if bad else 0)
