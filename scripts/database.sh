# A private PostgreSQL cluster a purpose: the grower's own, the demo, the tests. Sourced by ./run.
# On loopback and a free port with a password of its own; never the system's cluster on 5432.
key() { printf '%s' "$ROOT" | cksum | cut -d' ' -f1; }

state_home() {
  if [ -n "${CLOCHE_HOME:-}" ]; then printf '%s' "$CLOCHE_HOME"
  elif [ "$(id -u)" = 0 ]; then printf /var/lib/cloche
  else printf '%s' "${XDG_DATA_HOME:-$HOME/.local/share}/cloche"; fi
}

# The grower's own data belong to the grower, not to a checkout; all else belongs to this checkout.
state_of() { if [ "$1" = own ]; then printf '%s/own' "$(state_home)"; else printf '%s/%s-%s' "$(state_home)" "$1" "$(key)"; fi; }

as_server() {
  # Another user's server may not be allowed where we stand; / is open to all. 9>&-: the server must not inherit our lock.
  if [ "$(id -u)" = 0 ]; then (cd / && exec runuser -u postgres -- "$@" 9>&-); else (cd / && exec "$@" 9>&-); fi
}

settle() { # a killed server may linger as a zombie for a moment, and pg_ctl takes it for a live one
  local pid i
  pid=$(as_server head -1 "$DB/data/postmaster.pid" 2>/dev/null) || return 0
  for i in $(seq 50); do grep -q '^State:.Z' "/proc/$pid/status" 2>/dev/null || return 0; sleep 0.2; done
}

# Run by root, nothing that people or their devices reach is root: the database has its own user, the web and the workers theirs.
own_user() {
  AS_WEB="" AS_DATABASE="" WEB_USER=""
  [ "$(id -u)" = 0 ] || return 0
  WEB_USER=cloche
  id -u "$WEB_USER" >/dev/null 2>&1 || useradd --system --user-group --no-create-home --home-dir /nonexistent --shell /usr/sbin/nologin "$WEB_USER" \
    || stop_with "the user “$WEB_USER”, as which the application runs, could not be made."
  AS_DATABASE="setpriv --reuid postgres --regid postgres --init-groups"
  AS_WEB="setpriv --reuid $WEB_USER --regid $WEB_USER --init-groups"
  if ! (cd / && $AS_WEB test -r "$ROOT/src/cloche/manage.py" && $AS_WEB "$PY" -c 'import django') 2>/dev/null; then
    # A checkout below a folder that only root may enter: one right more, to read files, and no other.
    note "$ROOT lies where only root may read; the application runs as “$WEB_USER” with the right to read files. /opt is a better place."
    AS_WEB="setpriv --reuid $WEB_USER --regid $WEB_USER --init-groups --inh-caps +dac_read_search --ambient-caps +dac_read_search"
  fi
}

make_cluster() {
  as_server rm -rf "$DB/data"
  as_server sh -c "umask 077; head -c 24 /dev/urandom | base64 | tr -d '/+=\n' > '$DB/password'"
  as_server "$PGBIN/initdb" -D "$DB/data" -U keeper -E UTF8 --locale-provider=icu --icu-locale=und --locale=C.UTF-8 \
    --auth-local=reject --auth-host=scram-sha-256 --pwfile="$DB/password" > "$STATE/initdb.log" 2>&1 \
    || stop_with "the database could not be made; see $STATE/initdb.log."
  local lasting=on
  case $1 in test|bench|shots) lasting=off ;; esac
  as_server sh -c "cat >> '$DB/data/postgresql.conf'" <<CONF
unix_socket_directories = ''
listen_addresses = '127.0.0.1'
max_connections = 60
timezone = 'UTC'
fsync = $lasting
full_page_writes = $lasting
synchronous_commit = $lasting
CONF
  as_server touch "$DB/ready"
}

# The application's role owns its database and nothing else. The keeper, who owns the cluster, is used here alone.
ready_roles() {
  local may=NOCREATEDB
  case $1 in test|bench|shots) may=CREATEDB ;; esac # they make and drop databases of their own
  if [ "$(PG_USER=cloche pg psql -X -qAt -d postgres -c "SELECT rolsuper FROM pg_roles WHERE rolname = 'cloche'" 2>/dev/null)" = t ]; then
    # Made before there was a keeper: the role that made everything becomes the keeper, and what is the application's its own.
    PG_USER=cloche pg psql -X -q -d postgres -c "CREATE ROLE mover SUPERUSER LOGIN PASSWORD '$CLOCHE_DB_PASSWORD'"
    PG_USER=mover pg psql -X -q -d postgres -c "ALTER ROLE cloche RENAME TO keeper" -c "ALTER ROLE keeper PASSWORD '$CLOCHE_DB_PASSWORD'"
    PG_USER=keeper pg psql -X -q -d postgres -c "DROP ROLE mover"
  fi
  PG_USER=keeper pg psql -X -q -v ON_ERROR_STOP=1 -d postgres <<SQL
