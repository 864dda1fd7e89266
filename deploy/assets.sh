#!/usr/bin/env bash
# Builds what ships to the browser from the npm packages: styles, scripts, fonts. Called by bin/start and bin/test.
set -euo pipefail
cd "$(dirname "$0")/.."
. deploy/machine.sh
need_node_modules
# Nothing changed since the last build: nothing to do.
if [ -f public/assets/manifest.json ] && [ -z "$(find assets templates package.json deploy/assets.sh -newer public/assets/manifest.json -type f -not -path 'assets/vendor/*' -not -name app.built.css -print -quit)" ]; then
    exit 0
fi
mkdir -p assets/vendor/fonts
cp node_modules/@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2 assets/vendor/fonts/
node_modules/.bin/tailwindcss -i assets/styles/app.css -o assets/styles/app.built.css --minify 2>/dev/null
# One file: each further one costs a phone on a poor network a round trip before its keys work.
node_modules/.bin/esbuild assets/scripts/app.js --bundle --format=esm --minify --target=es2022 --legal-comments=none \
    --outfile=assets/vendor/app.js --log-level=warning
# Inside the one file that checks packets.
node_modules/.bin/esbuild assets/scripts/checker.js --bundle --format=iife --minify --target=es2022 \
    --legal-comments=none --outfile=assets/vendor/checker.js --log-level=warning
rm -rf public/assets
php bin/console asset-map:compile --quiet
# What opens without a network: the files above by their names, and the script that serves them.
cp assets/offline.html public/offline.html
node_modules/.bin/esbuild assets/scripts/sw.js --bundle --format=iife --minify --target=es2022 --legal-comments=none \
    --define:process.env.NODE_ENV='"production"' --outfile=assets/vendor/sw.js --log-level=warning
node -e 'require("workbox-build").injectManifest({
    swSrc: "assets/vendor/sw.js", swDest: "public/sw.js", globDirectory: "public",
    globPatterns: ["assets/**/*.{js,css,woff2,svg}", "offline.html", "icons/*.png"],
    dontCacheBustURLsMatching: /^assets\//,
}).catch((problem) => { console.error(problem.message); process.exit(1); })'
