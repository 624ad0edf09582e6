# ./lucid test [part…]: the whole check.
lucid_test() {
  local parts=("$@") part began=$SECONDS home
  database_was_running=no
  [ ${#parts[@]} -gt 0 ] || parts=(style analyse api front core feature browser)
  prepare test
  home="$(pg_home)"
  running "$home/data/postmaster.pid" "$home/data" && database_was_running=yes
  trap 'stack_stop test; [ "$database_was_running" = yes ] || database_stop' EXIT
  [ -f "$VAR/test.key" ] || (umask 077; printf 'base64:%s' "$(head -c 32 /dev/urandom | base64)" >"$VAR/test.key")
  for part in "${parts[@]}"; do
    say "== $part"
    "test_$part" || fail "test $part" "see above"
  done
  say "All checks passed in $((SECONDS - began))s."
}

test_style() { vendor/bin/pint --test && npx prettier --check --log-level warn resources/js resources/css tests/Front && npx eslint --max-warnings 0 resources/js tests/Front; }
test_analyse() { vendor/bin/phpstan analyse -c phpstan-core.neon --no-progress --memory-limit=1G && vendor/bin/phpstan analyse -c phpstan.neon --no-progress --memory-limit=1G; }
test_front() { npx vue-tsc --noEmit -p tsconfig.json && npx vitest run --reporter=dot; }

# The API description and the types made from it must be those in the repository.
test_api() {
  php ops/openapi.php >"$VAR/openapi.json" || return 1
  cmp -s "$VAR/openapi.json" docs/openapi.json || { say "docs/openapi.json is stale: run php ops/openapi.php > docs/openapi.json"; return 1; }
  npx openapi-typescript docs/openapi.json -o "$VAR/schema.d.ts" >/dev/null 2>&1 || return 1
  cmp -s "$VAR/schema.d.ts" resources/js/api/schema.d.ts || { say "resources/js/api/schema.d.ts is stale: run npm run api-types"; return 1; }
}

test_core() { vendor/bin/phpunit --testsuite core; }

test_feature() {
  database_start test
  database_make lucid_feature_test
  DATABASE_URL='' DB_DATABASE=lucid_feature_test APP_KEY="$(cat "$VAR/test.key")" vendor/bin/phpunit --testsuite feature
}

test_browser() {
  database_start test
  database_make lucid_browser_test
  local dir port; dir="$(stack_dir test)"
  stack_stop test
  mkdir -p "$dir/log" "$dir/storage/app/private" "$dir/storage/framework"/{cache/data,sessions,views} "$dir/storage/logs"
  port="$(free_port 8188)"
  cat >"$dir/env" <<ENV
APP_ENV=testing
APP_KEY=$(cat "$VAR/test.key")
APP_URL=http://127.0.0.1:$port
APP_CONFIG_CACHE=$dir/config.php
APP_ROUTES_CACHE=$dir/routes.php
LARAVEL_STORAGE_PATH=$dir/storage
DB_HOST=$DB_HOST
DB_PORT=$DB_PORT
DB_DATABASE=lucid_browser_test
DB_USERNAME=$DB_USERNAME
DB_PASSWORD=$DB_PASSWORD
DATABASE_URL=
LUCID_DEMO=true
BCRYPT_ROUNDS=4
SESSION_DRIVER=file
CACHE_STORE=file
QUEUE_CONNECTION=sync
LUCID_LOG=$dir/log/laravel.log
ENV
  (
    set -a
    . "$dir/env"
    set +a
    rm -f "$dir/config.php" "$dir/routes.php"
    php artisan migrate:fresh --force -q && php artisan lucid:demo --fresh && php artisan config:cache -q && php artisan route:cache -q
  ) || return 1
  stack_write test "$port"
  stack_fpm_start test
  stack_nginx_start test
  (
    set -a
    . "$dir/env"
    set +a
    LUCID_TEST_URL="http://127.0.0.1:$port" vendor/bin/phpunit --testsuite browser ${LUCID_TEST_ONLY:+--filter "$LUCID_TEST_ONLY"}
  )
}
