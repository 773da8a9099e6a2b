# Starting the application, and the tests. Sourced by ./run.
manage() { PYTHONPATH=src "$PY" -m cloche.manage "$@"; }

free_port() { PYTHONPATH="$ROOT/src" /usr/bin/python3 -m cloche.supervisor.ports; }

port_is_free() { /usr/bin/python3 -c 'import socket, sys; s = socket.socket(); s.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1); s.bind(("127.0.0.1", int(sys.argv[1])))' "$1" 2>/dev/null; }

collect_static() { # only when something in it has changed
  local wanted
  wanted=$(find src/cloche/static -type f -printf '%P %s %T@\n' | sort | cksum)
  [ -f "$STATE/static.stamp" ] && [ "$(cat "$STATE/static.stamp")" = "$wanted" ] && return
  manage collectstatic --noinput --clear -v 0
  printf '%s' "$wanted" > "$STATE/static.stamp"
}

serve() {
  local mode=$1 port=8000 date="" seed=7; shift
  while [ $# -gt 0 ]; do
    case $1 in
      --port) port=${2:-}; shift 2 ;;
      --date) date=${2:-}; shift 2 ;;
      --seed) seed=${2:-}; shift 2 ;;
      *) stop_with "“$1” is not a word that ./run $mode knows; try --port, --date or --seed." ;;
    esac
  done
  case $port in ''|*[!0-9]*) stop_with "a port is a number, such as 8000." ;; esac
  port_is_free "$port" || stop_with "port $port is taken by another program. Stop it, or choose another: ./run ${mode/own/start} --port $((port + 1))."
  set_up run
  with_database "$mode"
  if [ "$mode" = demo ]; then
    export DJANGO_SETTINGS_MODULE=cloche.config.settings.demo
    CLOCHE_DAY_OFFSET=$(PYTHONPATH=src "$PY" -m cloche.demo.day "$date") || exit 1
    export CLOCHE_DAY_OFFSET
  else
    export DJANGO_SETTINGS_MODULE=cloche.config.settings.production
  fi
  trap 'exit 130' INT
  trap 'exit 143' TERM
  collect_static
  local said also=() listen=()
  if [ "$mode" = demo ]; then
    manage load_demo --seed "$seed"
    local weather_port
    weather_port=$(free_port)
    also=(--also "The weather=$PY -m cloche.demo.weather_service --port $weather_port --day-offset $CLOCHE_DAY_OFFSET --seed $seed")
    export CLOCHE_WEATHER_URL="http://127.0.0.1:$weather_port"
    said="Sign in with name  demo  and password  demo-garden   (or  southern, same password: a garden in the south, in °F)"
  else
    manage ready -v 0
    said="Your data are kept in  $STATE"
  fi
  [ -z "${CLOCHE_MQTT_URL:-}" ] || listen=(--listen)
  [ -z "${CLOCHE_METRICS_PORT:-}" ] || also+=(--also "The metrics=$PY -m cloche.manage metrics")
  hand_over "$port" "$said" "${listen[@]}" "${also[@]}"
}

# The engine as it was compiled beside the source, if it was: half a minute of every worker's first forecast.
take_compiled() {
  local latest
  latest=$(ls -td src/cloche_engine/__pycache__/compiled-* 2>/dev/null | head -1) || true # a fresh checkout has none
  if [ -n "$latest" ] && [ ! -d "$STATE/numba/${latest##*/}" ]; then
    rm -rf "$STATE/numba"/compiled-*
    cp -R -p "$latest" "$STATE/numba/"
  fi
}

# What the web and the workers write beside the database.
own_folders() {
  local folders=("$STATE/mail" "$STATE/numba" "$STATE/backups" "$STATE/metrics")
  rm -rf "$STATE/metrics" # counts of processes that are gone
  install -d -m 700 "${folders[@]}"
  take_compiled
  [ -z "$WEB_USER" ] || chown -R "$WEB_USER:" "${folders[@]}"
  [ -z "${CLOCHE_METRICS_PORT:-}" ] || export PROMETHEUS_MULTIPROC_DIR="$STATE/metrics"
}

