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
tell() {
  if [ "$2" = 0 ]; then passed=$((passed + 1)); else failed=$((failed + 1)); echo "!! $1 failed"; fi
}
# Runs the tests of some projects and adds them up.
units() {
  local report
  report=$(mktemp)
  node_modules/.bin/vitest run "${@/#/--project=}" --reporter=default --reporter=json --outputFile.json="$report"
  local code=$?
  local counts
  counts=$(node -e 'const r = JSON.parse(require("fs").readFileSync(process.argv[1], "utf8")); console.log(r.numPassedTests, r.numFailedTests + (r.numPassedTests + r.numFailedTests === 0 ? 1 : 0))' "$report" 2>/dev/null || echo "0 1")
  read -r p f <<<"$counts"
  passed=$((passed + p))
  failed=$((failed + f))
  if [ $code -ne 0 ] && [ "$f" = 0 ]; then failed=$((failed + 1)); fi
  rm -f "$report"
}
# Both read every file on one core: side by side.
echo "== types and lint"
log=$(mktemp)
node_modules/.bin/react-router typegen # what both read
npm run -s lint >"$log" 2>&1 &
lint=$!
node_modules/.bin/tsc && node_modules/.bin/tsc -p tsconfig.core.json
tell types $?
wait "$lint"
code=$?
cat "$log"
rm -f "$log"
tell lint "$code"
echo "== dead code"
npm run -s unused
tell "dead code" $?
echo "== unit, component and storage tests"
units unit dom
echo "== build"
npm run -s build
tell build $?
echo "== browser tests"
units browser
echo "$passed passed, $failed failed"
[ "$failed" = 0 ]
