# ./lucid bench [name] [--json]: measures, each bench in a database and a stack of its own, which it removes again.
lucid_bench() {
  local name="" json=""
  for word in "$@"; do if [ "$word" = --json ]; then json=--json; else name="$word"; fi; done
  if [ -z "$name" ]; then
    say "Benches (./lucid bench <name> [--json]):"
    local file
    for file in ops/bench/*.php; do
      name="$(basename "$file" .php)"
      grep -q '^// Measures ' "$file" && say "  $(printf '%-12s' "$name") $(sed -n 's#^// Measures #measures #p' "$file" | head -1)"
    done
    say "  $(printf '%-12s' fuzz) tries every write with one thing wrong somewhere, by a new seed (LUCID_FUZZ_SEED, LUCID_FUZZ_TIMES)"
    return 0
  fi
  [ "$name" = fuzz ] && { lucid_fuzz; return; }
  grep -qs '^// Measures ' "ops/bench/$name.php" || { say "There is no bench \"$name\"; ./lucid bench lists them." >&2; return 2; }
  prepare test >&2
  app_user >&2
  local home was=no dir port code=0
  home="$(pg_home)"
  running "$home/data/postmaster.pid" "$home/data" && was=yes
  database_start test
  dir="$(stack_dir bench)"
  stack_stop bench
  rm -rf "$dir"
  mkdir -p "$dir/log" "$dir/storage/app/private" "$dir/storage/framework"/{cache/data,sessions,views} "$dir/storage/logs"
  trap 'stack_stop bench; database_drop lucid_bench; rm -rf "$(stack_dir bench)"; [ '"$was"' = yes ] || database_stop' EXIT
  database_drop lucid_bench
  database_make lucid_bench
  port="$(free_port 8288)"
  cat >"$dir/env" <<ENV
APP_ENV=production
APP_KEY=base64:$(head -c 32 /dev/urandom | base64)
APP_URL=http://127.0.0.1:$port
APP_CONFIG_CACHE=$dir/config.php
APP_ROUTES_CACHE=$dir/routes.php
LARAVEL_STORAGE_PATH=$dir/storage
DB_HOST=$DB_HOST
DB_PORT=$DB_PORT
DB_DATABASE=lucid_bench
DB_USERNAME=$DB_USERNAME
DB_PASSWORD=$DB_PASSWORD
DATABASE_URL=
LUCID_DEMO=false
LUCID_BENCH=true
LUCID_WRITES_PER_MINUTE=1000000
LUCID_WRITES_PER_MINUTE_AND_ADDRESS=1000000
LUCID_COSTLY_PER_MINUTE=1000000
SESSION_DRIVER=database
CACHE_STORE=file
LUCID_LIMITS_PATH=$(stack_memory bench)
QUEUE_CONNECTION=sync
LUCID_LOG=$dir/log/laravel.log
ENV
  (
    set -a
    . "$dir/env"
    set +a
    as_owner php artisan migrate:fresh --database=owner --force -q && php artisan config:cache -q && php artisan route:cache -q
  ) >&2 || fail "bench" "the database could not be made" "$dir/log/laravel.log"
  own "$dir/storage" "$dir/log"
  stack_write bench "$port"
  stack_fpm_start bench
  stack_nginx_start bench
  (
    set -a
    . "$dir/env"
    set +a
    LUCID_BENCH_URL="http://127.0.0.1:$port" as_owner php -d memory_limit=1G "ops/bench/$name.php" run "$json"
  ) || code=$?
  [ -z "${LUCID_PRELOAD_RECORD:-}" ] || php ops/preload-record.php "$dir/storage/preload" >&2
  return "$code"
}

# ./lucid bench fuzz: the test with the fixed seed, with a new one and ten times as many tries.
lucid_fuzz() {
  prepare test >&2
  app_user >&2
  local was=no home
  home="$(pg_home)"
  running "$home/data/postmaster.pid" "$home/data" && was=yes
  database_start test
  database_make lucid_feature_fuzz_test
  export LUCID_FUZZ_SEED="${LUCID_FUZZ_SEED:-$RANDOM}" LUCID_FUZZ_TIMES="${LUCID_FUZZ_TIMES:-20}"
  say "Seed $LUCID_FUZZ_SEED, $LUCID_FUZZ_TIMES tries for each place of a body"
  local code=0
  DATABASE_URL='' DB_DATABASE=lucid_feature_fuzz_test APP_KEY="$(cat "$VAR/test.key")" TEST_TOKEN=fuzz as_owner vendor/bin/phpunit \
    --cache-directory "$VAR/phpunit-fuzz" tests/Feature/Api/FuzzTest.php || code=$?
  [ "$was" = yes ] || database_stop
  return "$code"
}
