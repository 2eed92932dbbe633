import type { UtcMs } from "~/core/time";

/** What a service is asked for. */
export interface AskedAt {
  readonly nowMs: UtcMs;
  readonly latitudeDeg: number;
  readonly longitudeDeg: number;
}

/**
 * A forecast service. To add a real one, write one file that exports such an object and put it into the list of `sources.ts`: `ask`
 * fetches and returns a text in the form of docs/formats.md (convert it there if the service speaks another). The page's
 * Content-Security-Policy lets the browser talk to this app's own server only: reach outside through a route of it.
 */
export interface ForecastSource {
  readonly id: string;
  readonly name: string;
  /** Pretended weather: called so wherever its numbers show, and asked only where somebody wants that. */
  readonly isSimulated: boolean;
  /** As the service asks to be named beside its numbers; absent = it asks for nothing. */
  readonly credit?: string;
  /** How long one try may take, ms; absent = the usual. */
  readonly timeoutMs?: number;
  /** Rejects with `ServiceRefusal` or a network error; stops when the signal aborts. */
  ask(at: AskedAt, signal: AbortSignal): Promise<string>;
}
