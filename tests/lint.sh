#!/usr/bin/env bash
# The linter over the programs' code, a folder at a time as it is compiled. What it had nothing to say of is remembered by
# the content of all files that were read for it, so that only what changed is read again, in every clone.
# Usage: lint.sh SOURCE BUILD CLANG_TIDY
set -euo pipefail
source=$1 build=$2 tidy=$3
memory=${XDG_CACHE_HOME:-$HOME/.cache}/rigging/lint
mkdir -p "$memory" "$build/lint"
# Another compiler's precompiled headers and options mean nothing to it.
sed -E 's/-Winvalid-pch -include [^ "]*cmake_pch[^ "]*//; s/-fpch-preprocess//' "$build/compile_commands.json" >"$build/lint/compile_commands.json"
ground=$(cat "$source/.clang-tidy" <("$tidy" --version) | sha256sum)

# Every object of the programs with the project's files that the compiler read for it: "OBJECT FILE FILE …".
units=$(ninja -C "$build" -t deps | awk -v source="$source/" '
  /^[^ ]/ { if (line) print line; line = ($1 ~ /^(core|paper|twin|cli|app)\/.*\.o:$/ && $1 !~ /mocs_compilation|cmake_pch/) ? substr($1, 1, length($1) - 1) : "" }
  line && /^ / { if (index($1, "/") != 1 || index($1, source) == 1) line = line " " $1 }
  END { if (line) print line }')
lint_one() {
  local object=$1; shift
  local unit key
  unit=$(cd "$build" && ninja -t inputs "$object" 2>/dev/null | grep -E '\.(cxx|cpp)$' | grep -v cmake_pch | head -1)
  case "$unit" in /*) ;; *) unit=$build/$unit ;; esac
  # Files are named from the build folder; what they hold and how they are called decides, not where the clone stands.
  key=$( (cd "$build" && echo "$ground" && for f in "$@"; do case "$f" in */cmake_pch*) ;; *) echo "${f##*/}"; cat "$f" ;; esac; done) | sed "s|$source||g" | sha256sum | cut -d' ' -f1)
  [ -e "$memory/$key" ] && return 0
  if "$tidy" -p "$build/lint" -quiet "$unit" >"$build/lint/${key}.out" 2>&1; then
    touch "$memory/$key"
  else
    cat "$build/lint/${key}.out"
    return 1
  fi
}
export -f lint_one
export source build tidy memory ground
count=$(wc -l <<<"$units")
[ "$count" -gt 40 ] || { echo "only $count units found: build the programs first"; exit 1; }
xargs -P 2 -d '\n' -I{} bash -c 'lint_one $1' _ {} <<<"$units"
find "$memory" -type f -atime +30 -delete
echo "the linter has nothing to say of $count units"
