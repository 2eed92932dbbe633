import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { opticsOf } from "~/core/framing";
import { layoutOf } from "~/core/plan";
import type { LaidPicture } from "~/drawing";
import { testRig } from "~/core/test-data";
import { UnderlayPanel } from "./UnderlayPanel";

const layout = layoutOf(
  { projectId: "p", raDeg: 100, decDeg: 20, positionAngleDeg: 0, columns: 1, rows: 1, overlap: 0.2 },
  opticsOf(testRig),
);
const user = userEvent.setup();
const bitmap = { width: 400, height: 300, close: () => undefined } as unknown as ImageBitmap;
const seen = vi.fn<(u: LaidPicture | null) => void>();

function Live({ start, fits }: { readonly start: LaidPicture | null; readonly fits: LaidPicture | string | null }) {
  const [now, setNow] = useState(start);
  return (
    <UnderlayPanel
      underlay={now}
      layout={layout}
      readFits={() => Promise.resolve(fits)}
      onUnderlay={(u) => {
        seen(u);
        setNow(u);
      }}
    />
  );
}
const laid = (more: Partial<LaidPicture> = {}): LaidPicture => ({
  image: bitmap,
  widthPx: 400,
  heightPx: 300,
  mesh: { columns: 1, rows: 1, nodes: [[101, 21], [99, 21], [101, 19], [99, 19]] }, // prettier-ignore
  opacity: 0.8,
  name: "kept.jpg",
  file: new Blob(["x"]),
  corners: null,
  ...more,
});
const choose = () => user.upload(screen.getByLabelText("Picture for under the chart"), new File(["x"], "own.jpg"));

beforeEach(() => {
  seen.mockClear();
  vi.stubGlobal("createImageBitmap", () => Promise.resolve(bitmap));
});
afterEach(() => vi.unstubAllGlobals());

describe("a picture under the chart", () => {
  it("wants its corners: refuses crossed ones with the reason, and lays it down once they go round", async () => {
    render(<Live start={null} fits={null} />);
    await choose();
    await screen.findByText("Where does own.jpg lie?");
    const corners = ["06h44m +21°", "06h36m +21°", "06h36m +19°", "06h44m +19°"];
    const boxes = ["Top left", "Top right", "Bottom right", "Bottom left"].map((label) => screen.getByLabelText(label));
    const put = screen.getByRole<HTMLButtonElement>("button", { name: "Lay it down" });
    await user.type(boxes[0]!, "nowhere");
    expect(screen.getByRole("alert").textContent).toContain("Give right ascension and declination");
    expect(put.disabled).toBe(true);
    await user.clear(boxes[0]!);
    for (const [i, order] of [0, 2, 1, 3].entries()) await user.type(boxes[i]!, corners[order]!);
    await user.click(put);
    expect(screen.getByText(/The corners cross/)).toBeTruthy();
    expect(seen).not.toHaveBeenCalled();
    for (const [i, text] of corners.entries()) {
      await user.clear(boxes[i]!);
      await user.type(boxes[i]!, text);
    }
    await user.click(put);
    const picture = seen.mock.lastCall![0]!;
    expect([picture.name, picture.corners]).toEqual(["own.jpg", corners]);
    expect(picture.mesh.nodes[0]![0]).toBeCloseTo(101, 9);
    expect(picture.mesh.nodes[0]![1]).toBeCloseTo(21, 9);
  });

  it("shows the corners of a kept one, to be set right", async () => {
    const corners = ["06h44m +21°", "06h36m +21°", "06h36m +19°", "06h44m +19°"];
    render(<Live start={laid({ corners })} fits={null} />);
    const first = screen.getByLabelText<HTMLInputElement>("Top left");
    expect(first.value).toBe("06h44m +21°");
    await user.clear(first);
    await user.type(first, "06h45m +21°");
    await user.click(screen.getByRole("button", { name: "Lay it down" }));
    expect(seen.mock.lastCall![0]!.corners![0]).toBe("06h45m +21°");
    expect(seen.mock.lastCall![0]!.mesh.nodes[0]![0]).toBeCloseTo(101.25, 9);
  });

  it("lies down by itself when it is solved, or says why not and keeps the one before", async () => {
    const { unmount } = render(<Live start={null} fits={laid({ name: "solved.fits" })} />);
    await choose();
    await screen.findByText(/solved.fits, strength/);
    unmount();
    render(<Live start={laid()} fits="its projection is not TAN" />);
    await choose();
    expect(await screen.findByText("own.jpg: its projection is not TAN")).toBeTruthy();
    expect(screen.getByText(/kept.jpg, strength/)).toBeTruthy();
  });

  it("is taken away when asked", async () => {
    render(<Live start={laid()} fits={null} />);
    await user.click(screen.getByRole("button", { name: "Take it away" }));
    expect(seen).toHaveBeenLastCalledWith(null);
    expect(screen.queryByText(/strength/)).toBeNull();
  });
});
