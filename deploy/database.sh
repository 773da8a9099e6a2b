#!/usr/bin/env bash
# A PostgreSQL for Cloche in a folder of its own, made at the first start: the role that the application has owns its database and
# nothing else. CLOCHE_DB_PASSWORD: that role's. CLOCHE_DB_PORT: where it listens, 5432 if left out. CLOCHE_DB_LISTEN: on which
# addresses, all if left out. CLOCHE_DB_FROM: whom it lets in, all if left out; always by password.
# CLOCHE_DB_FOLLOWER_PASSWORD: with it a second one may follow this one, and with CLOCHE_DB_FOLLOWS=HOST:PORT this is that second:
# at its first start a copy of the other, from then on a moment behind it, until it is promoted.
set -euo pipefail
data=${1:?Say where the data lie}/data
# Made beside their place and moved there when they are whole; the socket, too, lies where a copy of the data does not bring it along.
half=$1/half socket=$1
: "${CLOCHE_DB_PASSWORD:?Say which password the application has}"
bin=$(ls -d /usr/lib/postgresql/*/bin | sort -t/ -k5 -V | tail -1)
port=${CLOCHE_DB_PORT:-5432}
from=${CLOCHE_DB_FROM:-all}

make() {
  "$bin/initdb" -D "$half" -U keeper -E UTF8 --locale-provider=icu --icu-locale=und --locale=C.UTF-8 --auth=reject > /dev/null
  printf 'local all keeper peer map=keeper\nhost cloche,cloche_check cloche %s scram-sha-256\n' "$from" > "$half/pg_hba.conf"
  printf 'keeper %s keeper\n' "$(id -un)" > "$half/pg_ident.conf"
  printf "timezone = 'UTC'\nmax_connections = 200\nwal_keep_size = '1GB'\n" >> "$half/postgresql.conf"
  "$bin/pg_ctl" -D "$half" -w -s -o "-p $port -c listen_addresses='' -c unix_socket_directories='$socket'" start > /dev/null
  "$bin/psql" -X -q -v ON_ERROR_STOP=1 -v password="$CLOCHE_DB_PASSWORD" -h "$socket" -p "$port" -U keeper -d postgres <<'SQL'
CREATE ROLE cloche LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE PASSWORD :'password';
CREATE DATABASE cloche OWNER cloche;
CREATE DATABASE cloche_check OWNER cloche;
SQL
  if [ -n "${CLOCHE_DB_FOLLOWER_PASSWORD:-}" ]; then
    printf 'host replication follower %s scram-sha-256\n' "$from" >> "$half/pg_hba.conf"
    "$bin/psql" -X -q -v ON_ERROR_STOP=1 -v password="$CLOCHE_DB_FOLLOWER_PASSWORD" -h "$socket" -p "$port" -U keeper -d postgres \
      <<< "CREATE ROLE follower LOGIN REPLICATION PASSWORD :'password'"
  fi
  "$bin/pg_ctl" -D "$half" -m fast -w -s stop
}

follow() { # by the name under which the other may wait for it before it answers
  local other="host=${CLOCHE_DB_FOLLOWS%:*} port=${CLOCHE_DB_FOLLOWS##*:} user=follower application_name=follower"
  PGPASSWORD="${CLOCHE_DB_FOLLOWER_PASSWORD:?Say with which password it follows}" \
    "$bin/pg_basebackup" -D "$half" -X stream -R -c fast -d "$other"
}

if [ ! -d "$data" ]; then
  rm -rf "$half"
  if [ -n "${CLOCHE_DB_FOLLOWS:-}" ]; then follow; else make; fi
  mv "$half" "$data"
fi
exec "$bin/postgres" -D "$data" -p "$port" -c "listen_addresses=${CLOCHE_DB_LISTEN-*}" -c "unix_socket_directories=$socket"
