import { createElement, lazy, Suspense, type ComponentType, type ReactNode } from "react";

/** A chart that is fetched when a page first shows it, its place kept free meanwhile. */
function later<P extends object>(load: () => Promise<{ readonly default: (props: P) => ReactNode }>, heightPx: number) {
  const Chart: ComponentType<P> = lazy(load as () => Promise<{ default: ComponentType<P> }>);
  return function LaterChart(props: P) {
    return <Suspense fallback={<div style={{ height: heightPx }} />}>{createElement(Chart, props)}</Suspense>;
  };
}

export const YearChart = later(() => import("./drawn/YearChart"), 190);
export const CollectedChart = later(() => import("./drawn/CollectedChart"), 194);
export const FinishChart = later(() => import("./drawn/FinishChart"), 190);
export const DepthChart = later(() => import("./drawn/DepthChart"), 250);
export const NightMeasureChart = later(() => import("./drawn/NightMeasureChart"), 194);
export const HourLines = later(() => import("./drawn/HourLines"), 184);
export const ReliabilityChart = later(() => import("./drawn/ReliabilityChart"), 264);
