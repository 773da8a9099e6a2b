# Back to any minute: each minute's changes go into a folder, beside whole copies of the data. Sourced by ./run.
WAL_S=60

# Said by the setting, in this command's environment or among those of the services.
wal_folder() {
  local folder=${CLOCHE_WAL:-}
  [ -n "$folder" ] || folder=$(sed -n 's/^CLOCHE_WAL=//p' "$CONF/settings.env" 2>/dev/null | head -1 || true)
  [[ -z "$folder" || "$folder" =~ ^/[A-Za-z0-9._/-]+$ ]] || stop_with "CLOCHE_WAL is a whole path of letters, digits and . _ - only: $folder"
  printf '%s' "$folder"
}

# Told to the cluster before each start; without a folder it is told nothing.
tell_archiving() {
  local folder
  folder=$(wal_folder)
  as_server sh -c "grep -q archive.conf '$DB/data/postgresql.conf' || echo \"include_if_exists 'archive.conf'\" >> '$DB/data/postgresql.conf'"
  if [ -z "$folder" ]; then as_server rm -f "$DB/data/archive.conf"; return; fi
  if [ "$(id -u)" = 0 ]; then install -d -m 700 -o postgres "$folder" "$folder/wal"; else mkdir -p -m 700 "$folder/wal"; fi
  as_server test -w "$folder/wal" || stop_with "the database’s own user cannot write in $folder."
  # Whole or not at all under its name; the same once more, after a fall, is no fault.
  as_server sh -c "cat > '$DB/data/archive.conf'" <<CONF
archive_mode = on
archive_timeout = $WAL_S
archive_command = 'cmp -s "%p" "$folder/wal/%f" || { test ! -e "$folder/wal/%f" && cp "%p" "$folder/wal/%f.part" && sync "$folder/wal/%f.part" && mv "$folder/wal/%f.part" "$folder/wal/%f"; }'
CONF
}

stamp_of() { date -u -d "$1" +%Y%m%dT%H%M%SZ 2>/dev/null; }

bases() { as_server sh -c "ls -d '$1'/base-*Z 2>/dev/null" | sort || true; }

# A whole copy, from which the minutes after it lead on. The last two are kept, and the minutes since the older.
take_base() {
  local folder name oldest first
  folder=$(wal_folder)
  [ -n "$folder" ] || stop_with "say where minutes are kept first: CLOCHE_WAL=/mnt/elsewhere/cloche-wal, and start again."
  reach_own
  as_server rm -rf "$folder/base.part"
  PGPASSWORD="$CLOCHE_DB_PASSWORD" as_server "$PGBIN/pg_basebackup" -h 127.0.0.1 -p "$DB_PORT" -U keeper -D "$folder/base.part" -c fast -X fetch \
    || stop_with "no copy could be made in $folder."
  name="$folder/base-$(stamp_of now)"
  as_server mv "$folder/base.part" "$name"
  as_server cp -p "$DB/password" "$folder/password" # its roles know no other, on another machine either
  bases "$folder" | head -n -2 | while read -r oldest; do as_server rm -rf "$oldest"; done
  oldest=$(bases "$folder" | head -1)
  first=$(as_server sed -n 's/^START WAL LOCATION:.*(file \([0-9A-F]*\))$/\1/p' "$oldest/backup_label")
  as_server "$PGBIN/pg_archivecleanup" "$folder/wal" "$first"
  note "A whole copy is in $name; every minute after it can be gone back to."
}

# The data as they were at a time, or with all that was kept. What stands now is put beside.
go_back_to() {
  local at=$1 wanted base="" one folder beside target=""
  folder=$(wal_folder)
  [ -n "$folder" ] || stop_with "no minutes are kept: CLOCHE_WAL is not set."
  if [ "$at" = latest ]; then wanted=99991231T000000Z
  else wanted=$(stamp_of "$at") || stop_with "“$at” is no time; say it as 2027-04-08T06:30:00+02:00, or latest."; fi
  for one in $(bases "$folder"); do [[ "${one##*/base-}" > "$wanted" ]] || base=$one; done
  [ -n "$base" ] || stop_with "no whole copy in $folder is older than that."
  ! installed || { as_root restore; stop_services; }
  set_up run; with_database own
  # What is not a minute old belongs to it, too.
  PG_USER=keeper pg psql -X -qAt -d postgres -c "SELECT pg_switch_wal()" > /dev/null || true
  stop_cluster
  [ "$at" = latest ] || target="recovery_target_time = '$(date -u -d "$at" '+%Y-%m-%d %H:%M:%S.%6N+00')'"
  beside="$DB/data-before-$(stamp_of now)"
  as_server cp -p "$DB/password" "$beside.password"
  as_server mv "$DB/data" "$beside"
  as_server cp -p "$folder/password" "$DB/password"
  as_server cp -a "$base" "$DB/data"
  as_server touch "$DB/data/recovery.signal"
  as_server sh -c "cat > '$DB/data/back.conf'" <<CONF
restore_command = 'cp "$folder/wal/%f" "%p"'
recovery_target_action = 'promote'
$target
CONF
  as_server sh -c "grep -q back.conf '$DB/data/postgresql.conf' || echo \"include_if_exists 'back.conf'\" >> '$DB/data/postgresql.conf'"
  CLOCHE_DB_PASSWORD=$(as_server cat "$DB/password")
  if ! come_back; then
    stop_cluster
    as_server rm -rf "$DB/data"; as_server mv "$beside" "$DB/data"; as_server mv "$beside.password" "$DB/password"
    stop_with "that time cannot be reached with what is kept in $folder (see $DB/log); your data are as before."
  fi
  as_server rm -f "$DB/data/back.conf"
  note "Your data are as they were ($at). What stood before is beside them, in $beside, until you remove it."
  ! installed || { printf '%s' "$(fixed CLOCHE_DB_PORT)" > "$STATE/port"; clean_up; exec 9>&-; start_services; }
}

# A server that reads what was kept, until it has become one that writes.
come_back() {
  local i
  DB_PORT=$(free_port)
  as_server "$PGBIN/pg_ctl" -D "$DB/data" -l "$DB/log" -w -t 3600 -s -o "-p $DB_PORT" start > /dev/null || return 1
  for i in $(seq 36000); do
    case $(PG_USER=keeper pg psql -X -qAt -d postgres -c "SELECT pg_is_in_recovery()" 2>/dev/null) in
      f) return ;;
      t) sleep 0.1 ;;
      *) as_server "$PGBIN/pg_ctl" -D "$DB/data" status > /dev/null || return 1 ;;
    esac
  done
  return 1
}
