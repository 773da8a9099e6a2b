# Services of a machine that stays on, kept by systemd. Sourced by ./run.
# A release is a folder; a newer one is unpacked beside it, and its own ./run upgrade goes over to it.
UNITS=${CLOCHE_UNITS:-/etc/systemd/system}
CONF=${CLOCHE_CONF:-/etc/cloche}

# Where no systemd runs, units are written all the same.
services() { [ ! -d /run/systemd/system ] || systemctl "$@"; }

as_root() { [ "$(id -u)" = 0 ] || stop_with "this writes to $UNITS and needs root: sudo ./run $1"; }

installed() { [ -f "$CONF/cloche.env" ]; }

fixed() { { sed -n "s/^$1=//p" "$CONF/cloche.env" 2>/dev/null || true; } | head -1; }

write_units() {
  local port=$1 db_port=$2 capabilities="" homes=yes unit too wal
  case $AS_WEB in *dac_read_search*) capabilities=CAP_DAC_READ_SEARCH ;; esac
  case "$ROOT $STATE" in *"/home/"* | *"/root/"*) homes=read-only ;; esac
  install -d -m 755 "$UNITS" "$CONF"
  (umask 077; cat > "$CONF/cloche.env.new" <<ENV
# Written by ./run install and ./run upgrade. What is yours to set stands in settings.env.
CLOCHE_ROOT=$ROOT
CLOCHE_STATE=$STATE
CLOCHE_PORT=$port
CLOCHE_DB_PORT=$db_port
CLOCHE_DB_PASSWORD=$CLOCHE_DB_PASSWORD
CLOCHE_SECRET_KEY=$CLOCHE_SECRET_KEY
CLOCHE_PG_BIN=$PGBIN
PROMETHEUS_MULTIPROC_DIR=$STATE/metrics
NUMBA_CACHE_DIR=$STATE/numba
PYTHONPATH=$ROOT/src
PYTHONUTF8=1
LC_ALL=C.UTF-8
OMP_NUM_THREADS=1
OPENBLAS_NUM_THREADS=1
DJANGO_SETTINGS_MODULE=cloche.config.settings.production
ENV
  ) && mv -f "$CONF/cloche.env.new" "$CONF/cloche.env"
  [ -f "$CONF/settings.env" ] || (umask 077; sed "s|@ROOT@|$ROOT|" scripts/units/settings.env > "$CONF/settings.env")
  # Folders of your own that the workers write to.
  too=$(sed -n 's/^CLOCHE_\(BACKUPS_TOO\|INBOX\)=/ -/p' "$CONF/settings.env" | tr -d '\n')
  wal=$(wal_folder)
  for unit in scripts/units/cloche*; do
    sed -e "/^@HARDENING@/{r scripts/units/hardening.part
d}" "$unit" | sed -e "s|@ROOT@|$ROOT|g" -e "s|@STATE@|$STATE|g" -e "s|@CONF@|$CONF|g" -e "s|@PY@|$PY|g" -e "s|@PGBIN@|$PGBIN|g" \
      -e "s|@PORT@|$port|g" -e "s|@DB_PORT@|$db_port|g" -e "s|@CAPABILITIES@|$capabilities|g" -e "s|@HOMES@|$homes|g" -e "s|@TOO@|$too|g" -e "s|@WAL@|${wal:+ -$wal}|g" \
      > "$UNITS/${unit##*/}"
  done
}

# The data made ready for the program that is here, and the server stopped again.
ready_data() {
  export DJANGO_SETTINGS_MODULE=cloche.config.settings.production
  own_user
  install -d -m 755 "$STATE/static"
  collect_static
  manage ready -v 0 || return 1
  own_folders
  printf '%s' "$1" > "$STATE/port"
}

stop_services() { services stop cloche.target 'cloche-*' 2>/dev/null || true; }

start_services() {
  services daemon-reload
  services enable -q cloche.target cloche-web.socket
  services start cloche.target
}

# Whether the application answers that it is ready, within a minute and a half; where no systemd runs nobody can tell.
answers_ready() {
  [ -d /run/systemd/system ] || return 0
  local try
  for try in $(seq 90); do
    /usr/bin/python3 -c "import urllib.request; urllib.request.urlopen('http://127.0.0.1:$1/readyz/', timeout=5)" 2>/dev/null && return 0
    sleep 1
  done
  return 1
}

install_services() {
  local port=8000 db_port
  if [ "${1:-}" = --port ]; then port=${2:?Say which: --port 8000}; elif [ -n "${1:-}" ]; then stop_with "unknown: $1. Say ./run install --port 8000"; fi
  as_root install
  set_up run
  ! installed || stop_services # said again after a change of settings
  with_database own
  db_port=$(fixed CLOCHE_DB_PORT)
  [ -n "$db_port" ] || db_port=$DB_PORT
  ready_data "$db_port" || stop_with "the database could not be made ready; nothing was installed."
  write_units "$port" "$db_port"
  clean_up
  exec 9>&-
  start_services
  answers_ready "$port" || stop_with "the services do not answer; see: journalctl -u 'cloche-*'"
  note "Cloche starts with this machine, at  http://127.0.0.1:$port  (data in $STATE, your settings in $CONF/settings.env)."
  [ -d /run/systemd/system ] || note "No systemd runs here: the units lie in $UNITS and were not started."
}

