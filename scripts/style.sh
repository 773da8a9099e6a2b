# Bootstrap with only the parts that pages use, compiled from its Sass. Sourced by ./run; needs npm to fetch the sources.
BOOTSTRAP=5.3.8

compile_style() {
  command -v npm >/dev/null || stop_with "npm is missing: it fetches Bootstrap's Sass sources. apt-get install npm."
  local work; work=$(mktemp -d)
  (cd "$work" && npm pack --silent "bootstrap@$BOOTSTRAP" >/dev/null && tar xzf bootstrap-*.tgz) \
    || stop_with "Bootstrap's sources could not be fetched."
  local into="src/cloche/static/vendor/bootstrap-$BOOTSTRAP/bootstrap.css"
  {
    printf '/* Compiled from styles/bootstrap.scss, sha256 %s, by ./run style: change that, not this. */\n' \
      "$(sha256sum styles/bootstrap.scss | cut -d' ' -f1)"
    "$PY" -c 'import sass, sys; sys.stdout.write(sass.compile(filename="styles/bootstrap.scss", include_paths=[sys.argv[1]]))' \
      "$work/package/scss"
  } > "$into"
  rm -rf "$work"
  note "$into is new."
}
