# What the machine must have. Sourced; says exactly what to run where it may not install.

# A fresh machine has no locale set, and programs would take text for ASCII.
export LC_ALL=C.UTF-8

ensure_packages() {
  local missing=() package
  for package in "$@"; do
    dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q 'ok installed' || missing+=("$package")
  done
  # Some machines bring their own Node.js and npm; then Debian's are not wanted.
  if command -v node >/dev/null && command -v npm >/dev/null; then
    local kept=()
    for package in "${missing[@]}"; do case "$package" in nodejs | npm) ;; *) kept+=("$package") ;; esac; done
    missing=("${kept[@]}")
  fi
  [ ${#missing[@]} = 0 ] && return
  if [ "$(id -u)" != 0 ]; then
    echo "These Debian packages are missing. Have somebody who may install them run:" >&2
    echo "  apt-get update && apt-get install --no-install-recommends ${missing[*]}" >&2
    return 1
  fi
  echo "Installing ${missing[*]} ..."
  mkdir -p "$VAR/log"
  { apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}"; } \
    >"$VAR/log/packages.log" 2>&1 || { tail -n 5 "$VAR/log/packages.log" >&2; echo "Installing failed; see $VAR/log/packages.log" >&2; return 1; }
}

BASE_PACKAGES=(ruby ruby-dev bundler build-essential libyaml-dev tzdata util-linux mariadb-server mariadb-client nodejs npm)
TEST_PACKAGES=(poppler-utils pkg-config zlib1g-dev libxml2-dev libxslt1-dev chromium-headless-shell fonts-noto-color-emoji python3 python3-dateutil python3-icalendar git)

# Gems into vendor/bundle, less the groups in $BUNDLE_WITHOUT; nothing is done when they are there.
ensure_gems() {
  export BUNDLE_GEMFILE="$ROOT/Gemfile" BUNDLE_PATH="$ROOT/vendor/bundle" BUNDLE_BUILD__NOKOGIRI=--use-system-libraries BUNDLE_JOBS=2
  bundle check >/dev/null 2>&1 && return
  echo "Installing gems ..."
  bundle install >"$VAR/log/gems.log" 2>&1 || { tail -n 5 "$VAR/log/gems.log" >&2; echo "Installing gems failed; see $VAR/log/gems.log" >&2; return 1; }
}

# Vite needs a newer Node.js than Debian 12 has; the npm registry has it as a package.
NODE_VERSION=20.20.2
node_fits() { node -e 'const [a, b] = process.versions.node.split("."); process.exit(a > 22 || (a == 22 && b >= 12) || (a == 20 && b >= 19) ? 0 : 1)' 2>/dev/null; }
ensure_node() {
  node_fits && return
  local kind="node-linux-$(case "$(uname -m)" in aarch64) echo arm64 ;; *) echo x64 ;; esac)"
  export PATH="$ROOT/vendor/node/node_modules/$kind/bin:$PATH"
  node_fits && return
  echo "Installing Node.js $NODE_VERSION ..."
  mkdir -p "$ROOT/vendor/node"
  npm install --prefix "$ROOT/vendor/node" --no-audit --no-fund "$kind@$NODE_VERSION" >"$VAR/log/node.log" 2>&1 && hash -r && node_fits ||
    { tail -n 5 "$VAR/log/node.log" >&2; echo "Node.js could not be installed; see $VAR/log/node.log" >&2; return 1; }
}

# What the front end is built and checked with.
ensure_front_end_packages() {
  local modules="$ROOT/web/node_modules/.installed-from" now
  now=$(cksum <"$ROOT/web/package-lock.json")
  ensure_node
  [ "$(cat "$modules" 2>/dev/null)" = "$now" ] && return
  echo "Installing the front end's packages ..."
  (cd "$ROOT/web" && npm ci --no-audit --no-fund) >"$VAR/log/npm.log" 2>&1 ||
    { tail -n 5 "$VAR/log/npm.log" >&2; echo "npm failed; see $VAR/log/npm.log" >&2; return 1; }
  echo "$now" >"$modules"
}

# The front end, built when something it is made of changed: into web/dist, or where LEFT_OVER_DIST says.
ensure_front_end() {
  local dist=${LEFT_OVER_DIST:-$ROOT/web/dist} now
  ensure_front_end_packages
  now=$(cd "$ROOT/web" && find src public index.html vite.config.ts package-lock.json -type f -print0 2>/dev/null | sort -z | xargs -0 cksum | cksum)
  [ "$(cat "$dist/.built-from" 2>/dev/null)" = "$now" ] && return
  echo "Building the front end ..."
  (cd "$ROOT/web" && npm run --silent build -- --outDir "$dist" --emptyOutDir) >"$VAR/log/build.log" 2>&1 ||
    { tail -n 20 "$VAR/log/build.log" >&2; echo "The build failed; see $VAR/log/build.log" >&2; return 1; }
  echo "$now" >"$dist/.built-from"
}
