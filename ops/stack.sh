# A stack: nginx and php-fpm, with queue worker and scheduler. "app" serves people, "test-1" and on the browser tests.
stack_dir() { echo "$VAR/$1"; }

# stack_memory NAME: a folder in memory for what counts for a minute (how often somebody asked), or nothing where there is none.
stack_memory() {
  local folder; folder="/dev/shm/lucid-step-$(printf '%s' "$ROOT/$1" | sha256sum | cut -c1-16)"
  [ -d /dev/shm ] && (umask 077; mkdir -p "$folder" 2>/dev/null) && [ ! -L "$folder" ] || return 0
  # One that somebody else made is not trusted.
  case "$(stat -c %U "$folder")" in "$APP_USER" | "$(id -un)") own "$folder" && echo "$folder" ;; esac
}

# stack_write NAME PORT [PRACTICE_PORT]: writes the configuration of nginx and php-fpm. The file <dir>/env holds the settings
# php-fpm hands on. With a second port the practice page of the demo is served there, an origin of its own.
stack_write() {
  local dir; dir="$(stack_dir "$1")"
  local workers=${LUCID_WORKERS:-8}
  mkdir -p "$dir/tmp" "$dir/log"
  {
    echo "[global]"
    echo "pid = $dir/fpm.pid"
    echo "error_log = $dir/log/fpm.log"
    echo "[www]"
    [ "$AS_ROOT" = yes ] && printf '%s\n' "user = $APP_USER" "group = $APP_USER" "listen.owner = $APP_USER" "listen.mode = 0660"
    echo "listen = $dir/fpm.sock"
    echo "pm = static"
    echo "pm.max_children = $workers"
    echo "clear_env = yes"
    echo "catch_workers_output = yes"
    echo "php_admin_value[upload_max_filesize] = 105M"
    echo "php_admin_value[post_max_size] = 110M"
    echo "php_admin_value[memory_limit] = 512M"
    echo "env[PATH] = $PATH"
    echo "env[PGTZ] = UTC"
    sed -nE 's/^([A-Z_]+)=(.+)$/env[\1] = "\2"/p' "$dir/env"
    # Whoever watches the node is answered whatever the workers do.
    echo "[watch]"
    [ "$AS_ROOT" = yes ] && printf '%s\n' "user = $APP_USER" "group = $APP_USER" "listen.owner = $APP_USER" "listen.mode = 0660"
    echo "listen = $dir/watch.sock"
    echo "pm = static"
    echo "pm.max_children = 1"
    echo "clear_env = yes"
    echo "env[PATH] = $PATH"
    echo "env[PGTZ] = UTC"
    sed -nE 's/^([A-Z_]+)=(.+)$/env[\1] = "\2"/p' "$dir/env"
  } >"$dir/fpm.conf"
  cat >"$dir/nginx.conf" <<CONF
$([ "$AS_ROOT" = yes ] && echo "user $APP_USER;")
worker_processes 2;
pid $dir/nginx.pid;
error_log $dir/log/nginx.log;
events { worker_connections 512; }
http {
  include /etc/nginx/mime.types;
  default_type application/octet-stream;
  access_log off;
  server_tokens off;
  sendfile on;
  gzip on; gzip_comp_level 6; gzip_min_length 800;
  gzip_types text/css text/javascript application/javascript application/json image/svg+xml application/problem+json;
  client_max_body_size 110m;
  client_body_temp_path $dir/tmp/body; proxy_temp_path $dir/tmp/proxy; fastcgi_temp_path $dir/tmp/fastcgi;
  uwsgi_temp_path $dir/tmp/uwsgi; scgi_temp_path $dir/tmp/scgi;
  server {
    listen ${LUCID_BIND:-127.0.0.1}:$2$(stack_tls);
    root $ROOT/public;
    index index.php;
    location /build/ { gzip_comp_level 9; expires 1y; add_header Cache-Control "public, immutable"; add_header X-Content-Type-Options nosniff; try_files \$uri =404; }
    location = /sw.js { add_header Cache-Control "no-cache"; }
    location = /up { include $dir/watch.conf; }
    location = /ready { include $dir/watch.conf; }
    location ^~ /api/ { include $dir/app.conf; error_page 502 504 =503 @away; error_page 413 @too-large; }
    location / { try_files \$uri /index.php?\$query_string; }
    location = /index.php { include $dir/app.conf; error_page 502 504 =503 @away-page; }
    location @away {
      default_type application/problem+json;
      add_header Retry-After 5 always;
      add_header Cache-Control no-store always;
      return 503 '{"type":"urn:lucid-step:problem:away","title":"Not to be reached now","status":503,"detail":"The application does not answer. What you recorded waits on this device and is sent again by itself."}';
    }
    location @away-page {
      default_type text/html;
      add_header Retry-After 5 always;
      add_header Cache-Control no-store always;
      return 503 '<!doctype html><html lang="en"><meta charset="utf-8"><meta http-equiv="refresh" content="5"><title>Lucid Step is not answering</title><body style="font-family:sans-serif;margin:4rem auto;max-width:36rem"><h1>Lucid Step is not answering</h1><p>This page tries again every five seconds. What you recorded is kept on this device.</p></body></html>';
    }
    location @too-large {
      default_type application/problem+json;
      return 413 '{"type":"urn:lucid-step:problem:http","title":"Too large","status":413,"detail":"At most 110 MB are taken in at once. Nothing was changed."}';
    }
    location ~ \.php$ { return 404; }
  }
$([ -z "${3:-}" ] || stack_practice "$2" "$3")
}
CONF
  stack_fastcgi "$dir/fpm.sock" 120s >"$dir/app.conf"
  stack_fastcgi "$dir/watch.sock" 10s >"$dir/watch.conf"
}

