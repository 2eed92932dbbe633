import fc from "fast-check";

// One seed for `npm test`, so that its verdict is about the code alone. `npm run laws` draws new ones.
const seed = process.env["LAWS_SEED"] === "new" ? Date.now() % 2 ** 31 : 20_261_126;
const runs = Number(process.env["LAWS_RUNS"] ?? 0);
fc.configureGlobal(runs > 0 ? { seed, numRuns: runs } : { seed });
