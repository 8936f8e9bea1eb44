# Shared by bin/start, bin/test and .ci/run. Sourced, not run.
set -euo pipefail

ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/../.." && pwd)
cd "$ROOT"
export PHP_INI_SCAN_DIR=":$ROOT/config/php"
export COMPOSER_ALLOW_SUPERUSER=1 COMPOSER_NO_INTERACTION=1

say() { printf '%s\n' "$*" >&2; }
fail() { printf '\nStopped: %s\n' "$*" >&2; exit 1; }

# Debian packages that the product uses, each with a file or command that shows it is there.
APT_PACKAGES=(mariadb-server chromium chromium-driver ffmpeg espeak-ng sox assimp-utils libegl1 libgles2 libgl1-mesa-dri
  php8.2-mysql php8.2-gd php8.2-zip php8.2-curl php8.2-bcmath unzip)

missing_packages() {
  local p
  for p in "${APT_PACKAGES[@]}"; do
    dpkg-query -W -f='${Status}' "$p" 2>/dev/null | grep -q 'ok installed' || printf '%s ' "$p"
  done
}

need_system() {
  command -v php >/dev/null || fail "PHP 8.2 is not here. Install it with: apt-get install php8.2-cli php8.2-xml php8.2-mbstring php8.2-intl"
  command -v composer >/dev/null || fail "Composer is not here. Install it with: apt-get install composer"
  command -v node >/dev/null || fail "Node 20 is not here. Install Node 20 with npm and start again."
  php -r 'exit(PHP_VERSION_ID >= 80200 ? 0 : 1);' || fail "PHP 8.2 or newer is needed; this is $(php -r 'echo PHP_VERSION;')."
  local free
  free=$(df -Pk "$ROOT" | awk 'NR==2 {print $4}')
  [ "$free" -gt 1500000 ] || fail "The disk that holds this folder has only $((free / 1024)) MB left; 1500 MB are needed. Make room and start again."
  mkdir -p storage 2>/dev/null && [ -w storage ] || fail "No right to write in $ROOT/storage. Give yourself that right (chown or chmod) and start again."
  local missing
  missing=$(missing_packages)
  [ -z "$missing" ] && return 0
  if [ "$(id -u)" != 0 ]; then
    fail "These Debian packages are missing. Install them with:
  sudo apt-get update && sudo apt-get install -y --no-install-recommends $missing"
  fi
  say "Installing Debian packages: $missing"
  mkdir -p storage/logs
  apt-get update >storage/logs/apt.log 2>&1 || fail "apt-get update failed; see storage/logs/apt.log."
  # shellcheck disable=SC2086
  DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends $missing >>storage/logs/apt.log 2>&1 ||
    fail "Installing Debian packages failed; see storage/logs/apt.log."
}

need_folders() {
  [ -f .env ] || printf "# Settings of this installation; docs/deployment.md lists them.\n" >.env
  mkdir -p storage/{app/blobs,app/renders,framework/{cache/data,sessions,views,testing},logs} bootstrap/cache
}

stamp() { cat "$@" | sha256sum | cut -c1-16; }

need_composer() {
  local want
  want=$(stamp composer.json)
  if [ ! -f vendor/autoload.php ] || [ "$(cat vendor/.stamp 2>/dev/null)" != "$want" ]; then
    say "Installing Composer packages"
    composer update --no-progress --prefer-dist --quiet || fail "Composer could not install the packages; run 'composer update' to see why."
    printf '%s' "$want" >vendor/.stamp
  fi
}

need_npm() {
  local want
  want=$(stamp package-lock.json)
  if [ ! -d node_modules ] || [ "$(cat node_modules/.stamp 2>/dev/null)" != "$want" ]; then
    say "Installing npm packages"
    npm ci --no-audit --no-fund --loglevel=error >/dev/null || fail "npm could not install the packages; run 'npm ci' to see why."
    printf '%s' "$want" >node_modules/.stamp
  fi
}

need_build() {
  local want
  want=$( (find resources -type f -print0 | sort -z | xargs -0 cat; cat vite.config.ts package-lock.json) | sha256sum | cut -c1-16)
  if [ ! -f public/build/manifest.json ] || [ "$(cat public/build/.stamp 2>/dev/null)" != "$want" ]; then
    say "Building the front end"
    npm run --silent build >storage/logs/build.log 2>&1 || fail "The front end did not build; see storage/logs/build.log."
    printf '%s' "$want" >public/build/.stamp
  fi
}

free_port() { # free_port FIRST: the first free loopback port from FIRST on
  php -r 'for ($p = (int) $argv[1]; $p < $argv[1] + 200; $p++) { $s = @stream_socket_server("tcp://127.0.0.1:$p"); if ($s) { echo $p; exit; } } exit(1);' "$1"
}

port_is_free() { php -r '$s = @stream_socket_server("tcp://127.0.0.1:".$argv[1]); exit($s ? 0 : 1);' "$1"; }

