import { writeFileSync } from "node:fs";
import { demoDesk, demoLibrary } from "~/desk/demo-library.test-data";
import { seasonRun, thePlans } from "~/desk/plan/season";
import { oddsIfWaiting } from "~/desk/plan/waits";

/** Remakes the plan that ships with the demo: what its owner would have seen last. Run after the demo's records, or how plans are made, have changed. */
const desk = demoDesk();
const run = seasonRun(demoLibrary(desk));
await run.whole;
await oddsIfWaiting(desk, run, () => undefined);
await new Promise((resolve) => setTimeout(resolve, 200)); // it is left for the next visit a moment later
const kept = await desk.at(thePlans).shown();
if (kept?.plan.stage !== "whole" || !kept.waits) throw new Error("the demo has no plan");
writeFileSync(new URL("../../app/data/demo-plan.json", import.meta.url), `${JSON.stringify(kept)}\n`);
console.log(`${kept.plan.evenings.length} evenings, question ${kept.sum.slice(0, 8)}`);
