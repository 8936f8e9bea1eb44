# Ends what an earlier run has left behind. Sourced.

# end_group LEADER ROOT: every process of a group that runs in ROOT; so a number that was given out again does no harm. Not by its
# environment: servers write their titles over it.
end_group() {
  local stat pid fields leader=$1 root=$2
  [ -n "$leader" ] || return 0
  for stat in /proc/[0-9]*/stat; do
    pid=${stat#/proc/}
    pid=${pid%/stat}
    fields=$(sed 's/.*) //' "$stat" 2>/dev/null) || continue
    # shellcheck disable=SC2086
    set -- $fields
    if [ "${3:-}" = "$leader" ] && [ "$pid" != "$$" ] && [ "$(readlink "/proc/$pid/cwd" 2>/dev/null)" = "$root" ]; then kill -9 "$pid" 2>/dev/null || true; fi
  done
  return 0
}

# end_part NAME RUN ROOT: what an earlier part of that name has left, its browsers too.
end_part() {
  local environ pid
  end_group "$(cat "$2/$1.group" 2>/dev/null || true)" "$3"
  rm -f "$2/$1.group"
  for environ in $(grep -lzx -- "REEL_PART=$1@$2" /proc/[0-9]*/environ 2>/dev/null || true); do
    pid=${environ#/proc/}
    pid=${pid%/environ}
    [ "$pid" = "$$" ] || kill -9 "$pid" 2>/dev/null || true
  done
  return 0
}
