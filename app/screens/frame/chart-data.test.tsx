import { act, renderHook, waitFor } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { useChartData } from "./use-chart-data";

const asked = vi.hoisted(() => ({ stars: 0, objects: 0 }));
vi.mock("~/desk/chart-sky", () => ({
  skyData: () =>
    ++asked.stars === 1 ? Promise.reject(new Error("star file: cut short")) : Promise.resolve({ named: [] }),
}));
vi.mock("~/workers/sky", () => ({
  skyWorker: () => ({ within: () => (asked.objects++, Promise.resolve([])) }),
}));

it("says why the stars of a chart did not come, and asks again when told to", async () => {
  const gaze = { centre: { frame: "icrs", raDeg: 10, decDeg: 20 } as const, heightDeg: 3 };
  const { result } = renderHook(() => useChartData(gaze));
  await waitFor(() => expect(result.current.fault).toBe("The stars could not be loaded: star file: cut short."));
  expect(result.current.sky).toBeNull();
  act(() => result.current.again());
  await waitFor(() => expect(result.current.sky).not.toBeNull());
  expect(result.current.fault).toBe("");
  expect(asked.stars).toBe(2);
});
