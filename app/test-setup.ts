import "fake-indexeddb/auto";
import { cleanup } from "@testing-library/react";
import { afterEach } from "vitest";

// What the browser has and the test page lacks.
/** Watches and never has anything to say: nothing has a size here, or comes into view. */
class SilentObserver {
  readonly root = null;
  readonly rootMargin = "";
  readonly scrollMargin = "";
  readonly thresholds = [];
  observe() {
    return undefined;
  }
  unobserve() {
    return undefined;
  }
  disconnect() {
    return undefined;
  }
  takeRecords() {
    return [];
  }
}
globalThis.ResizeObserver ??= SilentObserver;
globalThis.IntersectionObserver ??= SilentObserver;
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
