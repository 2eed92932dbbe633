#!/usr/bin/env bash
# Every check: types, lint, units, build, browser journeys. Ends with one line "N passed, N failed".
set -uo pipefail
cd "$(dirname "$0")/.."
if [ ! -d node_modules ] || [ package-lock.json -nt node_modules/.package-lock.json ]; then npm ci || exit 1; fi
if [ ! -x /usr/bin/chromium ] || [ ! -x /usr/bin/chromedriver ]; then
  if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
    apt-get update -qq && apt-get install -y -qq chromium chromium-driver || echo "Could not install chromium: the browser tests will fail."
  else
    echo "Please install Debian's packages chromium and chromium-driver: the browser tests need them."
  fi
fi
passed=0
failed=0
step() {
  local name=$1
  shift
  echo "== $name"
  if "$@"; then passed=$((passed + 1)); else failed=$((failed + 1)); echo "!! $name failed"; fi
}
units() {
  local report
  report=$(mktemp)
  node_modules/.bin/vitest run --project "$1" --reporter=default --reporter=json --outputFile.json="$report"
  local code=$?
  local counts
  counts=$(node -e 'const r = JSON.parse(require("fs").readFileSync(process.argv[1], "utf8")); console.log(r.numPassedTests, r.numFailedTests + (r.numPassedTests + r.numFailedTests === 0 ? 1 : 0))' "$report" 2>/dev/null || echo "0 1")
  read -r p f <<<"$counts"
  passed=$((passed + p))
  failed=$((failed + f))
  if [ $code -ne 0 ] && [ "$f" = 0 ]; then failed=$((failed + 1)); fi
  rm -f "$report"
}
step "types" npm run -s typecheck
step "lint" npm run -s lint
echo "== unit tests"
units unit
echo "== component and storage tests"
units dom
step "build" npm run -s build
echo "== browser tests"
units browser
echo "$passed passed, $failed failed"
[ "$failed" = 0 ]
