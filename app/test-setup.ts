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
// Nothing ever comes into view.
globalThis.IntersectionObserver ??= class {
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
