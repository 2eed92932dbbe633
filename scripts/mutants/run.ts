import { execFileSync, spawnSync } from "node:child_process";
import { mkdirSync, writeFileSync } from "node:fs";

/**
 * Changes the code in small ways, one at a time, and sees whether a test of its own house notices: `npm run mutants [-- file ...]`. Without
 * files: those of the season, the desk and the store that differ from the branch "main", or from the commit before. Ends with 1 where fewer
 * are noticed than asked for; the report names those that were not.
 */
const HOUSES = [
  {
    under: "app/core/season/",
    tests: ["app/core/season/**/*.test.ts", "app/core/plan/**/*.test.ts"],
    environment: "node",
  },
  { under: "app/desk/", tests: ["app/desk/**/*.test.ts"], environment: "node" },
  { under: "app/storage/", tests: ["app/storage/**/*.test.ts"], environment: "jsdom" },
] as const;
const WANTED = 85; // percent
const git = (...args: string[]) => execFileSync("git", args, { encoding: "utf8" }).split("\n");
const isCode = (file: string) => /\.ts$/.test(file) && !/\.test(?:-data)?\.ts$/.test(file);

function changed(): string[] {
  const [branch] = git("rev-parse", "--abbrev-ref", "HEAD");
  return [
    ...git("diff", "--name-only", branch === "main" ? "HEAD~1" : "main"),
    ...git("ls-files", "-o", "--exclude-standard"),
  ];
}

const asked = process.argv.slice(2);
const files = (asked.length > 0 ? asked : changed()).filter(isCode);
mkdirSync(".tmp", { recursive: true });
let isGood = true;
for (const { under, tests, environment } of HOUSES) {
  const mutate = [...new Set(files.filter((file) => file.startsWith(under)))];
  if (mutate.length === 0) continue;
  const setupFiles = environment === "jsdom" ? ["app/test-setup.ts", "app/laws-setup.ts"] : ["app/laws-setup.ts"];
  // The runner knows no projects of a configuration: it gets one of its own.
  writeFileSync(".tmp/vitest.mutants.ts", `export default ${JSON.stringify({ resolve: { tsconfigPaths: true }, test: { environment, include: tests, setupFiles, testTimeout: 400_000 } })};\n`); // prettier-ignore
  const config = {
    testRunner: "vitest",
    plugins: ["@stryker-mutator/vitest-runner"],
    vitest: { configFile: ".tmp/vitest.mutants.ts", related: false },
    coverageAnalysis: "perTest",
    mutate,
    // Words, keys and lists are data; whoever changes them changes no decision.
    mutator: { excludedMutations: ["StringLiteral", "ObjectLiteral", "ArrayDeclaration", "Regex"] },
    ignorePatterns: ["build", "docs", ".react-router"],
    tempDirName: ".tmp/mutants",
    concurrency: 2,
    timeoutMS: 20_000,
    reporters: ["clear-text"],
    clearTextReporter: { logTests: false, allowColor: false, reportTests: false },
    thresholds: { high: WANTED, low: WANTED, break: WANTED },
  };
  writeFileSync(".tmp/mutants.json", JSON.stringify(config));
  console.log(`== ${mutate.join(", ")}`);
  const { status } = spawnSync("node_modules/.bin/stryker", ["run", ".tmp/mutants.json"], { stdio: "inherit" });
  isGood &&= status === 0;
}
if (files.length === 0) console.log("nothing of the season, the desk or the store has changed");
process.exitCode = isGood ? 0 : 1;
