import type { ForecastFault, ReadForecast } from "~/core/formats";
import { err, type Result } from "~/core/result";
import type { AskedAt, ForecastSource } from "./source";
import { ServiceRefusal } from "./refusal";

/** Why a source has nothing new. */
export type AskFault =
  ForecastFault | { readonly code: "timedOut" | "unreachable" | "refused"; readonly found: string };

/** Patience with one service. */
export interface Patience {
  readonly timeoutMs: number;
  readonly tries: number;
  /** Before the second try; doubled before each further one. */
  readonly waitMs: number;
}

const USUAL: Patience = { timeoutMs: 3000, tries: 3, waitMs: 300 };

const pause = (ms: number, signal: AbortSignal): Promise<void> =>
  new Promise((resolve, reject) => {
    const stop = () => {
      clearTimeout(timer);
      reject(signal.reason as Error);
    };
    const timer = setTimeout(() => {
      signal.removeEventListener("abort", stop);
      resolve();
    }, ms);
    signal.addEventListener("abort", stop, { once: true });
  });

/** Reads the text a service answers with, in the form of docs/formats.md. */
export type ReadAnswer = (text: string, at: AskedAt) => Promise<Result<ReadForecast, ForecastFault>>;

async function askOnce(
  read: ReadAnswer,
  source: ForecastSource,
  at: AskedAt,
  timeoutMs: number,
  signal: AbortSignal,
): Promise<Result<ReadForecast, AskFault>> {
  const limit = AbortSignal.timeout(timeoutMs);
  const stop = AbortSignal.any([signal, limit]);
  const stopped = new Promise<never>((_, reject) =>
    stop.addEventListener("abort", () => reject(stop.reason as Error), { once: true }),
  );
  stopped.catch(() => undefined);
  try {
    // Raced, so that a source that does not heed its signal cannot hold us either.
    const text = await Promise.race([source.ask(at, stop), stopped]);
    return await read(text, at);
  } catch (error) {
    signal.throwIfAborted();
    if (limit.aborted) return err({ code: "timedOut", found: `${timeoutMs / 1000} s` });
    if (error instanceof ServiceRefusal) return err({ code: "refused", found: String(error.status) });
    return err({ code: "unreachable", found: error instanceof Error ? error.message : "" });
  }
}

/**
 * Asks a source, again when it fails, hangs or talks nonsense. An answer that asking again cannot better (an unknown place, a
 * newer format) is not asked for twice. Rejects only when `signal` aborts.
 */
export async function askSource(
  read: ReadAnswer,
  source: ForecastSource,
  at: AskedAt,
  signal: AbortSignal,
  patience: Patience = source.timeoutMs === undefined ? USUAL : { ...USUAL, timeoutMs: source.timeoutMs },
): Promise<Result<ReadForecast, AskFault>> {
  for (let attempt = 1; ; attempt++) {
    const answer = await askOnce(read, source, at, patience.timeoutMs, signal);
    if (answer.ok || attempt >= patience.tries) return answer;
    const { code, found } = answer.error;
    if (code === "forecastNewer" || (code === "refused" && /^4/.test(found))) return answer;
    await pause(patience.waitMs * 2 ** (attempt - 1), signal);
  }
}
