# Shared by bin/start, bin/test and .ci/run. Sourced, not run.
set -euo pipefail

ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/../.." && pwd)
cd "$ROOT"
export PHP_INI_SCAN_DIR=":$ROOT/config/php"
export COMPOSER_ALLOW_SUPERUSER=1 COMPOSER_NO_INTERACTION=1

say() { printf '%s\n' "$*" >&2; }
fail() { printf '\nStopped: %s\n' "$*" >&2; exit 1; }

# Debian packages that the product uses, each with a file or command that shows it is there.
APT_PACKAGES=(bubblewrap supervisor nginx-light php8.2-fpm mariadb-server chromium chromium-driver ffmpeg espeak-ng libespeak-ng1 libflite1 sox assimp-utils libegl1 libgles2 libgl1-mesa-dri
  php8.2-mysql php8.2-gd php8.2-zip php8.2-curl php8.2-bcmath unzip)

# Only for the tests.
TEST_PACKAGES=(redis-server assimp-testmodels)

missing_packages() { # missing_packages NAME...
  local p there
  there=$(dpkg-query -W -f='${Package} ${Status}\n' "$@" 2>/dev/null || true)
  for p in "$@"; do
    grep -q "^$p .*ok installed" <<<"$there" || printf '%s ' "$p"
  done
}