# serve LOG COMMAND...: starts a server as leader of a process group of its own; its number is in SERVED.
serve() {
  local log=$1
  shift
  setsid "$@" >"$log" 2>&1 9>&- &
  SERVED=$!
}

# stop_group LEADER [SIGNAL]: stops a server with all its workers, also when the leader itself is gone already.
# Only processes that run in this folder are touched, so a number that was given out again does no harm.
stop_group() {
  local stat pid fields
  for stat in /proc/[0-9]*/stat; do
    pid=${stat#/proc/}
    pid=${pid%/stat}
    fields=$(sed 's/.*) //' "$stat" 2>/dev/null) || continue
    # shellcheck disable=SC2086
    set -- "$1" $fields
    if [ "${4:-}" = "$1" ] && [ "$(readlink "/proc/$pid/cwd" 2>/dev/null)" = "$ROOT" ]; then kill "$pid" 2>/dev/null || true; fi
  done
  return 0
}

# database_start FOLDER SCHEMA: a private MariaDB in FOLDER; sets DB_* for this process and its children.
database_start() {
  local dir=$1 schema=$2 log
  mkdir -p "$dir"
  log="$dir/server.log"
  local socket="/tmp/crisp-reel-$(printf '%s' "$dir" | sha256sum | cut -c1-12).sock"
  local old i
  old=$(cat "$dir/pid" 2>/dev/null || true)
  if [ -n "$old" ] && grep -qs mariadbd "/proc/$old/comm"; then
    # Left over from a killed start: stop it, its port and socket may be stale.
    kill "$old" 2>/dev/null || true
    for i in $(seq 200); do kill -0 "$old" 2>/dev/null || break; sleep 0.1; done
  fi
  if [ ! -f "$dir/ready" ]; then
    rm -rf "$dir/data" # half made: nothing of value is in it
    mariadb-install-db --no-defaults --user="$(id -un)" --datadir="$dir/data" --auth-root-authentication-method=normal --skip-test-db >"$log" 2>&1 ||
      fail "The database folder could not be made; see $log."
    head -c 18 /dev/urandom | base64 | tr -d '+/=' >"$dir/secret"
    chmod 600 "$dir/secret"
  fi
  local port
  port=$(free_port "${REEL_DB_PORT:-33660}") || fail "No free port for the database on 127.0.0.1."
  mariadbd --no-defaults --user="$(id -un)" --datadir="$dir/data" --socket="$socket" --bind-address=127.0.0.1 --port="$port" \
    --skip-name-resolve --pid-file="$dir/pid" --innodb-flush-log-at-trx-commit=1 --innodb-buffer-pool-size=128M --max-connections=60 >>"$log" 2>&1 9>&- &
  DB_PID=$!
  printf '%s' "$DB_PID" >"$dir/pid"
  for i in $(seq 300); do
    mariadb-admin --no-defaults --socket="$socket" ping >/dev/null 2>&1 && break
    kill -0 "$DB_PID" 2>/dev/null || fail "The database stopped while starting; see $log."
    sleep 0.1
  done
  local secret
  secret=$(cat "$dir/secret")
  if [ ! -f "$dir/ready" ]; then
    mariadb --no-defaults --socket="$socket" -u root >>"$log" 2>&1 <<SQL || fail "The database could not be prepared; see $log."
CREATE USER IF NOT EXISTS 'reel'@'localhost' IDENTIFIED BY '$secret';
CREATE USER IF NOT EXISTS 'reel'@'127.0.0.1' IDENTIFIED BY '$secret';
GRANT ALL ON \`crisp_reel%\`.* TO 'reel'@'localhost';
GRANT ALL ON \`crisp_reel%\`.* TO 'reel'@'127.0.0.1';
ALTER USER 'root'@'localhost' IDENTIFIED BY '$secret';
SQL
    touch "$dir/ready"
  fi
  mariadb --no-defaults --socket="$socket" -u reel -p"$secret" -e "CREATE DATABASE IF NOT EXISTS \`$schema\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci" >>"$log" 2>&1 ||
    fail "The database refuses its own user; see $log. To begin again, delete $dir."
  export DB_CONNECTION=mariadb DB_HOST=127.0.0.1 DB_PORT=$port DB_SOCKET="$socket" DB_DATABASE=$schema DB_USERNAME=reel DB_PASSWORD="$secret"
}

database_stop() {
  [ -n "${DB_PID:-}" ] || return 0
  kill "$DB_PID" 2>/dev/null || true
  wait "$DB_PID" 2>/dev/null || true
}

need_key() { # one application key a folder, kept out of the repository
  local file=$1
  [ -s "$file" ] || { php -r 'echo "base64:".base64_encode(random_bytes(32));' >"$file"; chmod 600 "$file"; }
  APP_KEY=$(cat "$file")
  export APP_KEY
}
