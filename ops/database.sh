# A PostgreSQL cluster of this checkout's own, on loopback, with generated passwords. Its roles:
#   lucid        the administrator, used by this command alone
#   lucid_owner  owns the databases; migrations run as it
#   lucid_app    the application: it may not change what was recorded
#   lucid_test   made where tests run: the same rights, and it may become the owner
PG_BIN=/usr/lib/postgresql/15/bin
PG_SETTINGS="$VAR/database.env"
OWNER_SETTINGS="$VAR/owner.env"

# The data lies under var/, unless the postgres user cannot reach it (as under /root).
pg_home() {
  if [ "$AS_ROOT" = no ] || runuser -u postgres -- test -x "$VAR" 2>/dev/null; then
    echo "$VAR/postgresql"
  else
    echo "/var/lib/lucid-step/$(printf '%s' "$ROOT" | sha256sum | cut -c1-12)"
  fi
}

pg_run() { if [ "$AS_ROOT" = yes ]; then (cd / && runuser -u postgres -- "$@"); else "$@"; fi; }

# database_start [test]: makes the cluster if there is none, starts it, and sets DB_* for what follows.
database_start() {
  if [ -n "${DATABASE_URL:-}" ] && [ "${1:-}" != test ]; then
    # The owner of an outside database is not told to the application, so it is kept beside its settings.
    [ -z "${DATABASE_OWNER_URL:-}" ] || (umask 077; printf 'DATABASE_OWNER_URL=%s\n' "$DATABASE_OWNER_URL" >"$OWNER_SETTINGS")
    return 0
  fi
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
  [ -n "$(setting "$PG_SETTINGS" DB_PASSWORD)" ] || fail "database" "the cluster in $home has no password in ${PG_SETTINGS#"$ROOT"/}; remove both to start over"
  if running "$home/data/postmaster.pid" "$home/data"; then
    DB_PORT="$(sed -n 4p "$home/data/postmaster.pid")"
  else
    DB_PORT="$(free_port "${LUCID_DB_PORT:-54330}")"
    local log="$home/postgresql.log" # beside the data: the postgres user can write there
    pg_run "$PG_BIN/pg_ctl" -D "$home/data" -l "$log" -w -t 60 \
      -o "-p $DB_PORT -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c shared_buffers=256MB -c max_connections=120 -c random_page_cost=2 -c effective_cache_size=1GB" \
      start >"$VAR/log/pg_ctl.log" 2>&1 || fail "database" "PostgreSQL did not start" "$log"
    touch "$VAR/database.started"
  fi
  database_role owner
  database_role "${1:-app}"
  DB_USERNAME="lucid_${1:-app}"
  DB_PASSWORD="$(setting "$PG_SETTINGS" "DB_$(tr a-z A-Z <<<"${1:-app}")_PASSWORD")"
}

# database_admin [psql options]: psql as the administrator.
database_admin() {
  PGPASSWORD="$(setting "$PG_SETTINGS" DB_PASSWORD)" psql -q -v ON_ERROR_STOP=1 -h "$DB_HOST" -p "$DB_PORT" -U "$(setting "$PG_SETTINGS" DB_USERNAME)" "$@"
}

# database_role NAME: makes a role that is not there yet, with a password of its own.
database_role() {
  local key password; key="DB_$(tr a-z A-Z <<<"$1")_PASSWORD"
  [ -n "$(setting "$PG_SETTINGS" "$key")" ] && return 0
  password="$(random_word)"
  database_admin -d postgres >/dev/null <<SQL || fail "database" "could not make the role lucid_$1"
do \$\$ begin create role lucid_$1; exception when duplicate_object then null; end \$\$;
alter role lucid_$1 login nosuperuser nocreatedb nocreaterole $([ "$1" = owner ] && echo inherit || echo noinherit) password '$password';
SQL
  # Only a test may switch off what guards the record, to see that it is noticed.
  [ "$1" != test ] || database_admin -d postgres -c "grant lucid_owner to lucid_test" \
    -c "grant set on parameter session_replication_role to lucid_test, lucid_owner"
  (umask 077; printf '%s=%s\n' "$key" "$password" >>"$PG_SETTINGS")
}

# as_owner COMMAND…: with the owner of the database, which php-fpm and the worker are never told, and with settings read anew.
as_owner() {
  if [ -n "${DATABASE_URL:-}" ]; then
    env APP_CONFIG_CACHE="$VAR/no-config.php" DATABASE_OWNER_URL="$(setting "$OWNER_SETTINGS" DATABASE_OWNER_URL)" "$@"
  else
    env APP_CONFIG_CACHE="$VAR/no-config.php" DB_OWNER_USERNAME=lucid_owner DB_OWNER_PASSWORD="$(setting "$PG_SETTINGS" DB_OWNER_PASSWORD)" "$@"
  fi
}

database_stop() {
  local home; home="$(pg_home 2>/dev/null || true)"
  [ -n "$home" ] && running "$home/data/postmaster.pid" "$home/data" || return 0
  pg_run "$PG_BIN/pg_ctl" -D "$home/data" -m fast -w stop >"$VAR/log/pg_ctl.log" 2>&1 || fail "database" "PostgreSQL did not stop" "$VAR/log/pg_ctl.log"
}

# database_make NAME: creates a database if it is not there; one that the administrator owned goes to the owner with all in it.
database_make() {
  local owner
  owner="$(database_admin -d postgres -Atc "select pg_get_userbyid(datdba) from pg_database where datname = '$1'")"
  [ "$owner" = lucid_owner ] && return 0
  if [ -z "$owner" ]; then
    database_admin -d postgres -c "create database \"$1\" owner lucid_owner" >/dev/null || fail "database" "could not create $1"
    return 0
  fi
  database_admin -d "$1" >/dev/null <<SQL || fail "database" "could not hand $1 over to its owner"
alter database "$1" owner to lucid_owner;
do \$\$
declare it record;
begin
  for it in select c.relname, case c.relkind when 'S' then 'sequence' when 'v' then 'view' else 'table' end as what
    from pg_class c join pg_namespace n on n.oid = c.relnamespace
    where n.nspname = 'public' and c.relkind in ('r', 'p', 'v', 'S')
      and not exists (select 1 from pg_depend d where d.objid = c.oid and d.deptype in ('a', 'i', 'e'))
  loop execute format('alter %s public.%I owner to lucid_owner', it.what, it.relname); end loop;
  for it in select p.oid::regprocedure as signature from pg_proc p join pg_namespace n on n.oid = p.pronamespace
    where n.nspname = 'public' and p.prokind = 'f' and not exists (select 1 from pg_depend d where d.objid = p.oid and d.deptype = 'e')
  loop execute format('alter function %s owner to lucid_owner', it.signature); end loop;
end \$\$;
SQL
}

# database_drop NAME
database_drop() { database_admin -d postgres -c "drop database if exists \"$1\" with (force)" >/dev/null 2>&1; }
