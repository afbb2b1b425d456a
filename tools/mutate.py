#!/usr/bin/env python3
"""Would a test notice? Changes one sign, factor or comparison of the core at a time and runs the tests.

    tools/mutate.py [--folder solve]... [--count 60] [--seed 1] [--build build/mutants]

Needs a configured build of the tests (tools/build.sh dev once); makes its own copy of the tree and its own build folder,
so the work tree is never touched. Prints every mutant that no test noticed, and the share that was noticed. Takes minutes
a mutant: outside of CI.
"""
import argparse
import pathlib
import random
import re
import shutil
import subprocess
import sys

TESTS = ["core_tests", "truth_tests", "cli_tests"]
FOLDERS = ["solve", "solution", "stock", "dose", "water", "target"]
# What stands between blanks is an operator of arithmetic or comparison, as clang-format leaves it.
CHANGES = [(r" \+ ", " - "), (r" - ", " + "), (r" \* ", " / "), (r" / ", " * "), (r" < ", " > "), (r" > ", " < "),
           (r" <= ", " > "), (r" >= ", " < "), (r" && ", " || "), (r" \|\| ", " && "), (r" == ", " != "),
           (r"\+= ", "-= "), (r"-= ", "+= "), (r"\b1000\b", "999"), (r"std::max\(", "std::min("), (r"std::min\(", "std::max(")]
# Left out beside what is no code: lines of a tolerance (1e-9), where a change of sign moves nothing that can be seen, and
# below or equal turned into below, which differ for no measured figure.
SKIPPED = re.compile(r"^\s*(//|#|/\*|\*|using |template|static_assert|constexpr std::(array|pair))|operator|assert\(|<<|\"|= delete|"
                     r"\d*e-\d")


def places(root, folders):
    """Every place of the core where one of the changes fits."""
    out = []
    for folder in folders:
        for path in sorted((root / "src/core" / folder).glob("*.cpp")):
            for number, line in enumerate(path.read_text(encoding="utf-8").split("\n")):
                code = line.split("//")[0]
                if SKIPPED.search(code):
                    continue
                for pattern, changed in CHANGES:
                    for found in re.finditer(pattern, code):
                        out.append((path.relative_to(root), number, found.start(), found.end(), changed))
    return out


def run(command, cwd, seconds):
    try:
        return subprocess.run(command, cwd=cwd, capture_output=True, text=True, timeout=seconds).returncode
    except subprocess.TimeoutExpired:
        return -1  # a loop that never ends is noticed


def verdict(copy, build):
    """'noticed', 'not noticed' or 'does not compile'. The slower programs are asked only of what the first let pass."""
    for test in TESTS:
        if run(["cmake", "--build", build, "-j2", "--target", test], copy, 2400) != 0:
            return "does not compile"
        program = next(path for path in pathlib.Path(build).rglob(test) if path.is_file())
        if run([program, "--gtest_brief=1", "--gtest_fail_fast"], copy, 300) != 0:
            return "noticed"
    return "not noticed"


def main():
    asked = argparse.ArgumentParser()
    asked.add_argument("--folder", action="append", choices=FOLDERS)
    asked.add_argument("--count", type=int, default=60)
    asked.add_argument("--seed", type=int, default=1)
    asked.add_argument("--build", default="build/mutants")
    asked = asked.parse_args()
    root = pathlib.Path(__file__).resolve().parent.parent
    build = (root / asked.build).resolve()
    copy = build / "tree"
    shutil.rmtree(build, ignore_errors=True)  # a run that was cut off leaves parts of a mutant
    shutil.copytree(root, copy, ignore=shutil.ignore_patterns("build", ".git"))
    made = ["cmake", "-S", copy, "-B", build / "made", "-G", "Ninja", "-DCMAKE_BUILD_TYPE=Debug", "-DCMAKE_CXX_FLAGS_DEBUG=-O1",
            "-DBUTTE_APP=OFF", "-DCMAKE_CXX_COMPILER_LAUNCHER=ccache"]
    flags = copy / "cmake/butte_target.cmake"  # a mutant may well leave a variable unused, and g++ 12 warns falsely at -O1
    flags.write_text(flags.read_text(encoding="utf-8").replace(" -Werror", ""), encoding="utf-8")
    if run(made, root, 300) != 0 or verdict(copy, build / "made") != "not noticed":
        sys.exit("the tree as it stands does not build, or its tests fail")
    chosen = random.Random(asked.seed).sample(places(root, asked.folder or FOLDERS), asked.count)
    counts = {"noticed": 0, "not noticed": 0, "does not compile": 0}
    for path, number, begin, end, changed in chosen:
        file = copy / path
        text = file.read_text(encoding="utf-8")
        lines = text.split("\n")
        before = lines[number]
        lines[number] = before[:begin] + changed + before[end:]
        file.write_text("\n".join(lines), encoding="utf-8")
        found = verdict(copy, build / "made")
        counts[found] += 1
        if found == "not noticed":
            print(f"{path}:{number + 1}: nobody noticed: {lines[number].strip()}\n    was: {before.strip()}", flush=True)
        file.write_text(text, encoding="utf-8")
        print(" ".join(f"{count} {kind}," for kind, count in counts.items()), file=sys.stderr, flush=True)
    judged = counts["noticed"] + counts["not noticed"]
    print(f"{counts['noticed']} of {judged} noticed ({100 * counts['noticed'] / max(1, judged):.0f} %), "
          f"{counts['does not compile']} did not compile")


main()
