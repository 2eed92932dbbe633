import type { ReactElement, ReactNode } from "react";
import { ResponsiveContainer } from "recharts";

/** One look for all charts: hairlines, words in the page's own type, nothing of the library's own palette. */
export const AXIS = {
  stroke: "var(--rule)",
  tick: { fill: "var(--soft)", fontSize: 12 },
  tickLine: false,
} as const;
export const GRID = { stroke: "var(--rule)", strokeOpacity: 0.5, vertical: false } as const;
export const CURSOR = { stroke: "var(--soft)", strokeDasharray: "2 3" } as const;
export const MARGIN = { top: 8, right: 16, bottom: 4, left: 0 } as const;
/** Words beside an axis. */
export const axisWords = (value: string, position: "insideLeft" | "insideBottom") =>
  ({
    value,
    position,
    fill: "var(--faint)",
    fontSize: 12,
    ...(position === "insideLeft" ? { angle: -90, style: { textAnchor: "middle" as const } } : { offset: -2 }),
  }) as const;

/** What stands beside the pointer, in words. */
export function TipBox({ lines }: { readonly lines: readonly string[] }) {
  return (
    <div className="border-rule bg-raised text-note rounded-[6px] border px-2.5 py-1.5">
      {lines.map((line, i) => (
        <p key={line} className={i === 0 ? "font-semibold" : "text-soft"}>
          {line}
        </p>
      ))}
    </div>
  );
}

/** The words beside the pointer of a chart whose points are `T`. */
export function tipOf<T>(words: (point: T) => readonly string[]) {
  return function Tip({
    active,
    payload,
  }: {
    readonly active?: boolean;
    readonly payload?: readonly { readonly payload?: unknown }[];
  }) {
    const point = payload?.[0]?.payload as T | undefined;
    return active && point !== undefined ? <TipBox lines={words(point)} /> : null;
  };
}

/** A chart of fixed height with its title for those who hear it; arrow keys go from point to point. What it says stands below it in words. */
export function ChartFrame({
  title,
  heightPx,
  children,
  words,
}: {
  readonly title: string;
  readonly heightPx: number;
  readonly children: ReactElement;
  readonly words?: ReactNode;
}) {
  return (
    <figure aria-label={title}>
      <div style={{ height: heightPx }}>
        <ResponsiveContainer width="100%" height="100%">
          {children}
        </ResponsiveContainer>
      </div>
      {words ? <figcaption className="text-note text-soft mt-1">{words}</figcaption> : null}
    </figure>
  );
}
