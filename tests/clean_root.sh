#!/usr/bin/env bash
# What a machine needs shows only on one that has nothing: a fresh Debian 12 in a folder of its own, where `./run demo`
# goes from nothing to its first window and `./run test` to its last test. Needs root (mmdebstrap, chroot) and the
# network that apt has. Usage: clean_root.sh [demo] [test], both when none is named. CLEAN_ROOT keeps the folder there.
set -euo pipefail
source=$(cd "$(dirname "$0")/.." && pwd)
what=("$@")
[ ${#what[@]} -gt 0 ] || what=(demo test)
root=${CLEAN_ROOT:-$(mktemp -d "${TMPDIR:-/var/tmp}/rigging_root.XXXXXX")}
leave() {
  for m in dev/pts dev proc sys; do umount -l "$root/$m" 2>/dev/null || true; done
  [ -n "${CLEAN_ROOT:-}" ] || rm -rf --one-file-system "$root"
}
trap leave EXIT
if [ ! -x "$root/bin/bash" ]; then
  # The same mirror and the same ways to it as this machine's.
  mirror=$(sed -n 's/^URIs: //p; s/^deb \([^ ]*\) .*/\1/p' /etc/apt/sources.list.d/debian.sources /etc/apt/sources.list 2>/dev/null | head -1)
  options=()
  for o in Acquire::http::Proxy Acquire::https::Proxy Acquire::Check-Valid-Until Acquire::Check-Date; do
    value=$(apt-config dump "$o" | sed -n 's/.* "\(.*\)";/\1/p')
    [ -z "$value" ] || options+=("--aptopt=$o \"$value\"")
  done
  mmdebstrap --variant=minbase --include=ca-certificates "${options[@]}" bookworm "$root" "${mirror:-http://deb.debian.org/debian}"
fi
for m in proc sys dev dev/pts; do mount --rbind "/$m" "$root/$m"; done
cp /etc/resolv.conf "$root/etc/resolv.conf" 2>/dev/null || true
mkdir -p "$root/home/builder/rigging"
git -C "$source" ls-files -z | (cd "$source" && xargs -0 tar cf - --ignore-failed-read) | tar xf - -C "$root/home/builder/rigging"
inside() { chroot "$root" /usr/bin/env -i PATH=/usr/sbin:/usr/bin:/sbin:/bin HOME=/home/builder LANG=C.UTF-8 CI=true bash -c "cd /home/builder/rigging && $1"; }
for w in "${what[@]}"; do
  began=$(date +%s)
  case "$w" in
    demo) inside './run demo --time-first-paint' ;;
    test) inside './run test' ;;
  esac
  echo "clean root: ./run $w in $(($(date +%s) - began)) s"
done
