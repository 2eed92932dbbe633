import { useEffect, useState } from "react";
import { useDesk } from "~/at-desk";
import { utcMs, type UtcMs } from "~/core/time";

const EVERY_MS = 5000; // minutes are shown; a phone in the cold has to last

const CALLS_EVERY_MS = 60_000;

/** The clock of the night, told every few seconds while somebody looks; a hidden page rests, unless it has to call, by the minute. */
export function useNightClock(isCalling: boolean): UtcMs {
  const desk = useDesk();
  const [now, setNow] = useState(() => desk.now());
  useEffect(() => {
    let timer: ReturnType<typeof setInterval> | null = null;
    const tell = () => setNow(desk.now());
    const follow = () => {
      if (timer !== null) clearInterval(timer);
      const everyMs = document.hidden ? CALLS_EVERY_MS : EVERY_MS;
      timer = document.hidden && !isCalling ? null : setInterval(tell, everyMs);
      if (!document.hidden) tell();
    };
    follow();
    document.addEventListener("visibilitychange", follow);
    return () => {
      if (timer !== null) clearInterval(timer);
      document.removeEventListener("visibilitychange", follow);
    };
  }, [desk, isCalling]);
  return utcMs(now);
}

/** Keeps the screen awake while the page is shown, where the browser can. */
export function useAwake(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let isGone = false;
    const ask = async () => {
      if (document.hidden || !("wakeLock" in navigator)) return;
      const got = await navigator.wakeLock.request("screen").catch(() => null); // a low battery may refuse
      if (isGone) void got?.release();
      else lock = got;
    };
    void ask();
    const again = () => void ask();
    document.addEventListener("visibilitychange", again);
    return () => {
      isGone = true;
      document.removeEventListener("visibilitychange", again);
      void lock?.release();
    };
  }, []);
}

/** Red light while the page is open after dusk; whoever chooses another meanwhile keeps theirs. */
export function useRedLight(isDark: boolean): void {
  useEffect(() => {
    const root = document.documentElement;
    const before = root.dataset["theme"];
    if (!isDark || before === "ember" || before === undefined) return;
    root.dataset["theme"] = "ember";
    return () => {
      if (root.dataset["theme"] === "ember") root.dataset["theme"] = before;
    };
  }, [isDark]);
}
