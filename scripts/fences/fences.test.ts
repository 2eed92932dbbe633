import { Linter } from "eslint";
import tseslint from "typescript-eslint";
import { existsSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { fences, SCREENS } from "../../eslint.fences.js";

const linter = new Linter();
const config = [{ files: ["**/*.{ts,tsx}"], languageOptions: { parser: tseslint.parser } }, ...fences] as Linter.Config[]; // prettier-ignore
/** Whether a file of that name may hold a line. */
const mayHold = (filename: string, code: string): boolean => linter.verify(code, config, { filename }).length === 0;

/** By room: lines that a probe there must be told off for, and lines that it may hold. */
const PROBES: readonly { readonly file: string; readonly refused: readonly string[]; readonly fine: readonly string[] }[] = [
  {
    file: "app/core/sky/probe.ts",
    refused: ['import "~/core/night";', 'import "~/desk/log";', 'import "../night";', 'import "react";', 'export * from "~/core/plan";', 'void import("~/storage/store");', 'type A = import("~/core/night").Place;', 'import "~/core/time/night-date";'],
    fine: ['import "~/core/time";', 'import "./frames";', 'import "astronomy-engine";'],
  },
  {
    file: "app/core/season/probe.ts",
    refused: ['import "~/core/ledger";', 'import "../project";'],
    fine: ['import "~/core/night";', 'import "./model";'],
  },
  ...["workers", "storage", "server", "services", "offline"].map((edge) => ({
    file: `app/${edge}/probe.ts`,
    refused: ['import "~/desk/log";', 'void import("~/desk/log/log");', 'import "~/screens/log/load";', 'import "~/core/sky/frames";', 'import "../desk/log";'],
    fine: ['import "~/core/sky";', 'import "./other";', 'import "~/data/towns.tsv?url";'],
  })),
  {
    file: "app/drawing/probe.ts",
    refused: ['import "~/components/numbers";', 'import "~/desk/log";', 'import "~/workers/sky";', 'import "~/core/sky/frames";', 'import "../desk/log";', 'import "~/data/towns.tsv?url";'],
    fine: ['import "~/core/framing";', 'import "./pen";'],
  },
  {
    file: "app/workers/probe.worker.ts",
    refused: ['import "~/drawing/pen";', 'import "~/components/clock";'],
    fine: ['import "~/drawing";', 'import "~/data/stars.bin?url";'],
  },
  {
    file: "app/storage/probe.ts",
    refused: ['import "~/drawing";'],
    fine: ['import "~/core/records";'],
  },
  {
    file: "app/server/probe.server.ts",
    refused: ['import "~/storage/store";', 'import "~/workers/sky";'],
    fine: ['import "~/services/edr-ask";'],
  },
  {
    file: "app/services/probe.ts",
    refused: ['import "~/server/edr.server";', 'import "~/storage/store";'],
    fine: ['import "./ask";'],
  },
  {
    file: "app/desk/probe.ts",
    refused: ['import "~/components/clock";', 'import "~/screens/log/load";', 'import "react";', 'import "~/core/sky/frames";', 'void import("~/components/clock");', 'import "~/offline/register";', 'import "~/at-desk";', 'import "~/storage/browser";'],
    fine: ['import "~/core/sky";', 'import "~/storage/store";', 'import "./log";', 'import "~/desk/records/library";'],
  },
  {
    file: "app/components/words/probe.ts",
    refused: ['import "~/desk/log";', 'import "~/storage/store";', 'import "~/core/sky/frames";', 'import "~/drawing/pen";'],
    fine: ['import "~/core/sky";', 'import "~/components/clock";', 'import "react";', 'import "~/drawing";'],
  },
  ...SCREENS.map((name) => ({
    file: `app/screens/${name}/probe.tsx`,
    refused: ['import "../log/load";', 'import "~/screens/log/load";', 'import "localforage";', 'import "~/core/sky/frames";', 'void import("~/screens/log/load");', 'import "~/storage/drafts";', 'import "~/workers/sky";', 'void import("~/services/ask");', 'import "comlink";'],
    fine: ['import "./load";', 'import "~/desk/log/log";', 'import "~/core/sky";', 'import "~/components/clock";', 'import "~/at-desk";'],
  })),
]; // prettier-ignore

describe("the fences of the house", () => {
  it.each(PROBES)("$file", ({ file, refused, fine }) => {
    for (const line of refused) expect([line, mayHold(file, line)]).toEqual([line, false]);
    for (const line of fine) expect([line, mayHold(file, line)]).toEqual([line, true]);
  });
  it("stand round every screen there is", () => {
    expect(SCREENS).toEqual(expect.arrayContaining(["season", "start", "subs", "night-facts", "record", "kit/rules"]));
    for (const name of SCREENS) expect(existsSync(`app/screens/${name}/route.tsx`)).toBe(true);
  });
  it("leave tests alone, which look at everything", () => {
    expect(mayHold("app/core/sky/probe.test.ts", 'import "~/core/night";')).toBe(true);
  });
});
