import type { KeepFault } from "~/core/records";

/** Why something was not kept. */
export function keepFaultWords(f: KeepFault): string {
  switch (f.code) {
    case "storageFull":
      return "The browser's storage for this app is full: this was not saved. What you typed is still here. Export your data under Kit, Data, then free space on this device.";
    case "storageBlocked":
      return "The browser refused to store this (a private window, or storage is switched off). What you typed is still here. Export your data under Kit, Data before you close the tab.";
    case "storageNewer":
      return "A newer version of this app has written here from another tab: this was not saved. What you typed is still here; copy it, then load the page again.";
    case "notFetched":
      return "The server cannot be reached, so this could not be fetched. Nothing was changed; try again later.";
    case "clockOutOfRange":
      return "This machine's clock, or the one this was written by before, stands past the year 2200: this was not saved. What you typed is still here. Set the clock right, then save again.";
    case "takesNoPart":
      return "This was not saved: you take no part in this project.";
    case "noPlaceYet":
      return "This was not saved: enter a place under Kit first.";
    case "hoursDoNotFit":
      return "This was not saved: the old hours do not fill its panels any more.";
    case "recordRefused":
      return `This was not saved, since it would not read again: ${f.kind}, ${f.path || "as a whole"}: ${f.message}.`;
  }
}

/** What was stored, did not read, and was set aside. */
export const asideWords = (count: number): string =>
  count === 1
    ? "One stored thing does not read. It was set aside; it is under Kit, Data in and out."
    : `${count} stored things do not read. They were set aside; they are under Kit, Data in and out.`;
