# What bin/start and bin/test share: installing what is missing, and a PostgreSQL of the project's own. Sourced, not run.
# Works as root and as a user with sudo.

say() { printf '\033[1m%s\033[0m\n' "$*"; }

as_admin() {
    if [ "$(id -u)" = 0 ]; then "$@"; else sudo -n "$@" 2>/dev/null || sudo "$@"; fi
}

# Installs Debian packages in one call, with PHP's parts together so that their versions match.
install_packages() {
    say "Installing: $*"
    as_admin apt-get -o DPkg::Lock::Timeout=300 update -qq
    as_admin env DEBIAN_FRONTEND=noninteractive apt-get -o DPkg::Lock::Timeout=300 install -y -qq "$@" >/dev/null
}

need_php() {
    local missing=no extension modules
    modules=$(php -m 2>/dev/null) || missing=yes
    for extension in pdo_pgsql intl mbstring dom simplexml xmlwriter zip curl sodium apcu; do
        grep -qix "$extension" <<<"$modules" || missing=yes
    done
    local packages=()
    [ "$missing" = yes ] && packages+=(php8.2-cli php8.2-pgsql php8.2-intl php8.2-mbstring php8.2-xml php8.2-zip php8.2-curl php8.2-apcu)
    command -v weasyprint >/dev/null || packages+=(weasyprint)
    ls /usr/lib/postgresql/*/bin/initdb >/dev/null 2>&1 || packages+=(postgresql)
    [ -f /usr/share/php/Bacon/BaconQrCode/autoload.php ] || packages+=(php-bacon-qr-code)
    [ -f /usr/share/php/ChristianRiesen/Otp/autoload.php ] || packages+=(php-christianriesen-otp)
    command -v composer >/dev/null || packages+=(composer)
    command -v curl >/dev/null || packages+=(curl)
    command -v npm >/dev/null || packages+=(nodejs npm)
    [ ${#packages[@]} -eq 0 ] || install_packages "${packages[@]}"
}

# Reads the text back out of a PDF, for the tests of what is printed.
need_pdf_readers() {
    command -v pdftotext >/dev/null && command -v qpdf >/dev/null || install_packages poppler-utils qpdf
}

need_browser() {
    command -v chromedriver >/dev/null && command -v chromium >/dev/null || install_packages chromium chromium-driver
}

# The broker through which sensors publish.
need_mqtt() {
    command -v mosquitto >/dev/null || [ -x /usr/sbin/mosquitto ] || install_packages mosquitto
}

need_vendor() {
    if [ ! -f vendor/autoload.php ] || [ composer.json -nt vendor/autoload.php ]; then
        say 'Installing PHP packages'
        [ -d .symfony-src/src ] || COMPOSER_ALLOW_SUPERUSER=1 composer create-project --no-install --no-scripts --no-interaction --quiet symfony/symfony .symfony-src 7.4.23
        COMPOSER_ALLOW_SUPERUSER=1 composer install --no-interaction --no-progress --quiet
        touch vendor/autoload.php
    fi
}

need_node_modules() {
    if [ ! -f node_modules/.verjuicer ] || [ package.json -nt node_modules/.verjuicer ]; then
        npm install --no-progress --ignore-scripts --loglevel=error >/dev/null
        touch node_modules/.verjuicer
    fi
}

postgres_bin() { ls -d /usr/lib/postgresql/*/bin | sort -V | tail -n 1; }

# PostgreSQL refuses to run as root: then it runs as its own user.
as_postgres() {
    if [ "$(id -u)" = 0 ]; then (cd / && runuser -u postgres -- "$@"); else "$@"; fi
}

# Where a cluster can live: in var/, or, where root's own folders are closed to the postgres user, beside its others.
cluster_dir() {
    local name=$1 dir="$PWD/var/$1"
    mkdir -p "$PWD/var"
    if [ "$(id -u)" = 0 ] && ! as_postgres test -x "$PWD/var"; then
        dir="/var/lib/postgresql/verjuicer-$(printf '%s' "$PWD" | cksum | cut -d' ' -f1)-$name"
    fi
    printf '%s' "$dir"
}

free_port() {
    local port=$1
    while (exec 3<>"/dev/tcp/127.0.0.1/$port") 2>/dev/null; do port=$((port + 1)); done
    printf '%s' "$port"
}

# start_cluster DIR FIRST_PORT [option…]: starts it on loopback and sets PG_PORT; PG_STARTED says whether this call did.
start_cluster() {
    local dir=$1 first=$2 bin
    shift 2
    bin=$(postgres_bin)
    PG_STARTED=no
    if [ ! -f "$dir/PG_VERSION" ]; then
        mkdir -p "$dir"
        [ "$(id -u)" != 0 ] || chown postgres "$dir"
        chmod 700 "$dir"
        as_postgres "$bin/initdb" -D "$dir" -U verjuicer -A trust -E UTF8 --locale=C.UTF-8 >/dev/null
    fi
    if ! as_postgres "$bin/pg_ctl" -D "$dir" status >/dev/null 2>&1; then
        PG_PORT=$(free_port "$first")
        # Without jit: it takes longer to compile a query of ours than to answer it.
        as_postgres "$bin/pg_ctl" -D "$dir" -w -t 60 -l "$dir/server.log" \
            -o "-p $PG_PORT -c listen_addresses=127.0.0.1 -c unix_socket_directories=$dir -c jit=off $*" start >/dev/null
        PG_STARTED=yes
    else
        PG_PORT=$(as_postgres sed -n 4p "$dir/postmaster.pid")
    fi
}

stop_cluster() { as_postgres "$(postgres_bin)/pg_ctl" -D "$1" -m fast stop >/dev/null 2>&1 || true; }

# create_database NAME: on the cluster at PG_PORT, unless it is there; with the role the application is served by.
create_database() {
    local bin
    bin=$(postgres_bin)
    [ "$(as_postgres "$bin/psql" -h 127.0.0.1 -p "$PG_PORT" -U verjuicer -d postgres -tAc "SELECT 1 FROM pg_database WHERE datname = '$1'")" = 1 ] \
        || as_postgres "$bin/createdb" -h 127.0.0.1 -p "$PG_PORT" -U verjuicer "$1"
    [ "$(as_postgres "$bin/psql" -h 127.0.0.1 -p "$PG_PORT" -U verjuicer -d postgres -tAc "SELECT 1 FROM pg_roles WHERE rolname = 'verjuicer_app'")" = 1 ] \
        || as_postgres "$bin/createuser" -h 127.0.0.1 -p "$PG_PORT" -U verjuicer verjuicer_app
}

# database_url NAME [ROLE]
database_url() { printf 'postgresql://%s@127.0.0.1:%s/%s?serverVersion=15' "${2:-verjuicer}" "$PG_PORT" "$1"; }

# use_database NAME: what is served has the application's role, the console its owner's.
use_database() {
    DATABASE_URL=$(database_url "$1" verjuicer_app)
    DATABASE_OWNER_URL=$(database_url "$1")
    export DATABASE_URL DATABASE_OWNER_URL
}
