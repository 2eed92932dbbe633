import { useEffect, useState } from "react";

/** How often the clock of a rehearsal is drawn anew, ms: smooth enough at every speed, and no more than needed at 1×. */
const tickMs = (speed: number): number => (speed === 1 ? 1000 : 100);

/** A clock that runs from one instant to another, so many times as fast as the real one. It stands at its end, and while the tab is hidden. */
export function usePlayClock(fromMs: number, toMs: number, speed: number) {
  const [nowMs, setNow] = useState(fromMs);
  const [isRunning, setRunning] = useState(false);
  useEffect(() => {
    if (!isRunning) return undefined;
    let lastMs = performance.now();
    const timer = setInterval(() => {
      const passedMs = performance.now() - lastMs;
      lastMs += passedMs;
      if (!document.hidden) setNow((ms) => Math.min(toMs, ms + passedMs * speed));
    }, tickMs(speed));
    return () => clearInterval(timer);
  }, [isRunning, toMs, speed]);
  const isThere = nowMs >= toMs;
  return {
    nowMs: Math.min(nowMs, toMs),
    isRunning: isRunning && !isThere,
    isThere,
    run: setRunning,
    /** To the end at once. */
    jump: () => setNow(toMs),
  };
}
