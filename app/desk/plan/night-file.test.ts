import Papa from "papaparse";
import { describe, expect, it } from "vitest";
import { demoDesk, demoLibrary } from "~/desk/demo-library.test-data";
import { choiceOf } from "~/desk/sky/choice";
import { ownContextsOf } from "~/desk/projects/project";
import { nightFiles } from "./night-file";
import { nightSheets } from "./night-sheets";

describe("the evening for other programs", () => {
  it("has every block of the sheet where its panel is framed, as JSON and as a table", async () => {
    const desk = demoDesk({ sky: { entry: () => Promise.resolve(null) } });
    const library = demoLibrary(desk);
    const choice = choiceOf(library, new URLSearchParams());
    const spent = await nightSheets(library, choice, ownContextsOf(library), null);
    const { sheet, contexts } = spent!.sheets[0]!;
    const files = await nightFiles(library, { night: choice.night, place: spent!.place.data, sheet });
    const plan = JSON.parse(files!.json.text) as {
      lines: { kind: string; panel: string; raDeg: number; count: number }[];
    };
    const blocks = sheet.lines.flatMap((l) => (l.kind === "block" ? [l] : []));
    const written = plan.lines.filter((l) => l.kind === "exposures");
    expect(blocks.length).toBeGreaterThan(3);
    expect(written.map((l) => [l.panel, l.count])).toEqual(blocks.map((b) => [b.panel, b.subs]));
    expect(plan.lines).toHaveLength(sheet.lines.length);
    // Where it points is what the frame has for that panel.
    const [first] = blocks;
    const panel = contexts.find((c) => c.id === first!.projectId)!.panels.find((p) => first!.panel.startsWith(`P${p.number}`)); // prettier-ignore
    expect(written[0]!.raDeg).toBeCloseTo(panel!.centre.raDeg, 5);
    const table = Papa.parse<Record<string, string>>(files!.table.text, { header: true });
    expect(table.data.map((r) => Number(r["count"]))).toEqual(blocks.map((b) => b.subs));
    expect(
      await nightFiles(library, { night: choice.night, place: spent!.place.data, sheet: { lines: [] } }),
    ).toBeNull();
  });
});
