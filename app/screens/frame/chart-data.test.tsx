import { act, renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { expect, it, vi } from "vitest";
import type { SkyData } from "~/core/catalog";
import { DeskContext } from "~/at-desk";
import { testDesk } from "~/desk/desk.test-data";
import { useChartData } from "./use-chart-data";

it("says why the stars of a chart did not come, and asks again when told to", async () => {
  const chart = vi.fn<() => Promise<SkyData>>();
  chart.mockRejectedValueOnce(new Error("star file: cut short"));
  chart.mockResolvedValue({ named: [] } as unknown as SkyData);
  const desk = testDesk({ supplies: { chart } });
  const gaze = { centre: { frame: "icrs", raDeg: 10, decDeg: 20 } as const, heightDeg: 3 };
  const wrapper = ({ children }: { readonly children: ReactNode }) => (
    <DeskContext value={desk}>{children}</DeskContext>
  );
  const { result } = renderHook(() => useChartData(gaze), { wrapper });
  await waitFor(() => expect(result.current.fault).toBe("The stars could not be loaded: star file: cut short."));
  expect(result.current.sky).toBeNull();
  act(() => result.current.again());
  await waitFor(() => expect(result.current.sky).not.toBeNull());
  expect(result.current.fault).toBe("");
  expect(chart).toHaveBeenCalledTimes(2);
});
