#!/usr/bin/env bash
# Builds what ships to the browser from the npm packages: styles, scripts, fonts. Called by bin/start and bin/test.
set -euo pipefail
cd "$(dirname "$0")/.."
. deploy/machine.sh
need_node_modules
# Nothing changed since the last build: nothing to do.
if [ -f public/assets/manifest.json ] && [ -z "$(find assets templates importmap.php package.json -newer public/assets/manifest.json -type f -not -path 'assets/vendor/*' -not -name app.built.css -print -quit)" ]; then
    exit 0
fi
mkdir -p assets/vendor/fonts
cp node_modules/@alpinejs/csp/dist/module.esm.min.js assets/vendor/alpine.js
cp node_modules/@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2 assets/vendor/fonts/
node_modules/.bin/tailwindcss -i assets/styles/app.css -o assets/styles/app.built.css --minify 2>/dev/null
rm -rf public/assets
php bin/console asset-map:compile --quiet
