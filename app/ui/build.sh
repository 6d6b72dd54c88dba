#!/bin/sh
# Builds styles and copies scripts and fonts to the folder given; does nothing when they are newer than their sources.
set -eu
out=$1
here=$(cd "$(dirname "$0")" && pwd)
cd "$here"
if [ -f "$out/app.css" ] && [ -z "$(find . ../src/main/resources/templates -path ./node_modules -prune -o -type f -newer "$out/app.css" -print | head -n 1)" ]; then
    exit 0
fi
if [ ! -d node_modules/tailwindcss ] || [ package-lock.json -nt node_modules/.package-lock.json ]; then
    # Not npm ci: it wants the optional packages of every other platform in the lock file, too.
    npm install --no-save --no-audit --no-fund --ignore-scripts
fi
mkdir -p "$out/fonts"
fonts=node_modules/@fontsource
for weight in 400 700; do
    cp "$fonts/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-$weight-normal.woff2" "$out/fonts/next-$weight.woff2"
    cp "$fonts/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-$weight-normal.woff2" "$out/fonts/mono-$weight.woff2"
done
cp node_modules/htmx.org/dist/htmx.min.js node_modules/htmx-ext-sse/dist/sse.min.js node_modules/uplot/dist/uPlot.iife.min.js \
    node_modules/axe-core/axe.min.js "$out/"
cp js/chart.js "$out/"
# The parts of the frame's script, each about one thing, are sent as one.
{ echo "(function () {"; echo "'use strict';"; cat js/shelf/_dom.js js/shelf/[a-z]*.js; echo "})();"; } > "$out/shelf.js"
node_modules/.bin/tailwindcss -i css/app.css -o "$out/app.css" --minify
