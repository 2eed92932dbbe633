import type { PositionFault } from "~/core/notation";
import {
  MOST_RECORDS,
  MOST_VERSIONS,
  type BundleFault,
  type ExifFault,
  type FitsFault,
  type TableFault,
  type SkylineFault,
} from "~/core/formats";
import type { BookingFault } from "~/core/ledger";

/** What is wrong with a skyline text. */
export function skylineFaultWords(f: SkylineFault): string {
  const where = `Line ${f.line}, “${f.text}”: `;
  switch (f.code) {
    case "skylineLine":
      return `${where}write two numbers, azimuth and altitude, for example “180 25”.`;
    case "skylineAzimuth":
      return `${where}azimuth runs from 0 to 360°, north through east.`;
    case "skylineAltitude":
      return `${where}altitude runs from 0 to 90°.`;
    case "skylineTwice":
      return `${where}this azimuth already has another altitude. For a vertical edge use two azimuths 0.1° apart.`;
    case "skylineTooFew":
      return "One point would wall in the whole sky. Give at least two, or none for a level horizon.";
    case "skylineTooMany":
      return `${where}more than 3600 points; the rest is left out. One every tenth of a degree is plenty.`;
  }
}

/** Why a file is no bundle. */
export function bundleFaultWords(f: BundleFault): string {
  switch (f.code) {
    case "bundleEmpty":
      return "the file is empty.";
    case "bundleTooLarge":
      return `the file is larger than a project can be (${f.found}; the limit is 60 MB).`;
    case "bundleTooMany":
      return `it holds ${f.found} records; nobody's project has more than ${MOST_RECORDS}. Nothing was taken from it.`;
    case "bundleTooManyVersions":
      return `it holds more than ${MOST_VERSIONS} versions of one record (${f.found.slice(0, 60)}), which nobody can choose from. Nothing was taken from it.`;
    case "bundleNotJson":
      return "this is not a project file: it does not read as JSON. Was it cut short on the way?";
    case "bundleForeign":
      return "this is some other kind of file, not one exported here.";
    case "bundleNewer":
      return `the file was written by a newer version (format ${f.found}). Update this copy and try again; nothing was changed.`;
  }
}

/** Why a dropped file is not read. */
export function fileFaultWords(
  code: FitsFault["code"] | ExifFault["code"] | TableFault["code"] | "unreadable",
): string {
  switch (code) {
    case "notFits":
      return "neither a FITS file nor a picture that tells how it was taken";
    case "truncatedHeader":
    case "needMore":
      return "the header is cut short";
    case "truncatedData":
      return "the file is cut short: fewer pixels than its header promises";
    case "brokenHeader":
      return "its header gives sizes that cannot be";
    case "tableNoColumns":
      return "the table has no columns for exposure and for start or file (docs/formats.md names them)";
    case "tableTooLong":
      return "the table is too long: 20,000 rows at most";
    case "noExif":
      return "the picture does not say how it was taken (no EXIF)";
    case "exifUnreadable":
      return "what the picture says of its exposure (EXIF) is broken";
    case "unreadable":
      return "the browser could not read it";
  }
}

/** Why an exposure is not booked. */
export function bookingFaultWords(f: BookingFault): string {
  switch (f.code) {
    case "notALight":
      return "the header does not say whether it is a light, dark, flat or bias";
    case "noStart":
      return "the header has no start time (DATE-OBS)";
    case "noExposure":
      return "the header has no exposure time";
    case "noFilter":
      return "the header names no filter, and the rig has several";
    case "unknownFilter":
      return `no channel known for the filter “${f.found}”: give one of your filters this name`;
    case "noRig":
      return f.found
        ? `no rig of yours gives that scale with the camera “${f.found}”`
        : "no rig of yours gives that scale";
    case "noPlace":
      return "no place is entered that it could come from";
    case "noPointing":
      return "the header says neither where it points nor at what";
    case "noProject":
      return f.found ? `no project of yours points there (“${f.found}”)` : "no project of yours points there";
  }
}

/** What is wrong with a position text. */
export function positionFaultWords(fault: PositionFault): string {
  switch (fault.code) {
    case "positionUnreadable":
      return "Give right ascension and declination, for example “20h50m33s +31°10′” or “312.64 +31.17”.";
    case "positionRightAscension":
      return "Right ascension runs from 0 to 24 h, or 0 to 360°.";
    case "positionDeclination":
      return "Declination runs from −90 to +90°.";
  }
}
