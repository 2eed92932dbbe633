import { createCodesClient, type CodesClient } from "./codes";
import { createFilesClient, type FilesClient } from "./files";
import { createFrameClient, type FrameClient } from "./frame";
import { createReaderClient, type ReaderClient } from "./reader";
import { createRehearsalClient, type RehearsalClient } from "./rehearsal";
import { createSeasonClient, type SeasonClient } from "./season";
import { createSurveyClient, type SurveyClient } from "./survey";
import { createSkyClient, type SkyClient } from "./sky";

/** All work that is done off the main thread. */
export interface Workers {
  readonly sky: SkyClient;
  readonly season: SeasonClient;
  readonly files: FilesClient;
  readonly frame: FrameClient;
  readonly reader: ReaderClient;
  readonly rehearsal: RehearsalClient;
  readonly codes: CodesClient;
  readonly survey: SurveyClient;
}

/** The workers of a tab, each started when it is first asked. */
export const createWorkers = (): Workers => ({
  sky: createSkyClient(),
  season: createSeasonClient(),
  files: createFilesClient(),
  frame: createFrameClient(),
  reader: createReaderClient(),
  rehearsal: createRehearsalClient(),
  codes: createCodesClient(),
  survey: createSurveyClient(),
});
