#!/bin/bash
# Kills a program that edits a book, thousands of times, and checks each time that nothing confirmed was lost.
#   tools/kill_book.sh [ROUNDS] [SEED]   (needs a build with tests in build/dev, or in $BUILD)
set -euo pipefail
cd "$(dirname "$0")/.."
BUTTE_KILL_ROUNDS="${1:-2000}" BUTTE_KILL_SEED="${2:-1}" "${BUILD:-build/dev}/tests/book/book_tests" --gtest_filter='KillTest.*'
