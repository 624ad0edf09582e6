# ./lucid test [part…]: the whole check.
lucid_test() {
  local parts=("$@") part began=$SECONDS home
  database_was_running=no
  [ ${#parts[@]} -gt 0 ] || parts=(style analyse api front core feature browser)
  prepare test
  app_user
  home="$(pg_home)"
  running "$home/data/postmaster.pid" "$home/data" && database_was_running=yes
  trap 'browser_stop; [ "$database_was_running" = yes ] || database_stop' EXIT
  [ -f "$VAR/test.key" ] || (umask 077; printf 'base64:%s' "$(head -c 32 /dev/urandom | base64)" >"$VAR/test.key")
  for part in "${parts[@]}"; do
    say "== $part"
    "test_$part" || fail "test $part" "see above"
  done
  say "All checks passed in $((SECONDS - began))s."
}

browser_stop() { for ((lane = 1; lane <= BROWSER_LANES; lane++)); do stack_stop "test-$lane"; done; }

test_style() {
  local php=(app bootstrap/app.php bootstrap/providers.php config core database demo ops packages routes tests)
  vendor/bin/php-cs-fixer check --quiet || { vendor/bin/php-cs-fixer check --diff; return 1; }
  npx prettier --check --log-level warn --ignore-unknown "${php[@]}" resources/js resources/css &&
    npx eslint --max-warnings 0 resources/js tests/Front && short_enough
}

# Lines to 140 columns, files to 400 lines: what is longer is two things.
short_enough() {
  local files; mapfile -t files < <(git ls-files -- '*.php' '*.ts' '*.vue' ':!:*.d.ts')
  php ops/lengths.php 140 400 "${files[@]}"
}
test_analyse() { vendor/bin/phpstan analyse -c phpstan-core.neon --no-progress --memory-limit=1G && vendor/bin/phpstan analyse -c phpstan.neon --no-progress --memory-limit=1G; }
test_front() { npx vue-tsc --noEmit -p tsconfig.json && npx vitest run --reporter=dot; }

# The API description and the types made from it must be those in the repository.
test_api() {
  php ops/openapi.php >"$VAR/openapi.json" || return 1
  cmp -s "$VAR/openapi.json" docs/openapi.json || { say "docs/openapi.json is stale: run php ops/openapi.php > docs/openapi.json"; return 1; }
  php ops/access.php | cmp -s - docs/access.md || { say "docs/access.md is stale: run php ops/access.php > docs/access.md"; return 1; }
  npx openapi-typescript docs/openapi.json -o "$VAR/schema.d.ts" >/dev/null 2>&1 || return 1
  cmp -s "$VAR/schema.d.ts" resources/js/api/schema.d.ts || { say "resources/js/api/schema.d.ts is stale: run npm run api-types"; return 1; }
}

test_core() { vendor/bin/phpunit --testsuite core; }

# Feature tests in two halves side by side, then what wants the cluster for itself. A directory that is in neither half would
# be tested by nobody.
test_feature() {
  database_start test
  local suite dir lanes=() failed=0
  for dir in tests/Feature/*/; do
    grep -q "<directory>${dir%/}</directory>" phpunit.xml || { say "phpunit.xml has no suite with ${dir%/}"; return 1; }
  done
  for suite in walk rest; do
    feature_suite "$suite" >"$VAR/log/feature-$suite.log" 2>&1 &
    lanes+=($!)
  done
  for lane in "${lanes[@]}"; do wait "$lane" || failed=1; done
  cat "$VAR/log/feature-walk.log" "$VAR/log/feature-rest.log"
  [ "$failed" = 0 ] && feature_suite alone
}

# feature_suite NAME: on a database and a disk of its own.
feature_suite() {
  database_make "lucid_feature_${1}_test"
  DATABASE_URL='' DB_DATABASE="lucid_feature_${1}_test" APP_KEY="$(cat "$VAR/test.key")" TEST_TOKEN="$1" as_owner vendor/bin/phpunit --testsuite "feature-$1" --cache-directory "$VAR/phpunit-$1"
}

# Browser tests wait more than they work: so many lanes, each with a database and a stack of its own.
BROWSER_LANES=2

test_browser() {
  database_start test
  local lane class lanes=() queue="$VAR/browser-queue" failed=0
  # The longest first, so that no lane is left with one at the end: a class with one test is a tour of all pages.
  vendor/bin/phpunit --testsuite browser ${LUCID_TEST_ONLY:+--filter "$LUCID_TEST_ONLY"} --list-tests | sed -nE 's/^ - .*\\(\w+)::.*/\1/p' | sort | uniq -c | awk '{ print ($1 == 1 ? 99 : $1), $2 }' | sort -k1,1rn -k2 | cut -d' ' -f2 >"$queue"
  [ -s "$queue" ] || { say "No browser test is called so: ${LUCID_TEST_ONLY:-}"; return 1; }
  rm -f "$VAR/browser-failed"
  for ((lane = 1; lane <= BROWSER_LANES; lane++)); do
    browser_lane "test-$lane" "$queue" &
    lanes+=($!)
  done
  for lane in "${lanes[@]}"; do wait "$lane" || failed=1; done
  [ "$failed" = 0 ] && [ ! -e "$VAR/browser-failed" ]
}

# browser_lane STACK QUEUE: makes a stack with the demo, and runs what it takes from the queue until that is empty.
browser_lane() {
  local dir; dir="$(stack_dir "$1")"
  local class began
  browser_stack "$1" || return 1
  set -a
  . "$dir/env"
  LUCID_TEST_URL="$APP_URL"
  LUCID_TEST_STACK="$1"
  set +a
  while class="$(flock "$2.lock" sh -c 'head -n 1 "$1"; sed -i 1d "$1"' - "$2")" && [ -n "$class" ]; do
    began=$SECONDS
    if as_owner vendor/bin/phpunit ${LUCID_TEST_ONLY:+--filter "$LUCID_TEST_ONLY"} "tests/Browser/$class.php" >"$VAR/log/browser-$class.log" 2>&1; then
      say "$class: $(sed -nE 's/^OK \((.*)\)$/\1/p' "$VAR/log/browser-$class.log"), $((SECONDS - began))s"
      grep -ho 'First load of .*' "$VAR/log/browser-$class.log" || true
    else
      : >"$VAR/browser-failed"
      say "$class failed after $((SECONDS - began))s:"
      cat "$VAR/log/browser-$class.log"
    fi
  done
}

# browser_stack NAME: a stack for browser tests, the demo in its database and kept as a dump that each test begins from.
browser_stack() {
  local dir port practice database; dir="$(stack_dir "$1")"
  database="lucid_browser_${1##*-}_test"
  database_make "$database"
  stack_stop "$1"
  mkdir -p "$dir/log" "$dir/storage/app/private" "$dir/storage/framework"/{cache/data,sessions,views} "$dir/storage/logs"
  port="$(free_port "$((8088 + 100 * ${1##*-}))")"
  practice="$(free_port "$((port + 1))")"
  cat >"$dir/env" <<ENV
APP_ENV=testing
APP_KEY=$(cat "$VAR/test.key")
APP_URL=http://127.0.0.1:$port
PRACTICE_URL=http://127.0.0.1:$practice/
APP_CONFIG_CACHE=$dir/config.php
APP_ROUTES_CACHE=$dir/routes.php
LARAVEL_STORAGE_PATH=$dir/storage
DB_HOST=$DB_HOST
DB_PORT=$DB_PORT
DB_DATABASE=$database
DB_USERNAME=$DB_USERNAME
DB_PASSWORD=$DB_PASSWORD
DATABASE_URL=
LUCID_DEMO=true
LUCID_DEMO_PASSWORD=lantern-on-the-path
BCRYPT_ROUNDS=4
SESSION_DRIVER=database
CACHE_STORE=file
LUCID_LIMITS_PATH=$(stack_memory "$1")
QUEUE_CONNECTION=sync
LUCID_LOG=$dir/log/laravel.log
ENV
  (
    set -a
    . "$dir/env"
    set +a
    rm -f "$dir/config.php" "$dir/routes.php"
    as_owner php artisan lucid:demo --fresh && php artisan config:cache -q && php artisan route:cache -q &&
      PGPASSWORD="$(setting "$PG_SETTINGS" DB_OWNER_PASSWORD)" pg_dump --host="$DB_HOST" --port="$DB_PORT" --username=lucid_owner --format=custom --table='public.*' --file="$dir/storage/demo.dump" "$database" &&
      own "$dir/storage" && rm -rf "$dir/storage/demo-files" && cp -a "$dir/storage/app" "$dir/storage/demo-files"
  ) || return 1
  own "$dir/storage" "$dir/log"
  LUCID_WORKERS=5 stack_write "$1" "$port" "$practice"
  stack_fpm_start "$1"
  stack_nginx_start "$1"
}
