import type { WcsFault } from "~/core/formats";
import type { PictureFault } from "~/desk/log/files";
import type { SurveyRefusal } from "~/desk/sky/surveys";

/** Why a survey’s pictures cannot be shown. */
export function surveyFaultWords(f: SurveyRefusal): string {
  switch (f.code) {
    case "silent":
      return "A survey does not answer: without it, the chart is drawn from the catalogues.";
    case "missing":
      return `A survey does not say its ${f.key}: its pictures cannot be shown.`;
    case "unreadable":
      return `A survey says “${f.found}” for ${f.key}, which does not read: its pictures cannot be shown.`;
    case "noPictures":
      return `A survey has tiles as ${f.found} only: pictures are read as JPEG or PNG.`;
    case "otherFrame":
      return `A survey counts its tiles in ${f.found} coordinates; equatorial and galactic are read.`;
  }
}

/** Why a header gives no frame. */
export function frameFaultWords(f: WcsFault | PictureFault): string {
  switch (f.code) {
    case "frameNoImage":
      return "It contains no picture (NAXIS is 0, or no size is given).";
    case "frameNoSolution":
      return "It is not solved: no CTYPE1 and CRVAL1. Solve it first, or paste the solver’s header.";
    case "frameNotTan":
      return `Its projection is “${f.found}”; only the gnomonic one (TAN) is read here.`;
    case "frameSingular":
      return "Its scale matrix has no area; the solution is broken.";
    case "frameSystem":
      return `Its positions are of another system (${f.found}). Solve it again in ICRS or J2000.`;
    case "frameNoPosition":
      return `Its reference value (${f.found}) is no position; the solution is broken.`;
    case "framePole":
      return `Its pole is turned (LONPOLE ${f.found}); no picture is solved that way.`;
    case "framePacked":
      return "Its pixels are compressed. The frame is read from it, the picture is not: save it uncompressed.";
    case "frameTooLarge":
      return `Its field would be ${f.found} wide. That is no telescope; is the scale in the wrong unit?`;
  }
}
