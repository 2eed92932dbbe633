import { useEffect, useRef, useState } from "react";
import { useDesk } from "~/at-desk";

/** How one is told of what is due while the page is not looked at. */
export const CALLS = ["none", "quiet", "sound"] as const;
export type Calls = (typeof CALLS)[number];

const NOTE = "live.calls";
const BEEP = { hz: 660, seconds: 0.4, loudness: 0.2 } as const;

/** Whether this browser can tell anything at all. */
export const canCall = (): boolean => "Notification" in globalThis;

/** A short tone, without a file of one. */
function beep(): void {
  const audio = new AudioContext();
  const [tone, volume] = [audio.createOscillator(), audio.createGain()];
  tone.frequency.value = BEEP.hz;
  volume.gain.value = BEEP.loudness;
  tone.connect(volume).connect(audio.destination);
  tone.start();
  tone.stop(audio.currentTime + BEEP.seconds);
  tone.onended = () => void audio.close();
}

/** By the service worker where there is one, since phones allow no other way. */
async function show(words: string, tag: string): Promise<void> {
  const worker = await navigator.serviceWorker?.getRegistration().catch(() => undefined);
  if (worker) await worker.showNotification(words, { tag });
  else new Notification(words, { tag });
}

/** How one wants to be told, remembered in this browser; nobody is asked for leave before they want it. */
export function useCallsChoice() {
  const { notes } = useDesk().cupboard;
  const [calls, setCalls] = useState<Calls>(() => CALLS.find((c) => c === notes.read(NOTE)) ?? "none");
  const [isRefused, setRefused] = useState(false);
  const choose = async (next: Calls) => {
    const isAllowed = next === "none" || (await Notification.requestPermission()) === "granted";
    setRefused(!isAllowed);
    if (!isAllowed) return;
    notes.write(NOTE, next);
    setCalls(next);
  };
  return { calls, choose, isRefused };
}

/** Tells what is due, once each: as a notification while the page is hidden, and with a tone if that was asked for. */
export function useTelling(due: readonly { readonly what: string; readonly words: string }[], calls: Calls): void {
  const told = useRef(new Set<string>());
  useEffect(() => {
    const now = new Set(due.map((d) => d.what));
    for (const what of told.current) if (!now.has(what)) told.current.delete(what); // due again later, it is told again
    for (const { what, words } of due) {
      if (told.current.has(what)) continue;
      told.current.add(what);
      if (calls === "none" || !canCall() || Notification.permission !== "granted") continue;
      if (document.hidden) show(words, what).catch(() => undefined); // taken back by the browser meanwhile: the page says it all the same
      if (calls === "sound") beep();
    }
  }, [due, calls]);
}
