import type { WcsFault } from "~/core/formats";
import type { PictureFault } from "~/desk/log/files";

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
