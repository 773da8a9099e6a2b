# What the machine must have, and the Python environment. Sourced by ./run.
VENV="$ROOT/.venv"
PY="$VENV/bin/python"
UV_VERSION=0.13.9
export LC_ALL=C.UTF-8 PYTHONUTF8=1 UV_PYTHON_DOWNLOADS=never UV_NO_PROGRESS=1
# Linear algebra on one core each: its matrices are small, and threads wait for each other longer than they reckon.
export OMP_NUM_THREADS=1 OPENBLAS_NUM_THREADS=1
# Bytecode is compiled at installation; a setting that forbids it would make every start slow.
unset PYTHONDONTWRITEBYTECODE

stop_with() { printf 'Cloche cannot go on: %s\n' "$*" >&2; exit 1; }
note() { printf '%s\n' "$*" >&2; }

postgres_bin() { ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -t/ -k5 -V | tail -1; }

install_packages() {
  local missing=()
  [ -x /usr/bin/python3 ] && /usr/bin/python3 -c 'import ensurepip, venv' 2>/dev/null || missing+=(python3 python3-venv)
  [ -x "$(postgres_bin)/initdb" ] || missing+=(postgresql)
  if [ "$1" = test ]; then
    [ -x /usr/bin/chromium-headless-shell ] || missing+=(chromium-headless-shell fonts-noto-color-emoji)
    [ -x /usr/sbin/mosquitto ] || missing+=(mosquitto)
    [ -x /usr/bin/systemd-analyze ] || missing+=(systemd)
    [ -x /usr/sbin/nginx ] || missing+=(nginx-light)
    [ -x /usr/bin/openssl ] || missing+=(openssl)
  fi
  if [ "$1" = hosts ]; then
    [ -x /usr/sbin/pgbouncer ] || missing+=(pgbouncer)
    [ -x /usr/sbin/ip ] || missing+=(iproute2)
  fi
  if [ "$1" = images ]; then
    [ -x /usr/bin/podman ] || missing+=(podman)
    [ -x /usr/sbin/runc ] || missing+=(runc)
    [ -x /usr/bin/mmdebstrap ] || missing+=(mmdebstrap)
  fi
  [ ${#missing[@]} -eq 0 ] && return
  local as_root=()
  if [ "$(id -u)" != 0 ]; then
    command -v sudo >/dev/null || stop_with "these Debian packages are missing and need root or sudo to install: ${missing[*]}."
    as_root=(sudo)
  fi
  command -v apt-get >/dev/null || stop_with "these packages are missing and this is no Debian to install them on: ${missing[*]}."
  note "Installing ${missing[*]} ..."
  "${as_root[@]}" apt-get update -qq || note "The package lists could not be refreshed; trying with the old ones."
  "${as_root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends ca-certificates "${missing[@]}" >/dev/null \
    || stop_with "apt-get could not install ${missing[*]}; its own words are above."
}

enough_disk() {
  local free
  free=$(df -Pm "$ROOT" | awk 'NR==2 {print $4}')
  [ -x "$PY" ] || [ "$free" -ge 1500 ] || stop_with "only $free MB are free on this disk; the first set-up needs about 1500."
  [ "$free" -ge 100 ] || stop_with "only $free MB are free on this disk; free at least 100."
}

# One environment serves all commands: the test set holds everything that the running set does.
python_environment() {
  local set=$1 file="requirements/$1.txt" stamp="$VENV/.installed-$1" wanted
  wanted=$(cat requirements/run.txt requirements/test.txt | cksum)
  [ -f "$stamp" ] && [ "$(cat "$stamp")" = "$wanted" ] && return
  [ "$set" = run ] && [ -f "$VENV/.installed-test" ] && [ "$(cat "$VENV/.installed-test")" = "$wanted" ] && return
  [ -w "$ROOT" ] || stop_with "no permission to write in $ROOT, where the Python environment goes."
  note "Setting up the Python environment (once) ..."
  [ -x "$PY" ] || /usr/bin/python3 -m venv "$VENV" || stop_with "the Python environment could not be made in .venv."
  "$VENV/bin/pip" install -q --disable-pip-version-check "uv==$UV_VERSION" 2>/dev/null \
    || "$VENV/bin/pip" install -q --disable-pip-version-check uv || stop_with "uv could not be installed from the Python package index."
  "$VENV/bin/uv" pip install -q --python "$PY" --require-hashes --compile-bytecode -r "$file" \
    || stop_with "the Python packages of $file could not be installed."
  printf '%s' "$wanted" > "$stamp"
}

set_up() { install_packages "$1"; enough_disk; python_environment "$1"; }

write_lock() {
  local compile=("$VENV/bin/uv" pip compile -q pyproject.toml --python-version 3.11 --universal --generate-hashes --no-header --no-annotate)
  "${compile[@]}" -o requirements/run.txt
  "${compile[@]}" --extra test -c requirements/run.txt -o requirements/test.txt
}

# Needs a network: what is known against the versions that are pinned is nowhere else.
known_advisories() {
  "$VENV/bin/uv" tool run -q pip-audit --require-hashes --disable-pip -r requirements/run.txt \
    || stop_with "something is known against a pinned version, or nobody could be asked; its own words are above."
}
