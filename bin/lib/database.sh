# The database of this checkout: its own data folder, on loopback. Sourced; needs $ROOT, $VAR and $DB_PORT.
# --no-defaults must come first everywhere, or the machine's own /etc/mysql is read.

DB_DIR="$VAR/db"
# A socket path may have 107 bytes at most, which a deep checkout exceeds.
DB_SOCKET="/tmp/left-over-$(id -u)-$(printf '%s' "$DB_DIR" | cksum | cut -d' ' -f1).sock"
DB_AS=(); [ "$(id -u)" = 0 ] && DB_AS=(--user=root)

db_client() { mariadb --no-defaults --default-character-set=utf8mb4 --socket="$DB_SOCKET" --user="$(id -un)" "$@"; }

# The command that serves the data folder, as an array.
db_server=(mariadbd --no-defaults "${DB_AS[@]}" --datadir="$DB_DIR" --basedir=/usr --socket="$DB_SOCKET"
  --port="$DB_PORT" --bind-address=127.0.0.1 --pid-file="$VAR/db.pid" --skip-name-resolve
  --character-set-server=utf8mb4 --collation-server=utf8mb4_uca1400_ai_ci --default-time-zone=+00:00
  --innodb-buffer-pool-size=256M --innodb-flush-log-at-trx-commit=1 --max-connections=200 --log-error="$VAR/log/db.log")

# Makes the data folder once; a folder left half made by a crash is made again.
db_install() {
  [ -e "$DB_DIR/.ready" ] && return
  rm -rf "$DB_DIR"
  mkdir -p "$DB_DIR"
  mariadb-install-db --no-defaults "${DB_AS[@]}" --datadir="$DB_DIR" --basedir=/usr \
    --auth-root-authentication-method=socket --auth-root-socket-user="$(id -un)" \
    --skip-test-db --skip-name-resolve >"$VAR/log/db-install.log" 2>&1 ||
    { echo "The database folder could not be made; see $VAR/log/db-install.log" >&2; return 1; }
  touch "$DB_DIR/.ready"
}

db_wait() {
  for _ in $(seq 300); do
    db_client -e 'select 1' >/dev/null 2>&1 && return
    sleep 0.1
  done
  echo "The database does not answer; see $VAR/log/db.log" >&2
  return 1
}

# Two accounts: with --skip-name-resolve TCP and socket are different ones.
db_accounts() {
  local at
  for at in 127.0.0.1 localhost; do
    echo "CREATE USER IF NOT EXISTS 'left_over'@'$at' IDENTIFIED BY 'left_over';"
    echo "GRANT ALL ON \`left_over\\_%\`.* TO 'left_over'@'$at';"
  done | db_client
}
