# What every part of ./lucid shares: speaking, failing, ports, fingerprints, processes.
VAR="$ROOT/var"
mkdir -p "$VAR/log" "$VAR/stamp"
AS_ROOT=$([ "$(id -u)" = 0 ] && echo yes || echo no)
PHP_VERSION=8.2
export COMPOSER_ALLOW_SUPERUSER=1 COMPOSER_NO_INTERACTION=1 npm_config_update_notifier=false

say() { printf '%s\n' "$*"; }

# fail PART REASON [LOG]: says what failed, why and where to read on; ends the command.
fail() {
  printf '\nFailed: %s\n  why: %s\n' "$1" "$2" >&2
  if [ -n "${3:-}" ]; then
    printf '  log: %s\n' "${3#"$ROOT"/}" >&2
    [ -s "$3" ] && tail -n 25 "$3" | sed 's/^/  | /' >&2
  fi
  exit 1
}

# logged PART LOGNAME COMMAND…: runs a command with its output in var/log, showing how long it takes.
logged() {
  local part="$1" log="$VAR/log/$2.log" began=$SECONDS
  shift 2
  printf '%s …' "$part"
  "$@" >"$log" 2>&1 </dev/null &
  local pid=$!
  while kill -0 "$pid" 2>/dev/null; do
    sleep 1
    [ -t 1 ] && printf '\r%s … %ss ' "$part" "$((SECONDS - began))"
  done
  if wait "$pid"; then printf '\r%s: done in %ss\n' "$part" "$((SECONDS - began))"; else printf '\n'; fail "$part" "the command ended with an error" "$log"; fi
}

# fingerprint PATH…: one hash over the content and names of files.
fingerprint() { find "$@" -type f -not -path '*/node_modules/*' -print0 2>/dev/null | sort -z | xargs -0 sha256sum 2>/dev/null | sha256sum | cut -c1-64; }

# stamped NAME PATH…: true when the paths are as they were when `stamp` was last called with them.
stamped() { local name="$1"; shift; [ -f "$VAR/stamp/$name" ] && [ "$(cat "$VAR/stamp/$name")" = "$(fingerprint "$@")" ]; }
stamp() { local name="$1"; shift; fingerprint "$@" >"$VAR/stamp/$name"; }

port_free() { ! (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

# free_port FROM: the first free port at or after FROM.
free_port() {
  local port="$1"
  while ! port_free "$port"; do port=$((port + 1)); [ "$port" -gt 65000 ] && fail "ports" "no free port from $1 on"; done
  echo "$port"
}

# running PIDFILE WORD: true when the process in the file lives and is ours (its command line holds WORD).
running() {
  local pid
  pid=$(head -n 1 "$1" 2>/dev/null) || return 1
  [ -n "$pid" ] && [ -r "/proc/$pid/cmdline" ] && tr '\0' ' ' <"/proc/$pid/cmdline" 2>/dev/null | grep -qF -- "$2"
}

# end PIDFILE WORD [SIGNAL] [group]: ends that process, if it is ours, and waits for it.
end() {
  running "$1" "$2" || { rm -f "$1"; return 0; }
  local pid target n=0
  pid=$(head -n 1 "$1")
  target="$pid"
  [ "${4:-}" = group ] && target="-$pid"
  kill "-${3:-TERM}" -- "$target" 2>/dev/null || true
  while [ -d "/proc/$pid" ] && [ "$n" -lt 100 ]; do sleep 0.1; n=$((n + 1)); done
  [ -d "/proc/$pid" ] && kill -KILL -- "$target" 2>/dev/null || true
  rm -f "$1"
}

random_word() { head -c 32 /dev/urandom | base64 | tr -dc 'A-Za-z0-9' | head -c 32; }

# setting FILE NAME: the value of NAME in a file of NAME=value lines.
setting() { sed -n "s/^$2=//p" "$1" 2>/dev/null | tail -n 1; }

# Who serves people: never root, unless nobody else can reach the checkout (as under /root). AS_APP goes before a command.
APP_USER="$(id -un)"
AS_APP=()
app_user() {
  [ "$AS_ROOT" = yes ] || return 0
  id lucid-step >/dev/null 2>&1 || useradd --system --no-create-home --home-dir /nonexistent --shell /usr/sbin/nologin lucid-step
  # Some of what Composer unpacks is for its owner alone.
  [ -z "$(find vendor ! -perm -o=r ! -type l -print -quit 2>/dev/null)" ] || chmod -R go+rX vendor
  if setpriv --reuid=lucid-step --regid=lucid-step --clear-groups test -r "$ROOT/public/index.php" -a -x "$ROOT/vendor/composer"; then
    APP_USER=lucid-step
    AS_APP=(setpriv --reuid=lucid-step --regid=lucid-step --clear-groups --no-new-privs)
  else
    say "Note: nginx and php-fpm run as root, because no other user can reach $ROOT. Move it, to /srv for instance."
  fi
}

# own PATH…: gives what the application writes to it, and to nobody else to read.
own() {
  [ "$APP_USER" = lucid-step ] || return 0
  find "$@" \( ! -user lucid-step -o ! -group lucid-step \) -exec chown -h lucid-step:lucid-step {} +
  find "$@" -perm /o=rwx ! -type l -exec chmod o-rwx {} +
}
