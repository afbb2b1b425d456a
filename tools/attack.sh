#!/bin/bash
# The long runs of tests/attack and of the kill test; the tests themselves take a short share of each.
#   tools/attack.sh faults          every call to the disk fails in turn, five ways, both kinds of journal (10 minutes)
#   tools/attack.sh kills [ROUNDS]  a program that edits is killed so many times with each kind of journal
#   tools/attack.sh inputs [COUNT]  so many broken inputs for every reader
#   tools/attack.sh fuzz [SECONDS]  libFuzzer, every reader in turn (needs clang and libclang-rt-14-dev)
# Needs a build with tests in build/dev, or in $BUILD; SEED changes what is drawn.
set -euo pipefail
cd "$(dirname "$0")/.."
build="${BUILD:-build/dev}"
case "${1:-}" in
faults) BUTTE_FAULT_STEP=1 "$build/tests/attack/attack_tests" --gtest_filter='*FaultTest*' ;;
kills) BUTTE_KILL_ROUNDS="${2:-2000}" BUTTE_KILL_SEED="${SEED:-1}" "$build/tests/book/book_tests" --gtest_filter='*KillTest*' ;;
inputs) BUTTE_INPUTS="${2:-100000}" BUTTE_SEED="${SEED:-1}" "$build/tests/attack/attack_tests" --gtest_filter='*InputsTest*' ;;
fuzz)
  tools/build.sh fuzz
  for target in build/fuzz/tests/attack/fuzz_*; do
    [[ -x "$target" ]] || continue
    corpus="build/fuzz/corpus/$(basename "$target")"
    mkdir -p "$corpus"
    "$target" "$corpus" -max_total_time="${2:-600}" -rss_limit_mb=4096 -timeout=10 -print_final_stats=1
  done
  ;;
*) sed -n 2,8p "$0" ;;
esac