DO \$\$ BEGIN IF NOT EXISTS (SELECT 1 FROM pg_roles WHERE rolname = 'cloche') THEN CREATE ROLE cloche; END IF; END \$\$;
ALTER ROLE cloche LOGIN NOSUPERUSER NOCREATEROLE NOREPLICATION NOBYPASSRLS $may PASSWORD '$CLOCHE_DB_PASSWORD';
SQL
  PG_USER=keeper pg psql -X -qAt -d postgres -c "SELECT 1 FROM pg_database WHERE datname = 'cloche'" | grep -q 1 \
    || PG_USER=keeper pg createdb -O cloche cloche
  # Where a night's backup is restored on trial.
  PG_USER=keeper pg psql -X -qAt -d postgres -c "SELECT 1 FROM pg_database WHERE datname = 'cloche_check'" | grep -q 1 \
    || PG_USER=keeper pg createdb -O cloche cloche_check
  own_everything cloche
}

# What another role made in a database becomes the application's.
own_everything() {
  PG_USER=keeper pg psql -X -q -v ON_ERROR_STOP=1 -d "$1" <<'SQL'
DO $$ DECLARE name text; owner text; BEGIN
  SELECT pg_get_userbyid(datdba) INTO owner FROM pg_database WHERE datname = current_database();
  IF owner <> 'cloche' THEN EXECUTE format('ALTER DATABASE %I OWNER TO cloche', current_database()); END IF;
  ALTER SCHEMA public OWNER TO cloche;
  FOR name IN SELECT format('ALTER %s %I.%I OWNER TO cloche', CASE relkind WHEN 'S' THEN 'SEQUENCE' WHEN 'v' THEN 'VIEW' ELSE 'TABLE' END, 'public', relname)
    FROM pg_class WHERE relnamespace = 'public'::regnamespace AND relkind IN ('r', 'p', 'S', 'v') AND pg_get_userbyid(relowner) <> 'cloche'
      AND NOT EXISTS (SELECT 1 FROM pg_depend WHERE objid = pg_class.oid AND deptype IN ('a', 'i') AND relkind = 'S') LOOP EXECUTE name; END LOOP;
  FOR name IN SELECT format('ALTER ROUTINE %s OWNER TO cloche', oid::regprocedure) FROM pg_proc
    WHERE pronamespace = 'public'::regnamespace AND pg_get_userbyid(proowner) <> 'cloche' LOOP EXECUTE name; END LOOP;
  FOR name IN SELECT format('ALTER TYPE %s OWNER TO cloche', oid::regtype) FROM pg_type
    WHERE typnamespace = 'public'::regnamespace AND typtype IN ('e', 'c') AND pg_get_userbyid(typowner) <> 'cloche'
      AND NOT EXISTS (SELECT 1 FROM pg_class WHERE reltype = pg_type.oid AND relkind <> 'c') LOOP EXECUTE name; END LOOP;
END $$;
SQL
}

stop_cluster() { as_server "$PGBIN/pg_ctl" -D "$DB/data" -m fast -w -s stop >/dev/null 2>&1 || true; }

start_cluster() {
  local try
  for try in 1 2 3; do
    DB_PORT=$(free_port)
    as_server "$PGBIN/pg_ctl" -D "$DB/data" -l "$DB/log" -w -t 60 -s -o "-p $DB_PORT" start >/dev/null && return
  done
  stop_with "the database would not start; see $DB/log."
}

