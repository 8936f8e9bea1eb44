# shellcheck source=bin/lib/leftovers.sh
. "$ROOT/bin/lib/leftovers.sh"

# Writes the configuration of the parts of one machine and runs them under a supervisor. Sourced after common.sh.

# run_folder: where sockets and pid files of this installation live; short, since a socket's path may have 107 bytes.
run_folder() {
  RUN="/tmp/crisp-reel-$(id -u)-$(printf '%s' "$ROOT$1" | sha256sum | cut -c1-12)"
  mkdir -p "$RUN" && chmod 700 "$RUN"
  [ -O "$RUN" ] || fail "$RUN belongs to somebody else. Remove it and start again."
  export REEL_RUN="$RUN" REEL_HOST="${REEL_HOST:-$(hostname)-$(printf '%s' "$ROOT$1" | sha256sum | cut -c1-6)}"
}

program() { # program NAME GROUP-PRIORITY STOP-SECONDS AUTOSTART NICE COMMAND
  printf '[program:%s]\ncommand = %s/bin/lib/part %s nice -n %s %s\ndirectory = %s\npriority = %s\nautostart = %s\nautorestart = true\nstartsecs = 1\nstartretries = 1000000\nstopsignal = %s\nstopwaitsecs = %s\nstopasgroup = %s\nkillasgroup = true\nredirect_stderr = true\nstdout_logfile = %s/%s.log\nstdout_logfile_maxbytes = 5MB\nstdout_logfile_backups = 2\n' \
    "$1" "$ROOT" "$1" "$5" "$6" "$ROOT" "$2" "$4" "${STOP_SIGNAL:-TERM}" "$3" "${STOP_GROUP:-false}" "$LOGS" "$1"
}

worker() { # worker NAME QUEUES NICE SLEEP
  # What is interrupted goes on by itself, so a worker need not be waited for.
  STOP_SIGNAL=KILL STOP_GROUP=true program "$1" 20 2 false "$3" "env REEL_LAST_SIGNAL=KILL php artisan reel:work --queue=$2 --sleep=$4 --quiet"

}

# parts_write LISTEN ROLE...: nginx, fpm and supervisor files for what is to run here: database, web, desk, voice, intake, pictures, render.
parts_write() {
  local listen=$1 role programs="" pool n
  shift
  LOGS="$ROOT/storage/logs"

  local body=$(((${REEL_UPLOAD_BYTES:-209715200} / 1048576) + 10))m
  local fill=(-e "s|@ROOT@|$ROOT|g" -e "s|@RUN@|$RUN|g" -e "s|@LOGS@|$LOGS|g" -e "s|@LISTEN@|$listen|g" -e "s|@STORE@|${REEL_STORE:-$ROOT/storage/app}|g" -e "s|@BODY@|$body|g")
  local out="$RUN/programs"
  : >"$out"
  for role in "$@"; do
    case "$role" in
      database) program database 10 8 true 0 "$DB_COMMAND" >>"$out" ;;
      web)
        sed "${fill[@]}" deploy/nginx.conf.in >"$RUN/nginx.conf"
        while IFS= read -r line; do
          if [[ "$line" =~ ^@POOL\ ([a-z]+)\ ([0-9]+)@$ ]]; then
            pool=${BASH_REMATCH[1]} n=${BASH_REMATCH[2]}
            printf '[%s]\nlisten = %s/fpm-%s.sock\nlisten.mode = 0600\npm = dynamic\npm.max_children = %s\npm.start_servers = 1\npm.min_spare_servers = 1\npm.max_spare_servers = %s\npm.max_requests = 2000\nrequest_terminate_timeout = 120s\ncatch_workers_output = yes\ndecorate_workers_output = no\nclear_env = no\nphp_admin_value[opcache.revalidate_freq] = 5\nenv[APP_CONFIG_CACHE] = %s/config.php\nenv[APP_ROUTES_CACHE] = %s/routes.php\n' \
              "$pool" "$RUN" "$pool" "$n" "$n" "$RUN" "$RUN"
          else
            printf '%s\n' "$line"
          fi
        done <deploy/fpm.conf.in | sed "${fill[@]}" >"$RUN/fpm.conf"
        mkdir -p "$RUN"/nginx-{body,proxy,fastcgi,uwsgi,scgi}
        STOP_SIGNAL=QUIT program fpm 20 3 false 0 "php-fpm8.2 -F -y $RUN/fpm.conf" >>"$out"
        program warm 20 3 false 0 "php artisan reel:warm" >>"$out"
        program nginx 20 3 false 0 "nginx -e stderr -c $RUN/nginx.conf" >>"$out"
        ;;
      # What people wait for at their screens: two, so that one long repair does not hold up all.
      desk) for n in 1 2; do worker "desk-$n" act,desk 2 0.1 >>"$out"; done ;;
      voice) for n in 1 2; do worker "voice-$n" voice 3 0.15 >>"$out"; done ;;
      intake) worker intake intake 5 0.5 >>"$out" ;;
      pictures) worker pictures pictures 15 1 >>"$out" ;;
      render) for n in $(seq "${REEL_RENDERERS:-1}"); do worker "render-$n" render 19 0.5 >>"$out"; done ;;
      *) fail "There is no part '$role'. Parts are database, web, desk, voice, intake, pictures and render." ;;
    esac
  done
  # One that watches over the others of this machine, wherever there are workers.
  program pulse 20 2 false 0 "php artisan reel:pulse --quiet" >>"$out"
  # One group, so that all stop at once; the database stops after it.
  local group
  group=$(grep -o '^\[program:[a-z0-9-]*' "$out" | cut -d: -f2 | grep -v '^database$' | paste -sd,)
  printf '[group:reel]\nprograms = %s\npriority = 20\n' "$group" >>"$out"
  sed "${fill[@]}" -e "/@PROGRAMS@/{r $out
