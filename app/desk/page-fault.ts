import { data } from "react-router";
import type { PageFault } from "~/core/records";

const STATUS: Readonly<Record<PageFault["code"], number>> = {
  unknownPlace: 404,
  unknownRig: 404,
  unknownProject: 404,
  unknownTarget: 404,
  badNight: 400,
  projectGap: 409,
};

/** Ends a page that cannot be shown: the screen says why in its place. */
export function refusePage(fault: PageFault): never {
  throw data(fault, { status: STATUS[fault.code] });
}
