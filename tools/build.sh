#!/usr/bin/env bash
# Configures (once) and builds a preset: tools/build.sh dev | sanitize | release | bench | fuzz
set -euo pipefail
cd "$(dirname "$0")/.."
if [ "$1" = bench ]; then
  source tools/install_packages.sh
  install_missing build_packages bench_packages
fi
export CCACHE_BASEDIR="$PWD" CCACHE_NOHASHDIR=1 CCACHE_SLOPPINESS=pch_defines,time_macros
[ -f "build/$1/build.ninja" ] || cmake --preset "$1" >/dev/null
cmake --build --preset "$1"
