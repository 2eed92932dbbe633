import type { ReadForecast } from "~/core/formats";
import type { Result } from "~/core/result";
import { askSource, type AskFault, type ReadAnswer } from "./ask";
import { realService } from "./edr";
import type { AskedAt, ForecastSource } from "./source";
import { standIns } from "./stand-in";

/** Who tells the weather, and how they are asked. */
export interface Sources {
  /** Every source that is asked, in the order shown: the real one first, where there is one. */
  readonly all: readonly ForecastSource[];
  readonly ask: (source: ForecastSource, at: AskedAt, signal: AbortSignal) => Promise<Result<ReadForecast, AskFault>>;
}

/** The sources of a page; `notice` is what it says about the real service, if there is one. Simulated services are played by the server. */
export function createSources(notice: string | undefined, read: ReadAnswer, hasServer = true): Sources {
  const real = realService(notice);
  return { all: [...(real ? [real] : []), ...(hasServer ? standIns : [])], ask: (...of) => askSource(read, ...of) };
}
