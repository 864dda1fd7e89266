# What is installed by bin/install: where it is, and its console. Sourced by the scripts that look after it, not run.
#   VERJUICER_ETC=/etc/verjuicer   where bin/install wrote what it was told

VERJUICER_ETC=${VERJUICER_ETC:-/etc/verjuicer}

load_kitchen() {
    [ -r "$VERJUICER_ETC/install.env" ] || { echo "Nothing is installed at $VERJUICER_ETC, or it may be read by root alone. See bin/install." >&2; exit 2; }
    set -a
    . "$VERJUICER_ETC/install.env"
    . "$VERJUICER_ETC/verjuicer.env"
    . "$VERJUICER_ETC/owner.env"
    set +a
}

# As whom the application works: never as root where there is somebody else.
as_served() {
    if [ "$(id -u)" = 0 ] && [ "$SERVE_USER" != root ]; then setpriv --reuid="$SERVE_USER" --regid="$SERVE_USER" --init-groups -- "$@"; else "$@"; fi
}

console() { as_served php bin/console "$@"; }

# The database's own user, by its socket.
psql_admin() { as_postgres "$(postgres_bin)/psql" -q -v ON_ERROR_STOP=1 -h "$LIB/pg" -p "$PG_PORT" -U postgres "$@"; }

backrest() { as_postgres pgbackrest --config="$LIB/backrest/pgbackrest.conf" --stanza=verjuicer "$@"; }

pg_is_up() { as_postgres "$(postgres_bin)/pg_ctl" -D "$LIB/pg" status >/dev/null 2>&1; }

# start_kitchen_database: unless it runs; PG_STARTED says whether this call did.
start_kitchen_database() {
    PG_STARTED=no
    pg_is_up && return
    as_postgres "$(postgres_bin)/pg_ctl" -D "$LIB/pg" -w -t 120 -l "$LOG/postgresql-start.log" start >/dev/null
    PG_STARTED=yes
}