# stack_fastcgi SOCKET PATIENCE: how nginx hands a request on.
stack_fastcgi() {
  cat <<CONF
fastcgi_pass unix:$1;
include /etc/nginx/fastcgi_params;
fastcgi_param SCRIPT_FILENAME $ROOT/public/index.php;
fastcgi_param SCRIPT_NAME /index.php;
fastcgi_param HTTP_HOST \$http_host;
fastcgi_buffers 32 16k;
fastcgi_connect_timeout 5s;
fastcgi_read_timeout $2;
CONF
}

# stack_practice PORT PRACTICE_PORT: the practice page on an origin of its own. The application at PORT may frame it, nobody else; the page
# carries the script that observes, and reports there.
stack_practice() {
  local scheme=http address; address="$(setting .env APP_URL)"
  [ -z "$(stack_tls)" ] || scheme=https
  cat <<CONF
  server {
    listen ${LUCID_BIND:-127.0.0.1}:$2$(stack_tls);
    root $ROOT/demo/practice;
    index index.html;
    add_header Cache-Control "no-cache" always;
    add_header X-Content-Type-Options nosniff always;
    add_header Referrer-Policy no-referrer always;
    add_header Content-Security-Policy "default-src 'self'; script-src 'self' \$scheme://\$host:$1; connect-src 'self' \$scheme://\$host:$1; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'self' $scheme://127.0.0.1:$1 $scheme://localhost:$1${address:+ $address}" always;
    # The small tracker of the demo: one file of its own, its data beside everything else.
    location ^~ /tracker/ {
      add_header X-Content-Type-Options nosniff always;
      fastcgi_pass unix:$dir/fpm.sock;
      include /etc/nginx/fastcgi_params;
      fastcgi_param SCRIPT_FILENAME $ROOT/demo/tracker/index.php;
      fastcgi_param TRACKER_DATA $ROOT/storage/tracker;
      fastcgi_read_timeout 60s;
    }
    location = /tracker { return 301 /tracker/; }
    location = /favicon.ico { return 204; }
    sub_filter '<!-- observer -->' '<script defer src="\$scheme://\$host:$1/observe.js"></script>';
    location / { try_files \$uri \$uri/ =404; }
  }
CONF
}

# stack_tls: TLS on this node, with the certificate that .env names.
stack_tls() {
  local certificate=${LUCID_TLS_CERTIFICATE:-$(setting .env LUCID_TLS_CERTIFICATE)} key=${LUCID_TLS_KEY:-$(setting .env LUCID_TLS_KEY)}
  [ -n "$certificate" ] && [ "${STACK_TLS:-no}" = yes ] || return 0
  printf ' ssl;\n    ssl_certificate %s;\n    ssl_certificate_key %s;\n    ssl_protocols TLSv1.2 TLSv1.3' "$certificate" "$key"
}

stack_fpm_start() {
  local dir; dir="$(stack_dir "$1")"
  running "$dir/fpm.pid" "$dir/fpm.conf" && return 0
  # Code is read once: after a change php-fpm is started again, which `./lucid start` does.
  local options=(-d opcache.enable=1 -d opcache.validate_timestamps=0 -d opcache.max_accelerated_files=20000 -d opcache.memory_consumption=192)
  options+=(-d opcache.interned_strings_buffer=16)
  if [ -n "${LUCID_PRELOAD_RECORD:-}" ]; then options+=(-d auto_prepend_file="$ROOT/ops/preload-record.php")
  else options+=(-d opcache.preload="$ROOT/ops/preload.php" -d opcache.preload_user="$APP_USER"); fi
  [ "$APP_USER" = root ] && options+=(-R)
  (umask 027; "/usr/sbin/php-fpm$PHP_VERSION" "${options[@]}" -y "$dir/fpm.conf" -D >"$dir/log/fpm-start.log" 2>&1) || fail "php-fpm" "it did not start" "$dir/log/fpm-start.log"
}

stack_nginx_start() {
  local dir; dir="$(stack_dir "$1")"
  running "$dir/nginx.pid" "$dir/nginx.conf" && return 0
  /usr/sbin/nginx -e "$dir/log/nginx.log" -p "$dir" -c "$dir/nginx.conf" >"$dir/log/nginx-start.log" 2>&1 || fail "nginx" "it did not start" "$dir/log/nginx-start.log"
}

stack_nginx_stop() { end "$(stack_dir "$1")/nginx.pid" "$(stack_dir "$1")/nginx.conf"; }
stack_fpm_stop() { end "$(stack_dir "$1")/fpm.pid" "$(stack_dir "$1")/fpm.conf"; }

# stack_background NAME PART COMMAND…: a process that is started again when it ends, in a group of its own.
stack_background() {
  local dir; dir="$(stack_dir "$1")"
  local part="$2"
  shift 2
  running "$dir/$part.pid" "ops/keep.sh $part" && return 0
  (umask 027; exec setsid bash ops/keep.sh "$part" "$@" >>"$dir/log/$part.log" 2>&1 </dev/null) &
  echo $! >"$dir/$part.pid"
}

stack_stop() {
  local dir; dir="$(stack_dir "$1")"
  [ -d "$dir" ] || return 0
  end "$dir/worker.pid" "ops/keep.sh worker" TERM group
  end "$dir/scheduler.pid" "ops/keep.sh scheduler" TERM group
  stack_nginx_stop "$1"
  stack_fpm_stop "$1"
  [ "$1" = app ] || rm -rf "$(stack_memory "$1")"
}
