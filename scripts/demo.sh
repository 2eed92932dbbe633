#!/usr/bin/env bash
# Installs what is missing, builds, and serves the app with the demo group's data on the demo's fixed evening.
set -euo pipefail
cd "$(dirname "$0")/.."
if [ ! -d node_modules ] || [ package-lock.json -nt node_modules/.package-lock.json ]; then npm ci; fi
if [ ! -f build/server/index.js ] || [ -n "$(find app server.ts scripts/compress.ts scripts/offline/build.ts vite.config.ts package.json public -newer build/server/index.js -print -quit)" ]; then npm run build; fi
export NODE_ENV=production
export ZENITHAR_DEMO_NOW="${ZENITHAR_DEMO_NOW:-2026-12-05T16:40:00Z}"
exec node --import tsx server.ts
