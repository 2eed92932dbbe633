import { databaseName } from "./session";

let channel: BroadcastChannel | null = null;
const open = () => ("BroadcastChannel" in globalThis ? (channel ??= new BroadcastChannel(databaseName())) : null);

/** Tells other tabs that something was stored. */
export const announce = (): void => open()?.postMessage("changed");

/** Calls back when another tab has stored something; returns how to stop listening. */
export function onAnnounced(listener: () => void): () => void {
  const here = open();
  here?.addEventListener("message", listener);
  return () => here?.removeEventListener("message", listener);
}
