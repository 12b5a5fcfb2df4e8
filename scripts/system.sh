#!/usr/bin/env bash
# Install the Debian packages that are missing: PostgreSQL, Chromium, Pango, nginx, and Python's venv.
set -euo pipefail
missing=()
ls /usr/lib/postgresql/*/bin/initdb >/dev/null 2>&1 || missing+=(postgresql)
# The proxy that the example of docs/running.md is tried with.
{ command -v nginx || ls /usr/sbin/nginx; } >/dev/null 2>&1 || missing+=(nginx-light)
command -v chromium >/dev/null 2>&1 || missing+=(chromium)
# What lays out text on a page of minutes.
ls /usr/lib/*/libpangoft2-1.0.so.0 >/dev/null 2>&1 || missing+=(libpangoft2-1.0-0)
ls /usr/lib/*/libharfbuzz-subset.so.0 >/dev/null 2>&1 || missing+=(libharfbuzz-subset0)
python3 -c 'import ensurepip' >/dev/null 2>&1 || missing+=(python3-venv)
[ ${#missing[@]} -gt 0 ] || exit 0
if [ "$(id -u)" -ne 0 ]; then
    echo "These Debian packages are missing: ${missing[*]}. Run once as root: apt-get install ${missing[*]}" >&2
    exit 1
fi
echo "Installing ${missing[*]} ..."
export DEBIAN_FRONTEND=noninteractive
apt-get update -qq
# Debian would start a cluster of its own; Stair Path brings one.
mkdir -p /etc/postgresql-common
[ -e /etc/postgresql-common/createcluster.conf ] || echo 'create_main_cluster = false' > /etc/postgresql-common/createcluster.conf
# Nor does its nginx serve anything by itself.
[ -e /usr/sbin/policy-rc.d ] || { printf '#!/bin/sh\nexit 101\n' > /usr/sbin/policy-rc.d; chmod +x /usr/sbin/policy-rc.d; own_policy=1; }
apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
[ -z "${own_policy:-}" ] || rm -f /usr/sbin/policy-rc.d
