#!/usr/bin/env bash
# Kills a part of the bench's stack as a power cut would, and starts it again: kill.sh fpm | postgres
set -u
cd "$(dirname "$0")/../.." && ROOT="$PWD"
. ops/lib.sh
. ops/database.sh
. ops/stack.sh
case "$1" in
  fpm)
    pid="$(cat "$(stack_dir bench)/fpm.pid" 2>/dev/null || true)"
    [ -n "$pid" ] && { children="$(pgrep -P "$pid")"; kill -9 "$pid" $children; sleep 0.1; }
    stack_fpm_start bench
    ;;
  postgres)
    home="$(pg_home)"
    pid="$(head -1 "$home/data/postmaster.pid")"
    export LUCID_DB_PORT; LUCID_DB_PORT="$(sed -n 4p "$home/data/postmaster.pid")"
    children="$(pgrep -P "$pid")"
    kill -9 "$pid" $children
    sleep 0.5
    rm -f "$home/data/postmaster.pid"
    # What it holds open would keep whoever reads this bench waiting.
    database_start test 3>&- 4>&-
    ;;
esac