uninstall_services() {
  as_root uninstall
  installed || stop_with "Cloche is not installed as a service."
  STATE=$(fixed CLOCHE_STATE)
  stop_services
  services disable -q cloche.target cloche-web.socket 2>/dev/null || true
  rm -f "$UNITS"/cloche.target "$UNITS"/cloche-{database,listener,metrics,web@,worker@}.service "$UNITS"/cloche-web.socket "$CONF/cloche.env"
  services daemon-reload
  note "The services are gone. Your data are still in $STATE, your settings in $CONF/settings.env; ./run start opens them."
}

# What runs as services stands still meanwhile.
restore_own() {
  if ! installed; then bring_back "$1"; return; fi
  as_root restore
  stop_services
  bring_back "$1"
  printf '%s' "$(fixed CLOCHE_DB_PORT)" > "$STATE/port"
  clean_up
  exec 9>&-
  start_services
}

# From the release that is installed to the one this ./run belongs to: a backup before, and back by itself where it fails.
upgrade_services() {
  as_root upgrade
  installed || stop_with "Cloche is not installed as a service yet; say ./run install."
  if [ "${1:-}" = --back ]; then go_back; return; fi
  [ -z "${1:-}" ] || stop_with "unknown: $1. Say ./run upgrade, or ./run upgrade --back"
  local port db_port before from
  port=$(fixed CLOCHE_PORT) db_port=$(fixed CLOCHE_DB_PORT) from=$(fixed CLOCHE_ROOT)
  set_up run
  stop_services
  with_database own
  before="$STATE/before-upgrade-$(date +%Y%m%d-%H%M%S).backup"
  (umask 077; pg pg_dump -Fc -f "$before.part" cloche && mv "$before.part" "$before") || { start_services; stop_with "no backup could be made; nothing was changed."; }
  rm -rf "$STATE/before-upgrade"; install -d -m 700 "$STATE/before-upgrade"
  cp -p "$UNITS"/cloche* "$CONF/cloche.env" "$STATE/before-upgrade/"
  printf '%s' "$before" > "$STATE/before-upgrade/backup"
  { ls -t "$STATE"/before-upgrade-*.backup || true; } | tail -n +3 | xargs -r rm -f
  if ! ready_data "$db_port"; then clean_up; exec 9>&-; note "The data could not be brought to this release; going back."; go_back; exit 1; fi
  write_units "$port" "$db_port"
  clean_up
  exec 9>&-
  start_services
  if ! answers_ready "$port"; then note "This release does not answer; going back."; go_back; exit 1; fi
  note "Now at $ROOT (before: $from). The way back: ./run upgrade --back"
}

# The release and the data of before the last upgrade. What was written down since is kept beside, in a backup.
go_back() {
  STATE=$(fixed CLOCHE_STATE)
  local kept="$STATE/before-upgrade"
  [ -f "$kept/backup" ] || stop_with "there is no upgrade to go back on."
  [ -d "$(sed -n 's/^CLOCHE_ROOT=//p' "$kept/cloche.env")" ] || stop_with "the release of before is no longer there: $(sed -n 's/^CLOCHE_ROOT=//p' "$kept/cloche.env")."
  stop_services
  bring_back "$(cat "$kept/backup")"
  clean_up
  exec 9>&-
  cp -p "$kept"/cloche*.service "$kept"/cloche*.socket "$kept"/cloche.target "$UNITS/"
  cp -p "$kept/cloche.env" "$CONF/cloche.env"
  printf '%s' "$(fixed CLOCHE_DB_PORT)" > "$STATE/port"
  rm -rf "$kept"
  start_services
  note "Back at $(fixed CLOCHE_ROOT), with the data of before the upgrade."
}

# For a home network without a public name: an authority of one's own, which the phone is told to believe, and a certificate by it.
own_certificate() {
  local name=$1 folder
  case $name in *[!A-Za-z0-9.-]* | "") stop_with "a name has letters, digits, dots and hyphens, such as garden.home.arpa." ;; esac
  command -v openssl >/dev/null || stop_with "openssl is missing: apt-get install openssl"
  folder="$(state_of own)/tls"
  install -d -m 700 "$folder"
  (
    umask 077; cd "$folder"
    if [ ! -f authority.key ]; then
      openssl req -x509 -newkey ec -pkeyopt ec_paramgen_curve:prime256v1 -nodes -days 3650 -subj "/CN=Cloche at home" \
        -addext "keyUsage=critical,keyCertSign,cRLSign" -addext "basicConstraints=critical,CA:TRUE,pathlen:0" \
        -keyout authority.key -out authority.crt 2>/dev/null
    fi
    openssl req -newkey ec -pkeyopt ec_paramgen_curve:prime256v1 -nodes -subj "/CN=$name" -keyout "$name.key" -out "$name.csr" 2>/dev/null
    printf 'subjectAltName=DNS:%s\nextendedKeyUsage=serverAuth\nkeyUsage=digitalSignature\nbasicConstraints=CA:FALSE\n' "$name" > "$name.ext"
    # Phones believe no certificate of more than 825 days, whoever signed it.
    openssl x509 -req -in "$name.csr" -CA authority.crt -CAkey authority.key -CAcreateserial -days 825 -extfile "$name.ext" -out "$name.crt" 2>/dev/null
    rm -f "$name.csr" "$name.ext"
  ) || stop_with "the certificate could not be made."
  note "For the proxy: $folder/$name.crt and $folder/$name.key (good for 825 days; then say this again)."
  note "For each phone, once: $folder/authority.crt. docs/operations.md says how it is told to believe it."
}
