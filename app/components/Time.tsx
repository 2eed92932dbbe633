import { clockTime, utcTime } from "./clock";

/** A local clock time; UTC on hover. */
export function Time({ ms, zone }: { readonly ms: number; readonly zone: string }) {
  return (
    <time dateTime={new Date(ms).toISOString()} title={utcTime(ms)}>
      {clockTime(ms, zone)}
    </time>
  );
}