need_system() { # need_system MORE-PACKAGES...
  command -v php >/dev/null ||
    fail "PHP 8.2 is not here. Install it with: apt-get install php8.2-cli php8.2-xml php8.2-mbstring php8.2-intl"
  command -v composer >/dev/null || fail "Composer is not here. Install it with: apt-get install composer"
  command -v node >/dev/null || fail "Node 20 is not here. Install Node 20 with npm and start again."
  php -r 'exit(PHP_VERSION_ID >= 80200 ? 0 : 1);' || fail "PHP 8.2 or newer is needed; this is $(php -r 'echo PHP_VERSION;')."
  local free
  free=$(df -Pk "$ROOT" | awk 'NR==2 {print $4}')
  [ "$free" -gt 1500000 ] ||
    fail "The disk that holds this folder has only $((free / 1024)) MB left; 1500 MB are needed. Make room and start again."
  mkdir -p storage 2>/dev/null && [ -w storage ] ||
    fail "No right to write in $ROOT/storage. Give yourself that right (chown or chmod) and start again."
  local missing
  missing=$(missing_packages "${APT_PACKAGES[@]}" "$@")
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

# As root, everything that runs runs as this ordinary user; the code stays root's, so nothing that runs can change it.
RUN_AS=crisp-reel

# drop_root SCRIPT ARGUMENTS...: goes on as an ordinary user. What only root may do (packages) is done before.
drop_root() {
  [ "$(id -u)" = 0 ] || return 0
  id "$RUN_AS" >/dev/null 2>&1 || useradd --system --user-group --no-create-home --home-dir /nonexistent --shell /usr/sbin/nologin "$RUN_AS" ||
    fail "The user $RUN_AS could not be made."
  mkdir -p storage/home
  find storage bootstrap/cache ! -user "$RUN_AS" -exec chown -h "$RUN_AS:$RUN_AS" {} +
  # Archives bring files that only their owner may read.
  find . \( -path ./storage -o -path ./.git -o -path ./.env -o -path ./bootstrap/cache \) -prune -o ! -type l \( ! -perm -o=r -o -type d ! -perm -o=x \) -exec chmod o+rX {} +
  chmod 640 .env && chgrp "$RUN_AS" .env
  local as=(setpriv --reuid="$RUN_AS" --regid="$RUN_AS" --clear-groups --inh-caps=-all --bounding-set=-all --no-new-privs --)
  if ! "${as[@]}" test -r "$ROOT/artisan"; then
    # A folder above is closed to others: it is seen under another path, by this start alone.
    [ -z "${REEL_MOVED:-}" ] || fail "The user $RUN_AS cannot read $ROOT. Give the right to pass through the folders above it (chmod o+x)."
    local there
    there="/srv/crisp-reel-$(printf '%s' "$ROOT" | sha256sum | cut -c1-8)"
    mkdir -p "$there"
    exec unshare --mount --propagation private -- env REEL_MOVED=1 bash -c 'mount --bind "$1" "$2" && cd "$2" && script="$3" && shift 3 && exec bash "$script" "$@"' - "$ROOT" "$there" "$@"
  fi
  cd "$ROOT" && exec "${as[@]}" env HOME="$ROOT/storage/home" USER="$RUN_AS" LOGNAME="$RUN_AS" bash "$@"
}

need_folders() {
  [ -f .env ] || printf "# Settings of this installation; docs/deployment.md lists them.\n" >.env
  mkdir -p storage/{app/blobs,app/renders,framework/{cache/data,sessions,views,testing,shaders},logs} bootstrap/cache
}

stamp() { cat "$@" | sha256sum | cut -c1-16; }

need_composer() {
  local want
  want=$(stamp composer.json)
  if [ ! -f vendor/autoload.php ] || [ "$(cat vendor/.stamp 2>/dev/null)" != "$want" ]; then
    say "Installing Composer packages"
    composer update --no-progress --prefer-dist --quiet || fail "Composer could not install the packages; run 'composer update' to see why."
    mkdir -p vendor/pestphp/pest-plugin-mutate/.temp/pest-mutate-cache 2>/dev/null || true
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

# database_prepare FOLDER: a private MariaDB in FOLDER, made when there is none; sets DB_COMMAND and DB_*.
database_prepare() {
  local dir=$1
  mkdir -p "$dir"
  DB_DIR=$dir DB_LOG="$dir/server.log"
  DB_SOCKET="/tmp/crisp-reel-$(id -u)-$(printf '%s' "$dir" | sha256sum | cut -c1-12).sock"
  local old i
  old=$(cat "$dir/pid" 2>/dev/null || true)
  if [ -n "$old" ] && grep -qs mariadbd "/proc/$old/comm"; then
    # Left over from a killed start: stop it, its port and socket may be stale.
    kill "$old" 2>/dev/null || true
    for i in $(seq 200); do kill -0 "$old" 2>/dev/null || break; sleep 0.1; done
  fi
  if [ ! -f "$dir/ready" ]; then
    rm -rf "$dir/data" # half made: nothing of value is in it
    mariadb-install-db --no-defaults --user="$(id -un)" --datadir="$dir/data" --auth-root-authentication-method=normal --skip-test-db >"$DB_LOG" 2>&1 ||
      fail "The database folder could not be made; see $DB_LOG."
    (umask 077 && head -c 18 /dev/urandom | base64 | tr -d '+/=' >"$dir/secret")
  fi
  DB_PORT=$(free_port "${REEL_DB_PORT:-33660}") || fail "No free port for the database on 127.0.0.1."
  DB_COMMAND="/usr/sbin/mariadbd --no-defaults --user=$(id -un) --datadir=$dir/data --socket=$DB_SOCKET --bind-address=127.0.0.1 --port=$DB_PORT --skip-name-resolve --pid-file=$dir/pid --innodb-flush-log-at-trx-commit=1 --innodb-buffer-pool-size=128M --max-connections=100"
}

# database_ready PID SCHEMA: waits until the server with that number answers, and makes user and schema.
database_ready() {
  local i schema=$2 secret
  for i in $(seq 300); do
    mariadb-admin --no-defaults --socket="$DB_SOCKET" ping >/dev/null 2>&1 && break
    kill -0 "$1" 2>/dev/null || fail "The database stopped while starting; see $DB_LOG."
    sleep 0.1
  done
  secret=$(cat "$DB_DIR/secret")
  if [ ! -f "$DB_DIR/ready" ]; then
    mariadb --no-defaults --socket="$DB_SOCKET" -u root >>"$DB_LOG" 2>&1 <<SQL || fail "The database could not be prepared; see $DB_LOG."
CREATE USER IF NOT EXISTS 'reel'@'localhost' IDENTIFIED BY '$secret';
CREATE USER IF NOT EXISTS 'reel'@'127.0.0.1' IDENTIFIED BY '$secret';
GRANT ALL ON \`crisp_reel%\`.* TO 'reel'@'localhost';
GRANT ALL ON \`crisp_reel%\`.* TO 'reel'@'127.0.0.1';
ALTER USER 'root'@'localhost' IDENTIFIED BY '$secret';
SQL
    touch "$DB_DIR/ready"
  fi
  mariadb --no-defaults --socket="$DB_SOCKET" -u reel -p"$secret" -e "CREATE DATABASE IF NOT EXISTS \`$schema\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci" >>"$DB_LOG" 2>&1 ||
    fail "The database refuses its own user; see $DB_LOG. To begin again, delete $DB_DIR."
  export DB_CONNECTION=mariadb DB_HOST=127.0.0.1 DB_PORT DB_SOCKET DB_DATABASE=$schema DB_USERNAME=reel DB_PASSWORD="$secret"
}

# database_start FOLDER SCHEMA: prepares and starts it; its number is in DB_PID.
database_start() {
  database_prepare "$1"
  # shellcheck disable=SC2086
  $DB_COMMAND >>"$DB_LOG" 2>&1 9>&- &
  DB_PID=$!
  database_ready "$DB_PID" "$2"
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
