import type { TestProject } from "vitest/node";
import { patience, startPlainDemo } from "./browser";

declare module "vitest" {
  interface ProvidedContext {
    /** Where the app of most journeys listens. */
    readonly appUrl: string;
    /** How long they wait for the page, ms. */
    readonly patienceMs: number;
  }
}

/** One server for all journeys that want nothing of theirs: it keeps nothing of anybody, what people own lies in their browsers. */
export default async function start(project: TestProject): Promise<() => Promise<void>> {
  const app = await startPlainDemo();
  project.provide("appUrl", app.url);
  project.provide("patienceMs", patience());
  return async () => {
    await app.stop();
  };
}