# From here on the supervisor keeps the parts running, the database among them; our lock goes with it, our traps do not.
hand_over() {
  local port=$1 said=$2; shift 2
  own_user
  own_folders
  export CLOCHE_PG_BIN="$PGBIN" NUMBA_CACHE_DIR="$STATE/numba" PYTHONPATH="$ROOT/src"
  rm -f "$STATE/parts.json"
  stop_cluster
  exec "$PY" -m cloche.supervisor --state "$STATE" --python "$PY" --pg-bin "$PGBIN" --db "$DB" --port "$port" --db-port "$DB_PORT" \
    --as-web "$AS_WEB" --as-database "$AS_DATABASE" --greeting "\nCloche is open at  http://127.0.0.1:$port\n$said\nCtrl-C ends everything it started." "$@"
}

# Whoever keeps the machine lets somebody in again: with a new password, or without the second step where the phone is lost.
new_password() {
  local also=${2:-}
  [ -z "$also" ] || [ "$also" = --without-second-step ] || stop_with "unknown: $also. Say ./run password NAME --without-second-step"
  reach_own
  export DJANGO_SETTINGS_MODULE=cloche.config.settings.production
  manage ready -v 0
  if [ -n "$also" ]; then manage without_second_step "$1"; return; fi
  manage changepassword "$1"
  manage axes_reset_username "$1" > /dev/null # wrong tries of before no longer count
}

run_checks() {
  export DJANGO_SETTINGS_MODULE=cloche.config.settings.test
  "$VENV/bin/ruff" check -q . || stop_with "ruff has something to say, above."
  "$VENV/bin/ruff" format -q --check . || stop_with "some files are not formatted; run: .venv/bin/ruff format ."
  "$VENV/bin/oxlint" --quiet || stop_with "a script has something wrong, above."
  PYTHONPATH=src "$VENV/bin/lint-imports" --no-logo 2>&1 | tail -3
  [ "${PIPESTATUS[0]}" = 0 ] || stop_with "an import runs against the house's one way; ask lint-imports."
  PYTHONPATH=src "$VENV/bin/mypy" --no-error-summary src bench || stop_with "the types do not hold, above."
  manage makemigrations --check --dry-run -v 0 || stop_with "a model has changed without a migration."
}

run_tests() {
  export DJANGO_SETTINGS_MODULE=cloche.config.settings.test DJANGO_ALLOW_ASYNC_UNSAFE=true
  export PYTHONPATH=src:.
  # With words of your own, as pytest takes them; without, all of it: side by side, then what must be alone.
  if [ $# -gt 0 ]; then "$VENV/bin/pytest" "$@"; return; fi
  # One more than there are cores: some tests wait for processes. Those with a browser wait for it half of the time, so that
  # they run beside all others, on databases of their own; what they say is read when both are done.
  local beside=(--dist loadscope --no-loadscope-reorder) said="$STATE/journeys.log" failed=0
  CLOCHE_DB_NAME=journeys "$VENV/bin/pytest" -n 2 "${beside[@]}" tests/journeys > "$said" 2>&1 &
  local journeys=$!
  trap 'kill "$journeys" 2>/dev/null; exit 130' INT TERM
  "$VENV/bin/pytest" -n 3 "${beside[@]}" -m "not alone" --ignore tests/journeys || failed=1
  wait "$journeys" || failed=1
  cat "$said"
  [ "$failed" = 0 ] || return 1
  grep -rlZ --include='test_*.py' 'mark\.alone' tests | xargs -0 "$VENV/bin/pytest" -m alone
}

# The engine is compiled once, beside the checks, and not by each of the tests' workers.
check_and_warm() {
  PYTHONPATH=src:. "$PY" -W ignore -m bench.warm &
  run_checks
  wait $!
}

# These pages and those of the core, as HTML, into docs/_build.
build_docs() { PYTHONPATH=src "$VENV/bin/sphinx-build" -q -W --keep-going -b html docs docs/_build; note "The pages are in docs/_build/index.html."; }

# The same on one page, for people who read them aloud.
review_sentences() {
  local file=$1
  [ "${file#/}" != "$file" ] || file="$HERE/$file"
  DJANGO_SETTINGS_MODULE=cloche.config.settings.test manage sentences "$file"
}

# Every sentence that can be said, into the files of the languages.
gather_languages() { DJANGO_SETTINGS_MODULE=cloche.config.settings.test manage catalogue; }