d}" deploy/supervisord.conf.in >"$RUN/supervisord.conf"
}

# parts_sweep: ends what parts of this installation have left behind, whoever their parents were.
parts_sweep() {
  local file name
  for file in "$RUN"/*.group; do
    [ -e "$file" ] || continue
    name=$(basename "$file" .group)
    [ "$name" = database ] || end_part "$name" "$RUN" "$ROOT"
  done
  return 0
}

# parts_watch: the supervisor with what starts by itself (the database); its number is in WATCHER.
parts_watch() {
  if [ -s "$RUN/supervisord.pid" ] && grep -qs supervisord "/proc/$(cat "$RUN/supervisord.pid")/cmdline"; then # left by a start that was killed
    local old i
    old=$(cat "$RUN/supervisord.pid")
    kill "$old" 2>/dev/null || true
    for i in $(seq 120); do kill -0 "$old" 2>/dev/null || break; sleep 0.1; done
    kill -9 "$old" 2>/dev/null || true
  fi
  parts_sweep
  rm -f "$RUN/supervisor.sock"
  setsid setpriv --pdeathsig TERM -- /usr/bin/supervisord -c "$RUN/supervisord.conf" >"$LOGS/supervisord.out" 2>&1 9>&- &
  WATCHER=$!
}

parts_control() { /usr/bin/supervisorctl -c "$RUN/supervisord.conf" "$@"; }

# parts_ready OPTIONS: caches emptied, settings and routes read once; with --database also what is in the database.
parts_ready() {
  rm -f "$RUN/config.php" "$RUN/routes.php"
  REEL_ACCEL=1 APP_CONFIG_CACHE="$RUN/config.php" APP_ROUTES_CACHE="$RUN/routes.php" php artisan reel:ready --quiet "$@"
}

# parts_start URL: starts all but the database and waits until it answers.
parts_start() {
  local i
  for i in $(seq 100); do parts_control start 'reel:*' >"$LOGS/supervisorctl.out" 2>&1 && break; kill -0 "$WATCHER" 2>/dev/null || return 1; sleep 0.1; done
  [ -n "${1:-}" ] || return 0
  for i in $(seq 200); do
    php -r 'exit(@file_get_contents($argv[1]) === false ? 1 : 0);' "$1/up" 2>/dev/null && return 0
    kill -0 "$WATCHER" 2>/dev/null || return 1
    sleep 0.1
  done
  return 1
}

parts_stop() {
  [ -n "${WATCHER:-}" ] || return 0
  kill "$WATCHER" 2>/dev/null || true
  local i
  for i in $(seq 90); do kill -0 "$WATCHER" 2>/dev/null || break; sleep 0.1; done
  kill -9 "$WATCHER" 2>/dev/null || true
  wait "$WATCHER" 2>/dev/null || true
  parts_sweep
}
