#!/usr/bin/env bash
# Every header that the programs read belongs to a package that `./run demo` installs, or to one of those that come with
# it: what only the tests bring must not be needed to start the demo. Usage: packages.sh SOURCE BUILD
set -euo pipefail
source=$1 build=$2
mapfile -t wanted < <("$source/run" packages)
# Packages named, and all that they depend on, without what is only recommended.
closure=$(apt-cache depends --recurse --installed --no-recommends --no-suggests --no-conflicts --no-breaks --no-replaces \
  --no-enhances "${wanted[@]}" | sed -n 's/^\([a-z0-9].*\)/\1/p; s/^ *|\?Depends: //p' | sed 's/:any$//; s/:amd64$//' | grep -v '^<' | sort -u)
# What the compiler read for core, paper, twin, command line and application.
headers=$(ninja -C "$build" -t deps | awk '/^[^ ]/ { of_program = ($1 ~ /^(core|paper|twin|cli|app)\//) } of_program && /^ +\/usr\// { print $1 }' |
  xargs -r realpath | sort -u)
count=$(wc -l <<<"$headers")
[ "$count" -gt 500 ] || { echo "only $count headers found: build the programs first"; exit 1; }
owners=$(xargs -r dpkg-query -S <<<"$headers" 2>/dev/null | sed 's/: .*//; s/:[a-z0-9]*$//' | sort -u)
missing=$(comm -23 <(echo "$owners") <(echo "$closure"))
if [ -n "$missing" ]; then
  echo "read by the programs and installed by no package of the demo: $missing"
  exit 1
fi
echo "$count headers from $(wc -l <<<"$owners") packages, all installed for the demo"