# with_database PURPOSE: cluster running, CLOCHE_* set for it, stopped again when this command ends.
with_database() {
  STATE=$(state_of "$1"); DB="$STATE/db"; PGBIN=$(postgres_bin)
  unset PGDATA PGHOST PGHOSTADDR PGPORT PGUSER PGDATABASE PGPASSWORD PGSERVICE PGOPTIONS PGSSLMODE || true
  mkdir -p "$STATE" 2>/dev/null && [ -w "$STATE" ] || stop_with "no permission to keep data in $STATE; set CLOCHE_HOME to a folder of yours."
  local free
  free=$(df -Pm "$STATE" | awk 'NR==2 {print $4}')
  [ "$free" -ge 40 ] || stop_with "only $free MB are free where your data lie, in $STATE; free at least 40."
  exec 9> "$STATE/lock"
  flock -n 9 || stop_with "another “./run” with the same data ($1) is still running."
  if [ "$(id -u)" = 0 ]; then
    chmod 755 "$(state_home)" "$STATE"
    install -d -m 700 -o postgres "$DB"
    as_server test -w "$DB" || stop_with "the database’s own user cannot reach $STATE; set CLOCHE_HOME to a folder below ones that everybody may enter."
  else mkdir -p -m 700 "$DB"; fi
  settle
  stop_cluster # left over from a killed command
  as_server test -f "$DB/ready" || make_cluster "$1"
  trap clean_up EXIT
  [ "$1" != own ] || tell_archiving
  start_cluster
  printf '%s' "$DB_PORT" > "$STATE/port"
  export CLOCHE_STATE="$STATE" CLOCHE_DB_PORT="$DB_PORT" CLOCHE_DB_PASSWORD
  CLOCHE_DB_PASSWORD=$(as_server cat "$DB/password")
  [ -s "$STATE/secret" ] || (umask 077; head -c 48 /dev/urandom | base64 -w0 > "$STATE/secret")
  export CLOCHE_SECRET_KEY; CLOCHE_SECRET_KEY=$(cat "$STATE/secret")
  ready_roles "$1"
}

pg() { local tool=$1; shift; PGPASSWORD="$CLOCHE_DB_PASSWORD" "$PGBIN/$tool" -h 127.0.0.1 -p "$DB_PORT" -U "${PG_USER:-cloche}" "$@"; }

clean_up() {
  # Ignored, not reset: a terminal and what started us may both send a signal, and the second must not cut this short.
  trap '' INT TERM
  trap - EXIT
  stop_cluster
}

from_here() { case $1 in /*) printf '%s' "$1" ;; *) printf '%s/%s' "$HERE" "$1" ;; esac; }

# While the application runs its server is asked; otherwise one is started for the purpose.
reach_own() {
  set_up run
  STATE=$(state_of own); DB="$STATE/db"; PGBIN=$(postgres_bin)
  if [ -f "$STATE/lock" ] && ! flock -n "$STATE/lock" true; then
    DB_PORT=$(cat "$STATE/port"); CLOCHE_DB_PASSWORD=$(as_server cat "$DB/password"); CLOCHE_SECRET_KEY=$(cat "$STATE/secret")
    export CLOCHE_STATE="$STATE" CLOCHE_DB_PORT="$DB_PORT" CLOCHE_DB_PASSWORD CLOCHE_SECRET_KEY
  else with_database own; fi
}

back_up() {
  local file
  file=$(from_here "$1")
  reach_own
  # For its owner's eyes, and whole or not at all.
  if ! (umask 077; pg pg_dump -Fc -f "$file.part" cloche && mv -f "$file.part" "$file"); then
    rm -f "$file.part"
    stop_with "the backup could not be written to $1."
  fi
  note "Everything of your gardens is in $1."
}

bring_back() {
  local before file
  file=$(from_here "$1")
  [ -r "$file" ] || stop_with "there is no backup to read at $1."
  set_up run; with_database own
  before="$STATE/before-restore-$(date +%Y%m%d-%H%M%S).backup"
  { ls -t "$STATE"/before-restore-*.backup 2>/dev/null || true; } | tail -n +2 | xargs -r rm -f # the last two are kept, with the one that is made now
  (umask 077; pg pg_dump -Fc -f "$before" cloche) && note "What was there before is kept in $before."
  # Into a database beside it, and only when that is whole are the two exchanged.
  local PG_USER=keeper
  pg dropdb --if-exists cloche_new && pg createdb -O cloche cloche_new
  pg pg_restore --no-owner --role=cloche --exit-on-error -d cloche_new "$file" || stop_with "$1 could not be restored; your data are as before."
  pg dropdb --if-exists cloche_old
  pg psql -X -q -v ON_ERROR_STOP=1 -d postgres -c 'ALTER DATABASE cloche RENAME TO cloche_old; ALTER DATABASE cloche_new RENAME TO cloche' \
    || stop_with "the restored data could not be put in place; your data are as before."
  pg dropdb cloche_old
  note "Restored from $1."
}
