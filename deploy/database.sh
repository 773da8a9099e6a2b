#!/usr/bin/env bash
# A PostgreSQL for Cloche in a folder of its own, made at the first start: the role that the application has owns its database and
# nothing else. CLOCHE_DB_PASSWORD: that role's. CLOCHE_DB_PORT: where it listens, 5432 if left out. CLOCHE_DB_LISTEN: on which
# addresses, all if left out. CLOCHE_DB_FROM: whom it lets in, all if left out; always by password.
set -euo pipefail
data=${1:?Say where the data lie}/data
: "${CLOCHE_DB_PASSWORD:?Say which password the application has}"
bin=$(ls -d /usr/lib/postgresql/*/bin | sort -t/ -k5 -V | tail -1)
port=${CLOCHE_DB_PORT:-5432}

if [ ! -f "$data/made" ]; then
  rm -rf "$data"
  "$bin/initdb" -D "$data" -U keeper -E UTF8 --locale-provider=icu --icu-locale=und --locale=C.UTF-8 --auth=reject > /dev/null
  printf 'local all keeper peer map=keeper\nhost cloche,cloche_check cloche %s scram-sha-256\n' "${CLOCHE_DB_FROM:-all}" > "$data/pg_hba.conf"
  printf 'keeper %s keeper\n' "$(id -un)" > "$data/pg_ident.conf"
  cat >> "$data/postgresql.conf" <<CONF
unix_socket_directories = '$data'
timezone = 'UTC'
max_connections = 200
CONF
  "$bin/pg_ctl" -D "$data" -w -s -o "-p $port -c listen_addresses=''" start > /dev/null
  "$bin/psql" -X -q -v ON_ERROR_STOP=1 -v password="$CLOCHE_DB_PASSWORD" -h "$data" -p "$port" -U keeper -d postgres <<'SQL'
CREATE ROLE cloche LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE PASSWORD :'password';
CREATE DATABASE cloche OWNER cloche;
CREATE DATABASE cloche_check OWNER cloche;
SQL
  "$bin/pg_ctl" -D "$data" -m fast -w -s stop
  touch "$data/made"
fi
exec "$bin/postgres" -D "$data" -p "$port" -c "listen_addresses=${CLOCHE_DB_LISTEN-*}"
