# ./lucid start and ./lucid reset-demo

# settings: writes .env once, and keeps the address and the database in it true.
settings() {
  [ -f .env ] || (umask 077; printf 'APP_ENV=production\nAPP_KEY=base64:%s\nLUCID_DEMO=true\n' "$(head -c 32 /dev/urandom | base64)" >.env)
  local keep; keep="$(grep -vE '^(APP_URL|DB_HOST|DB_PORT|DB_DATABASE|DB_USERNAME|DB_PASSWORD|DATABASE_URL)=' .env || true)"
  (
    umask 077
    {
      printf '%s\n' "$keep"
      echo "APP_URL=http://127.0.0.1:$1"
      if [ -n "${DATABASE_URL:-}" ]; then echo "DATABASE_URL=\"$DATABASE_URL\""; else
        printf 'DB_HOST=%s\nDB_PORT=%s\nDB_DATABASE=lucid\nDB_USERNAME=%s\nDB_PASSWORD=%s\n' "$DB_HOST" "$DB_PORT" "$DB_USERNAME" "$DB_PASSWORD"
      fi
    } >.env.new
  )
  if cmp -s .env .env.new; then rm .env.new; return 1; fi
  mv .env.new .env
}

lucid_start() {
  prepare
  database_start
  [ -n "${DATABASE_URL:-}" ] || database_make lucid
  local dir port; dir="$(stack_dir app)"
  mkdir -p "$dir/log"
  port="$(cat "$dir/port" 2>/dev/null || true)"
  if ! running "$dir/nginx.pid" "$dir/nginx.conf"; then
    if [ -n "${LUCID_PORT:-}" ]; then
      port_free "$LUCID_PORT" || fail "nginx" "port $LUCID_PORT is taken (LUCID_PORT)"
      port="$LUCID_PORT"
    else
      port="$(free_port "${port:-8088}")"
    fi
  elif [ -n "${LUCID_PORT:-}" ] && [ "$LUCID_PORT" != "$port" ]; then
    port_free "$LUCID_PORT" || fail "nginx" "port $LUCID_PORT is taken (LUCID_PORT)"
    stack_stop app
    port="$LUCID_PORT"
  fi
  echo "$port" >"$dir/port"
  local changed=no
  settings "$port" && changed=yes
  : >"$dir/env"
  local code=(app bootstrap/app.php bootstrap/providers.php config core database routes demo/src resources/views composer.json)
  if [ "$changed" = yes ] || ! stamped app "${code[@]}" || [ ! -f bootstrap/cache/config.php ]; then
    php artisan config:clear -q || fail "application" "it does not start" storage/logs/laravel.log
    php artisan package:discover -q
    logged "Bringing the database up to date" migrate as_owner php artisan migrate --database=owner --force
    php artisan lucid:check-database || fail "database" "its roles do not keep what was recorded (docs/operations.md, \"An outside database\")"
    php artisan config:cache -q && php artisan route:cache -q && php artisan view:cache -q
    stack_stop app
    stamp app "${code[@]}"
  fi
  if [ "$(setting .env LUCID_DEMO)" = true ]; then
    logged "Looking after the demo" demo php artisan lucid:demo --if-empty
  fi
  stack_write app "$port"
  stack_fpm_start app
  stack_nginx_start app
  stack_background app worker php artisan queue:work --sleep=1 --tries=3 --max-time=3600
  stack_background app scheduler php artisan schedule:work
  local n=0
  until curl -fsS -o /dev/null "http://127.0.0.1:$port/ready" 2>/dev/null; do
    n=$((n + 1))
    [ "$n" -gt 50 ] && fail "application" "no answer at http://127.0.0.1:$port" storage/logs/laravel.log
    sleep 0.1
  done
  say ""
  say "Lucid Step is at http://127.0.0.1:$port"
  say "The practice page is at http://127.0.0.1:$port/practice/"
  [ "$(setting .env LUCID_DEMO)" = true ] && php artisan lucid:demo --sign-ins
  return 0
}

lucid_reset_demo() {
  [ -f .env ] || fail "reset-demo" "nothing is set up yet: ./lucid start first"
  [ "$(setting .env LUCID_DEMO)" = true ] || fail "reset-demo" "this is not a demo (LUCID_DEMO in .env); nothing was touched"
  prepare
  database_start
  settings "$(cat "$(stack_dir app)/port" 2>/dev/null || echo 8088)" && php artisan config:cache -q
  logged "Loading the demo again" demo as_owner php artisan lucid:demo --fresh
}
