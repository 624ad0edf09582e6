# ./lucid start and ./lucid reset-demo

# settings PORT PRACTICE_PORT: writes .env once, and keeps the address and the database in it true. An address that somebody set stays.
settings() {
  [ -f .env ] || (umask 077; printf 'APP_ENV=production\nAPP_KEY=base64:%s\nLUCID_DEMO=true\n' "$(head -c 32 /dev/urandom | base64)" >.env)
  local keep url practice; keep="$(grep -vE '^(APP_URL|PRACTICE_URL|DB_HOST|DB_PORT|DB_DATABASE|DB_USERNAME|DB_PASSWORD|DATABASE_URL|LUCID_LIMITS_PATH)=' .env || true)"
  url="$(setting .env APP_URL)"
  practice="$(setting .env PRACTICE_URL)"
  # Where people reach the application by another name, whoever runs it says where they reach the practice page.
  if [[ "$url" =~ ^(http://127\.0\.0\.1(:[0-9]+)?)?$ ]]; then
    url="http://127.0.0.1:$1"
    [[ "$practice" =~ ^(http://127\.0\.0\.1(:[0-9]+)?/?)?$ ]] && practice="http://127.0.0.1:$2/"
  elif [[ "$practice" =~ ^http://127\.0\.0\.1(:[0-9]+)?/?$ ]]; then practice=""; fi
  (
    umask 077
    {
      printf '%s\n' "$keep"
      # Every installation's demo has a password of its own.
      grep -q '^LUCID_DEMO_PASSWORD=' <<<"$keep" || echo "LUCID_DEMO_PASSWORD=$(random_word | tr 'A-Z' 'a-z' | head -c 12)"
      printf 'APP_URL=%s\nPRACTICE_URL=%s\nLUCID_LIMITS_PATH=%s\n' "$url" "$practice" "$(stack_memory app)"
      if [ -n "${DATABASE_URL:-}" ]; then echo "DATABASE_URL=\"$DATABASE_URL\""; else
        printf 'DB_HOST=%s\nDB_PORT=%s\nDB_DATABASE=lucid\nDB_USERNAME=%s\nDB_PASSWORD=%s\n' "$DB_HOST" "$DB_PORT" "$DB_USERNAME" "$DB_PASSWORD"
      fi
    } >.env.new
  )
  if cmp -s .env .env.new; then rm .env.new; return 1; fi
  mv .env.new .env
}

lucid_start() {
  case "${1:-}" in
    "") ;;
    --empty)
      # What an installation is for is said once, when it is made.
      [ ! -f .env ] || [ "$(setting .env LUCID_DEMO)" = false ] || fail "start --empty" "this installation has the demo; make another beside it, or write LUCID_DEMO=false into .env"
      [ -f .env ] || (umask 077; printf 'APP_ENV=production\nAPP_KEY=base64:%s\nLUCID_DEMO=false\n' "$(head -c 32 /dev/urandom | base64)" >.env)
      ;;
    *) fail "start" "there is no option $1 (--empty begins without the demo)" ;;
  esac
  prepare
  app_user
  database_start
  [ -n "${DATABASE_URL:-}" ] || database_make lucid
  local dir port practice; dir="$(stack_dir app)"
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
  # The practice page keeps its port as long as its nginx runs, or nobody took it.
  practice="${LUCID_PRACTICE_PORT:-$(cat "$dir/practice-port" 2>/dev/null || echo $((port + 1)))}"
  [ "$practice" != "$port" ] || practice=$((port + 1))
  running "$dir/nginx.pid" "$dir/nginx.conf" && grep -q ":$practice[; ]" "$dir/nginx.conf" || practice="$(free_port "$practice")"
  echo "$practice" >"$dir/practice-port"
  settings "$port" "$practice" || true
  : >"$dir/env"
  # What somebody wrote into .env by hand counts like a change of code.
  local code=(.env app bootstrap/app.php bootstrap/providers.php config core database lang routes demo/src resources/views composer.json ops/stack.sh)
  if ! stamped app "${code[@]}" || [ ! -f bootstrap/cache/config.php ]; then
    php artisan config:clear -q || fail "application" "it does not start" storage/logs/laravel.log
    php artisan package:discover -q
    logged "Bringing the database up to date" migrate as_owner php artisan migrate --database=owner --force
    php artisan lucid:check-database || fail "database" "its roles do not keep what was recorded (docs/operations.md, \"An outside database\")"
    (umask 027; php artisan config:cache -q && php artisan route:cache -q && php artisan view:cache -q)
    [ "$APP_USER" != lucid-step ] || { chgrp lucid-step .env bootstrap/cache/*.php && chmod 640 .env bootstrap/cache/*.php; }
    stack_stop app
    stamp app "${code[@]}"
  fi
  own storage
  if [ "$(setting .env LUCID_DEMO)" = true ]; then
    logged "Looking after the demo" demo "${AS_APP[@]}" php artisan lucid:demo --if-empty
  else
    "${AS_APP[@]}" php artisan lucid:demo --close
  fi
  [ "$(setting .env LUCID_DEMO)" = true ] || practice=""
  STACK_TLS=yes stack_write app "$port" "$practice"
  stack_fpm_start app
  stack_nginx_start app
  stack_background app worker "${AS_APP[@]}" php artisan queue:work --sleep=1 --tries=3 --max-time=3600
  stack_background app scheduler "${AS_APP[@]}" php artisan schedule:work
  local n=0
  local scheme=http
  [ -z "$(setting .env LUCID_TLS_CERTIFICATE)" ] || scheme=https
  until curl -kfsS -o /dev/null "$scheme://127.0.0.1:$port/ready" 2>/dev/null; do
    n=$((n + 1))
    [ "$n" -gt 50 ] && fail "application" "no answer at http://127.0.0.1:$port" storage/logs/laravel.log
    sleep 0.1
  done
  say ""
  say "Lucid Step is at $(setting .env APP_URL)"
  [ -z "$practice" ] || say "The practice page is at $(setting .env PRACTICE_URL)"
  if [ "$(setting .env LUCID_DEMO)" = true ]; then "${AS_APP[@]}" php artisan lucid:demo --sign-ins; else "${AS_APP[@]}" php artisan lucid:owner --if-none; fi
  return 0
}

lucid_reset_demo() {
  [ -f .env ] || fail "reset-demo" "nothing is set up yet: ./lucid start first"
  [ "$(setting .env LUCID_DEMO)" = true ] || fail "reset-demo" "this is not a demo (LUCID_DEMO in .env); nothing was touched"
  prepare
  app_user
  database_start
  settings "$(cat "$(stack_dir app)/port" 2>/dev/null || echo 8088)" "$(cat "$(stack_dir app)/practice-port" 2>/dev/null || echo 8089)" && php artisan config:cache -q
  rm -rf storage/tracker
  logged "Loading the demo again" demo as_owner php artisan lucid:demo --fresh
  own storage
}
