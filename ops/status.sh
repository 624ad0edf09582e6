# ./lucid status [--json]
lucid_status() {
  local dir home port url; dir="$(stack_dir app)"
  port="$(cat "$dir/port" 2>/dev/null || true)"
  url="http://127.0.0.1:$port"
  home="$(pg_home 2>/dev/null || true)"
  local parts=() part pid state all=0
  look() { # NAME PIDFILE WORD
    if running "$2" "$3"; then pid=$(head -n 1 "$2"); state=running; else pid=null; state=stopped; all=1; fi
    parts+=("$1 $state $pid")
  }
  if [ -n "${DATABASE_URL:-}" ]; then parts+=("database outside null"); else look database "$home/data/postmaster.pid" "$home/data"; fi
  look php-fpm "$dir/fpm.pid" "$dir/fpm.conf"
  look nginx "$dir/nginx.pid" "$dir/nginx.conf"
  look worker "$dir/worker.pid" "ops/keep.sh worker"
  look scheduler "$dir/scheduler.pid" "ops/keep.sh scheduler"
  if [ "${1:-}" = --json ]; then
    local list=""
    for part in "${parts[@]}"; do
      # shellcheck disable=SC2086
      set -- $part
      list="$list${list:+, }\"$1\": {\"state\": \"$2\", \"pid\": $3}"
    done
    printf '{"url": %s, "parts": {%s}}\n' "$([ "$all" = 0 ] && echo "\"$url\"" || echo null)" "$list"
  else
    for part in "${parts[@]}"; do
      # shellcheck disable=SC2086
      set -- $part
      printf '%-10s %-8s %s\n' "$1" "$2" "${3/null/}"
    done
    [ "$all" = 0 ] && say "$url" || true
  fi
  return "$all"
}
