# How the application is served, here, in tests and in a kitchen: php-fpm behind nginx. Sourced, not run.

need_serving() {
    { command -v nginx && ls /usr/sbin/php-fpm8.2; } >/dev/null 2>&1 || install_packages nginx-light php8.2-fpm
}

# await_server URL PID [SECONDS=60]: until it answers, saying for what it waits; 1 where it does not, or PID has ended.
await_server() {
    local url=$1 server=$2 seconds=${3:-60} since=$SECONDS told=
    until curl -sf -m 5 -o /dev/null "$url"; do
        if ! kill -0 "$server" 2>/dev/null; then
            echo "The server ended before it answered at $url: see var/run/*.log." >&2
            return 1
        elif [ $((SECONDS - since)) -ge "$seconds" ]; then
            echo "The server did not answer at $url within $seconds s: see var/run/*.log." >&2
            return 1
        elif [ -z "$told" ] && [ $((SECONDS - since)) -ge 3 ]; then
            echo "Waiting for the server to answer at $url, up to $seconds s." >&2
            told=yes
        fi
        sleep 0.5
    done
}

# write_serving DIR [TO]: the configuration of both, for the application in the present folder, into DIR, where it runs, or
# into TO to be compared.
#   LISTEN=127.0.0.1 PORT=8080                     where it is reached
#   TLS_PORT= TLS_CERTIFICATE= TLS_KEY=            with these over TLS; what comes to PORT is sent there
#   SERVE_USER=                                    whom php-fpm works as, where root starts it
#   FPM_CHILDREN=8                                 how many requests are worked on at once
#   FPM_ENTRIES=3                                  and how many entries besides: boards that ask again hold none up
#   FRONT=public/index.php                         what answers
#   LOG_DIR=DIR
write_serving() {
    local dir=$1 to=${2:-$1} app=$PWD listen=${LISTEN:-127.0.0.1} logs=${LOG_DIR:-$1}
    [ "$to" != "$dir" ] || mkdir -p "$dir/temp" "$logs"
    cat >"$to/php-fpm.conf" <<CONF
[global]
pid = $dir/php-fpm.pid
error_log = $logs/php-fpm.log
daemonize = no
; Where workers die of a fault in memory they all share, the master begins anew.
emergency_restart_threshold = 10
emergency_restart_interval = 1m
process_control_timeout = 10s
CONF
    write_pool pages "${FPM_CHILDREN:-8}" "$dir" >>"$to/php-fpm.conf"
    write_pool entries "${FPM_ENTRIES:-3}" "$dir" >>"$to/php-fpm.conf"
    {
        cat <<CONF
daemon off;
pid $dir/nginx.pid;
worker_processes 2;
error_log $logs/nginx-error.log warn;
CONF
        [ "$(id -u)" != 0 ] || echo "user ${SERVE_USER:-root};"
        cat <<CONF
events { worker_connections 1024; }
http {
    include /etc/nginx/mime.types;
    default_type application/octet-stream;
    charset utf-8;
    server_tokens off;
    sendfile on;
    keepalive_timeout 65;
    client_max_body_size 40m;
    client_body_timeout 30s;
    client_header_timeout 15s;
    send_timeout 60s;
    client_body_temp_path $dir/temp/body;
    fastcgi_temp_path $dir/temp/fastcgi;
    proxy_temp_path $dir/temp/proxy;
    uwsgi_temp_path $dir/temp/uwsgi;
    scgi_temp_path $dir/temp/scgi;
    # No addresses with a secret in them, no words somebody typed.
    map \$uri \$told { ~^/(shared|welcome)/ /\$1/…; default \$uri; }
    # What somebody enters has processes of its own; what sensors and programs send shares those of the pages.
    map "\$request_method \$uri" \$pool {
        default pages;
        "~^POST /(?!api/)" entries;
    }
    log_format json escape=json '{"time":"\$time_iso8601","request":"\$request_id","address":"\$remote_addr",'
        '"method":"\$request_method","path":"\$told","status":\$status,"bytes":\$bytes_sent,"seconds":\$request_time}';
    access_log $logs/access.log json;
    gzip on;
    gzip_comp_level 5;
    gzip_min_length 1000;
    gzip_vary on;
    gzip_types text/css application/javascript text/javascript application/json application/x-ndjson text/csv image/svg+xml;
CONF
        if [ -n "${TLS_PORT:-}" ]; then
            cat <<CONF
    server {
        listen $listen:${PORT:-8080};
        # What a tablet has to trust, where the certificate was made here.
        location = /ca.crt { alias ${ETC:-/nowhere}/tls/ca.crt; default_type application/x-x509-ca-cert; }
        location / { return 308 https://\$host$([ "$TLS_PORT" = 443 ] || printf ':%s' "$TLS_PORT")\$request_uri; }
    }
    ssl_certificate $TLS_CERTIFICATE;
    ssl_certificate_key $TLS_KEY;
    ssl_protocols TLSv1.2 TLSv1.3;
    ssl_ciphers ECDHE-ECDSA-AES128-GCM-SHA256:ECDHE-RSA-AES128-GCM-SHA256:ECDHE-ECDSA-AES256-GCM-SHA384:ECDHE-RSA-AES256-GCM-SHA384:ECDHE-ECDSA-CHACHA20-POLY1305:ECDHE-RSA-CHACHA20-POLY1305;
    ssl_session_cache shared:tls:4m;
    ssl_session_timeout 1d;
    ssl_session_tickets off;
CONF
        fi
        cat <<CONF
    server {
        listen $listen:$([ -n "${TLS_PORT:-}" ] && printf '%s ssl http2' "$TLS_PORT" || printf '%s' "${PORT:-8080}");
        root $app/public;
$([ -z "${TLS_PORT:-}" ] || echo '        add_header Strict-Transport-Security "max-age=31536000" always;')
        # The name of an asset holds the digest of what is in it; it was packed when it was built.
        location /assets/ {
            gzip_static on;
            add_header Cache-Control "public, max-age=31536000, immutable";
            add_header X-Content-Type-Options nosniff;
$([ -z "${TLS_PORT:-}" ] || echo '            add_header Strict-Transport-Security "max-age=31536000" always;')
            try_files \$uri =404;
            access_log off;
        }
        # It asks for itself anew each time; its scope is all of the site.
        location ~ ^/(sw\.js|manifest\.webmanifest|offline\.html|icons/) {
            types { application/javascript js; application/manifest+json webmanifest; text/html html; image/png png; }
            add_header Cache-Control no-cache;
            add_header X-Content-Type-Options nosniff;
            try_files \$uri =404;
            access_log off;
        }
        location = /healthz { access_log off; include $dir/application.conf; }
        location / { include $dir/application.conf; }
    }
}
CONF
    } >"$to/nginx.conf"
    cat >"$to/application.conf" <<CONF
fastcgi_param QUERY_STRING \$query_string;
fastcgi_param REQUEST_METHOD \$request_method;
fastcgi_param CONTENT_TYPE \$content_type;
fastcgi_param CONTENT_LENGTH \$content_length;
fastcgi_param REQUEST_URI \$request_uri;
fastcgi_param DOCUMENT_ROOT \$document_root;
fastcgi_param SERVER_PROTOCOL \$server_protocol;
fastcgi_param HTTPS \$https if_not_empty;
fastcgi_param REMOTE_ADDR \$remote_addr;
fastcgi_param REMOTE_PORT \$remote_port;
fastcgi_param SERVER_ADDR \$server_addr;
fastcgi_param SERVER_PORT \$server_port;
fastcgi_param SERVER_NAME \$host;
fastcgi_param REDIRECT_STATUS 200;
fastcgi_param SCRIPT_FILENAME $app/${FRONT:-public/index.php};
fastcgi_param SCRIPT_NAME /index.php;
fastcgi_param HTTP_X_REQUEST_ID \$request_id;
fastcgi_param HTTP_PROXY "";
fastcgi_read_timeout 70s;
fastcgi_buffers 16 32k;
fastcgi_buffer_size 32k;
fastcgi_pass unix:$dir/\$pool.sock;
CONF
}

# write_pool NAME CHILDREN DIR: processes of php-fpm that answer at the socket DIR/NAME.sock.
write_pool() {
    local user=${SERVE_USER:-root}
    cat <<CONF

[$1]
listen = $3/$1.sock
listen.mode = 0660
listen.backlog = 511
pm = static
pm.max_children = $2
pm.max_requests = 2000
request_terminate_timeout = 65s
catch_workers_output = yes
decorate_workers_output = no
; The address of the database and the secret come from the environment.
clear_env = no
php_admin_value[memory_limit] = 256M
php_admin_value[max_execution_time] = 60
php_admin_value[upload_max_filesize] = 32M
php_admin_value[post_max_size] = 40M
php_admin_value[expose_php] = 0
php_admin_value[display_errors] = 0
php_admin_value[log_errors] = 1
php_admin_value[error_log] = /dev/stderr
CONF
    [ "$(id -u)" != 0 ] || printf '%s = %s\n' user "$user" group "$user" listen.owner "$user" listen.group "$user"
}

# What php-fpm is started with besides its file: what cannot be said there.
fpm_options() {
    printf '%s\n' -d opcache.enable=1 -d opcache.memory_consumption=192 -d opcache.interned_strings_buffer=24 \
        -d opcache.max_accelerated_files=20000 -d "opcache.validate_timestamps=${FPM_WATCHES:-0}" -d realpath_cache_size=4096K \
        -d realpath_cache_ttl=600 -d apc.shm_size=64M -d opcache.preload="$PWD/config/preload.php" \
        -d opcache.preload_user="${SERVE_USER:-root}"
}

# write_broker DIR [TO]: the configuration of the broker through which sensors publish, in DIR or in TO. Everybody logs in, and
# each sensor reaches its own topics alone. The logins are the application's to write (bin/console verjuicer:broker:logins).
#   MQTT_DIR                   its own folder: logins, queue, process id
#   MQTT_PORT                  on loopback, for the application
#   MQTT_TLS_PORT=             for sensors, over TLS with TLS_CERTIFICATE and TLS_KEY, at LISTEN
#   BROKER_KEY=TLS_KEY         where the broker finds the key, if it is given a copy
write_broker() {
    local dir=$1 to=${2:-$1}
    cat >"$to/mosquitto.acl" <<'ACL'
user verjuicer
topic read verjuicer/1/sensors/#
topic read verjuicer/1/readings/#
topic write verjuicer/1/answers/#

pattern write verjuicer/1/sensors/%u
pattern read verjuicer/1/answers/%u
ACL
    {
        cat <<CONF
allow_anonymous false
password_file $MQTT_DIR/passwords
acl_file $dir/mosquitto.acl
pid_file $MQTT_DIR/mosquitto.pid
log_dest stderr
log_type warning
log_type error
# What the application has not recorded yet stays in its queue: any number of messages, 256 MB of them, on disk after each.
persistence true
persistence_location $MQTT_DIR/
autosave_on_changes true
autosave_interval 1
max_queued_messages 0
max_queued_bytes 268435456
max_packet_size 1100000
user ${SERVE_USER:-$(id -un)}
listener $MQTT_PORT 127.0.0.1
CONF
        [ -z "${MQTT_TLS_PORT:-}" ] || cat <<CONF
listener $MQTT_TLS_PORT ${LISTEN:-127.0.0.1}
certfile $TLS_CERTIFICATE
keyfile ${BROKER_KEY:-$TLS_KEY}
CONF
    } >"$to/mosquitto.conf"
}
