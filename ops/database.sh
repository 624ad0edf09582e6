# A PostgreSQL cluster of this checkout's own, on loopback, with a generated password.
PG_BIN=/usr/lib/postgresql/15/bin
PG_SETTINGS="$VAR/database.env"

# The data lies under var/, unless the postgres user cannot reach it (as under /root).
pg_home() {
  if [ "$AS_ROOT" = no ] || runuser -u postgres -- test -x "$VAR" 2>/dev/null; then
    echo "$VAR/postgresql"
  else
    echo "/var/lib/lucid-step/$(printf '%s' "$ROOT" | sha256sum | cut -c1-12)"
  fi
}

pg_run() { if [ "$AS_ROOT" = yes ]; then (cd / && runuser -u postgres -- "$@"); else "$@"; fi; }

# database_start: makes the cluster if there is none, starts it, and sets DB_* for what follows.
database_start() {
  if [ -n "${DATABASE_URL:-}" ] && [ "${1:-}" != test ]; then return 0; fi
  local home; home="$(pg_home)"
  if [ ! -f "$home/data/PG_VERSION" ]; then
    mkdir -p "$home"
    if [ "$AS_ROOT" = yes ]; then chown postgres:postgres "$home"; chmod 700 "$home"; fi
    local password; password="$(random_word)"
    umask 077
    printf '%s' "$password" >"$home/password"
    umask 022
    [ "$AS_ROOT" = yes ] && chown postgres:postgres "$home/password"
    logged "Making the database cluster" initdb pg_run "$PG_BIN/initdb" -D "$home/data" -U lucid -E UTF8 --locale=C.UTF-8 \
      --auth=scram-sha-256 --pwfile="$home/password"
    rm -f "$home/password"
    (umask 077; printf 'DB_USERNAME=lucid\nDB_PASSWORD=%s\n' "$password" >"$PG_SETTINGS")
  fi
  export DB_HOST=127.0.0.1 DB_USERNAME DB_PASSWORD DB_PORT
  DB_USERNAME="$(setting "$PG_SETTINGS" DB_USERNAME)"
  DB_PASSWORD="$(setting "$PG_SETTINGS" DB_PASSWORD)"
  [ -n "$DB_PASSWORD" ] || fail "database" "the cluster in $home has no password in ${PG_SETTINGS#"$ROOT"/}; remove both to start over"
  if running "$home/data/postmaster.pid" "$home/data"; then
    DB_PORT="$(sed -n 4p "$home/data/postmaster.pid")"
  else
    DB_PORT="$(free_port "${LUCID_DB_PORT:-54330}")"
    local log="$home/postgresql.log" # beside the data: the postgres user can write there
    pg_run "$PG_BIN/pg_ctl" -D "$home/data" -l "$log" -w -t 60 \
      -o "-p $DB_PORT -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c shared_buffers=256MB -c max_connections=120" \
      start >"$VAR/log/pg_ctl.log" 2>&1 || fail "database" "PostgreSQL did not start" "$log"
    touch "$VAR/database.started"
  fi
}

database_stop() {
  local home; home="$(pg_home 2>/dev/null || true)"
  [ -n "$home" ] && running "$home/data/postmaster.pid" "$home/data" || return 0
  pg_run "$PG_BIN/pg_ctl" -D "$home/data" -m fast -w stop >"$VAR/log/pg_ctl.log" 2>&1 || fail "database" "PostgreSQL did not stop" "$VAR/log/pg_ctl.log"
}

# database_make NAME: creates a database if it is not there.
database_make() {
  export PGPASSWORD="$DB_PASSWORD"
  if [ "$(psql -h "$DB_HOST" -p "$DB_PORT" -U "$DB_USERNAME" -d postgres -Atc "select 1 from pg_database where datname = '$1'")" != 1 ]; then
    psql -q -h "$DB_HOST" -p "$DB_PORT" -U "$DB_USERNAME" -d postgres -c "create database \"$1\"" >/dev/null || fail "database" "could not create $1"
  fi
}
