#!/usr/bin/env bash
# Keeps the logs of an instance small: rotate.sh FOLDER. What grows over 20 MB is copied aside and begun anew; the last
# five of each are kept. Logs that the application names by the day go by their own rule (config/packages/monolog.yaml).
set -u
while sleep "${ROTATE_EVERY:-300}"; do
    for log in "$1"/access.log "$1"/nginx.log "$1"/fpm.log "$1"/php.log "$1"/workers.log; do
        [ -f "$log" ] && [ "$(stat -c %s "$log")" -gt "${ROTATE_OVER:-20971520}" ] || continue
        for old in 4 3 2 1; do [ ! -f "$log.$old" ] || mv "$log.$old" "$log.$((old + 1))"; done
        cp -p "$log" "$log.1" && : > "$log"
    done
done
