# Backup and restore, for ./wexel: one file that holds the database and the files that belong to it. Made while Wexel runs.

# What is made lies under the hash of what it is made from and never changes, and recordings never do: so the database is written down first, and then every
# file that it may speak of is there. Meanwhile nothing is freed: whoever frees asks for this lock.
hold_what_is_there() { # port, password; it holds as long as its input is open, and so no longer than whoever asked lives
  PGPASSWORD=$2 exec "$(pg_bin)/psql" -h 127.0.0.1 -p "$1" -U wexel -d wexel -qAt
}

backup() { # file
  local to=${1:-} state; state=$(state_folder)
  [ -n "$to" ] || fail "Name the file that the backup goes to:  ./wexel backup /elsewhere/wexel-backup.tar"
  case "$to" in /*) ;; *) to=$called_from/$to ;; esac
  [ ! -e "$to" ] || fail "$to is there already; name another file."
  [ -f "$state/pid" ] && kill -0 "$(cat "$state/pid")" 2>/dev/null || fail "Wexel is not running here. Start it with ./wexel up; a backup is made while it runs."
  local password half hold; password=$(database_password "$state/postgres"); half=$(dirname "$to")/.making-$$-$(basename "$to")
  [ -w "$(dirname "$to")" ] || fail "Nothing can be written in $(dirname "$to")."
  local work; work=$(mktemp -d "$state/backup-XXXXXX")
  coproc HOLD { hold_what_is_there $((port + 3)) "$password"; }
  hold=$HOLD_PID
  printf "select pg_advisory_lock(hashtextextended('backup', 0));\nselect 'held';\n" >&"${HOLD[1]}"
  # shellcheck disable=SC2064
  trap "kill $hold 2>/dev/null; rm -rf '$work' '$half'" EXIT
  local said=; while [ "$said" != held ]; do read -r said <&"${HOLD[0]}" || fail "The database does not answer."; done
  say "Writing down the database"
  PGPASSWORD=$password "$(pg_bin)/pg_dump" -h 127.0.0.1 -p $((port + 3)) -U wexel -d wexel -Fc -f "$work/database.dump"
  (cd "$work" && sha256sum database.dump > sums)
  say "Writing the files"
  # What is half-made or half-arrived is left out; an upload that grows meanwhile goes on from where it was.
  (cd "$state/files" && find . -type f ! -name '.making-*' ! -path './arriving/*' ! -path './working/*' -print0 | sort -z) > "$work/list"
  tar -C "$work" -cf "$half" database.dump sums || fail "The backup could not be written."
  tar -C "$state/files" --transform 's,^\./,files/,' --no-recursion --null -T "$work/list" --warning=no-file-changed --ignore-failed-read -rf "$half" || [ $? = 1 ] || fail "The backup could not be written; is there room in $(dirname "$to")?"
  sync "$half"
  mv "$half" "$to"
  say "$to holds all of it: $(du -h "$to" | cut -f1)."
}

restore() { # file
  need_packages ffmpeg postgresql curl; need_tools
  local from=${1:-} state; state=$(state_folder)
  [ -n "$from" ] || fail "Name the backup:  ./wexel restore /elsewhere/wexel-backup.tar"
  case "$from" in /*) ;; *) from=$called_from/$from ;; esac
  [ -r "$from" ] || fail "$from cannot be read."
  [ ! -e "$state/postgres/PG_VERSION" ] || fail "There is a Wexel in $state already. Name an empty folder:  WEXEL_STATE=/elsewhere ./wexel restore $from"
  need_free "PostgreSQL" $((port + 3))
  # Under another name until all of it is there: a restore that was broken off leaves nothing that looks like one.
  local half=$state.restoring; rm -rf "$half"; mkdir -p "$half/files" "$half/logs"; chmod 755 "$(dirname "$half")" "$half" 2>/dev/null || true
  say "Reading the backup"
  tar -C "$half" -xf "$from" || fail "$from is no whole backup."
  (cd "$half" && sha256sum --quiet -c sums >&2) || fail "The database in $from is not as it was written."
  check_recordings "$half/files/recordings"
  say "Reading the database"
  start_postgres "$half/postgres" $((port + 3))
  PGPASSWORD=$(database_password "$half/postgres") "$(pg_bin)/pg_restore" -h 127.0.0.1 -p $((port + 3)) -U wexel -d wexel --no-owner --exit-on-error "$half/database.dump" >&2 || { stop_postgres "$half/postgres"; fail "The database could not be read."; }
  stop_postgres "$half/postgres"
  rm -f "$half/database.dump" "$half/sums"
  mkdir -p "$(dirname "$state")"; [ ! -d "$state" ] || rmdir "$state" 2>/dev/null || { mv "$state" "$state.before"; say "What was in $state lies in $state.before."; }
  mv "$half" "$state"
  say "Restored into $state. ./wexel up starts it."
}

# A recording's name is the SHA-256 of what is in it.
check_recordings() { # folder
  [ -d "$1" ] || return 0
  (cd "$1" && for recording in *; do [ -f "$recording" ] && printf '%s  %s\n' "$recording" "$recording"; done | { grep -E '^[0-9a-f]{64} ' || true; } | sha256sum --quiet -c - >&2) || fail "A recording in the backup is not as it was."
}
