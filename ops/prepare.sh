# Everything that must be there before anything runs: Debian packages, Composer and npm packages, the built front end.
DEBIAN_NEEDS=(postgresql-15 nginx-light "php$PHP_VERSION-cli" "php$PHP_VERSION-fpm" "php$PHP_VERSION-pgsql" "php$PHP_VERSION-gd" "php$PHP_VERSION-zip"
  "php$PHP_VERSION-curl" "php$PHP_VERSION-intl" "php$PHP_VERSION-mbstring" "php$PHP_VERSION-xml" "php$PHP_VERSION-bcmath" unzip)
DEBIAN_TEST_NEEDS=(chromium chromium-driver)

debian_missing() {
  local p
  for p in "$@"; do
    [ "$(dpkg-query -W -f='${db:Status-Status}' "$p" 2>/dev/null || true)" = installed ] || printf '%s ' "$p"
  done
  return 0
}

apt_install() {
  local sudo=()
  if [ "$AS_ROOT" = no ]; then
    command -v sudo >/dev/null && sudo -n true 2>/dev/null || fail "Debian packages" "missing: $* (install them, or run ./lucid start once as root)"
    sudo=(sudo -n)
  fi
  # No cluster of Debian's own and no service started: ours are separate.
  "${sudo[@]}" mkdir -p /etc/postgresql-common
  [ -e /etc/postgresql-common/createcluster.conf ] || echo "create_main_cluster = false" | "${sudo[@]}" tee /etc/postgresql-common/createcluster.conf >/dev/null
  logged "Reading the package lists" apt-update "${sudo[@]}" apt-get update
  logged "Installing $*" apt-install "${sudo[@]}" env DEBIAN_FRONTEND=noninteractive RUNLEVEL=1 apt-get install -y --no-install-recommends "$@"
}

# prepare [test]: makes the checkout ready to run; with "test" also for the browser tests.
prepare() {
  local needs=("${DEBIAN_NEEDS[@]}") missing
  [ "${1:-}" = test ] && needs+=("${DEBIAN_TEST_NEEDS[@]}")
  command -v composer >/dev/null || needs+=(composer)
  command -v node >/dev/null || needs+=(nodejs npm)
  missing="$(debian_missing "${needs[@]}")"
  # shellcheck disable=SC2086
  [ -z "$missing" ] || apt_install $missing
  [ "$(node -p 'process.versions.node.split(".")[0]')" -ge 20 ] || fail "Node.js" "version 20 or later is needed, this is $(node --version)"
  mkdir -p bootstrap/cache storage/app/private storage/framework/{cache/data,sessions,views} storage/logs
  if ! stamped composer composer.json packages/*/composer.json || [ ! -f vendor/autoload.php ]; then
    logged "Installing the PHP packages" composer composer install --no-scripts --no-progress --prefer-dist
    composer dump-autoload --optimize --no-scripts -q
    stamp composer composer.json packages/*/composer.json
  fi
  if ! stamped npm package-lock.json || [ ! -d node_modules/vite ]; then
    # Not npm ci: it wants the binaries of every platform in the lock, and a registry may not have them all.
    logged "Installing the front-end packages" npm npm install --no-save --no-fund --no-audit
    stamp npm package-lock.json
  fi
  if ! stamped build resources vite.config.ts package-lock.json public/sw.js || [ ! -f public/build/manifest.json ]; then
    logged "Building the front end" build npm run build
    stamp build resources vite.config.ts package-lock.json public/sw.js
  fi
}
