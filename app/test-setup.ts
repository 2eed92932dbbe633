import { vi } from "vitest";
import "fake-indexeddb/auto";
import { cleanup } from "@testing-library/react";
import { afterEach } from "vitest";

// What the browser has and the test page lacks.
globalThis.ResizeObserver ??= class {
  observe() {
    return undefined;
  }
  unobserve() {
    return undefined;
  }
  disconnect() {
    return undefined;
  }
};
if (typeof globalThis.matchMedia !== "function")
  Object.assign(globalThis, {
    matchMedia: () => ({ matches: true, addEventListener: () => undefined, removeEventListener: () => undefined }),
  });
if (!("scrollIntoView" in Element.prototype)) Object.assign(Element.prototype, { scrollIntoView: () => undefined });

if (!("hasPointerCapture" in Element.prototype))
  Object.assign(Element.prototype, {
    hasPointerCapture: () => false,
    setPointerCapture: () => undefined,
    releasePointerCapture: () => undefined,
  });

afterEach(() => cleanup());

// Workers do not run here; what they run for small files is the same.
vi.mock("~/workers/files", async () => {
  const { decodeBundle, openPanelList, readForecast } = await import("~/core/formats");
  return {
    readBundleInWorker: async (file: Blob) => decodeBundle(await file.text()),
    readPanelsInWorker: async (file: Blob) => openPanelList(await file.text()),
    readForecastInWorker: async (file: Blob, at: Parameters<typeof readForecast>[1]) =>
      readForecast(await file.text(), at),
  };
});
