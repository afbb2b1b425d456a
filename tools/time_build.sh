#!/usr/bin/env bash
# Where a build's time went: the dearest files of the last build of a preset, and the sum of all.
#   tools/time_build.sh [PRESET] [COUNT]     (default: release 15)
# For a cold build first: rm -rf build/release && CCACHE_DISABLE=1 tools/build.sh release
set -euo pipefail
cd "$(dirname "$0")/.."
log="build/${1:-release}/.ninja_log"
[ -f "$log" ] || { echo "No build of that name: $log" >&2; exit 1; }
# Columns of the log: begin and end in ms since the build began, a time stamp, the output, a hash.
grep -v '^#' "$log" | awk -F'\t' '{ took[$4] = ($2 - $1) / 1000 }
  END { for (name in took) { sum += took[name]; printf "%7.1f s  %s\n", took[name], name }; printf "%7.1f s  all together\n", sum }' |
  sort -rn | head -n "${2:-15}"
