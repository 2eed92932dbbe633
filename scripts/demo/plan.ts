import { writeFileSync } from "node:fs";
import { demoDesk, demoLibrary } from "~/desk/demo-library.test-data";
import { seasonRun, thePlans } from "~/desk/plan/season";

/** Remakes the plan that ships with the demo: what its owner would have seen last. Run after the demo's records, or how plans are made, have changed. */
const desk = demoDesk();
await seasonRun(demoLibrary(desk)).whole;
await new Promise((resolve) => setTimeout(resolve, 200)); // it is left for the next visit a moment later
const kept = await desk.at(thePlans).shown();
if (kept?.plan.stage !== "whole") throw new Error("the demo has no plan");
writeFileSync(new URL("../../app/data/demo-plan.json", import.meta.url), `${JSON.stringify(kept)}\n`);
console.log(`${kept.plan.evenings.length} evenings, question ${kept.sum.slice(0, 8)}`);
