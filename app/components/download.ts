/** Hands a text to the browser as a file. */
export const download = (fileName: string, text: string, type: string): void =>
  downloadBlob(fileName, new Blob([text], { type }));

/** Hands something to the browser as a file. */
export function downloadBlob(fileName: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement("a");
  link.href = url;
  link.download = fileName;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A name as part of a file name. */
export const fileStem = (name: string): string =>
  name
    .normalize("NFKD")
    .replaceAll(/[^A-Za-z0-9]+/g, "-")
    .replaceAll(/^-|-$/g, "")
    .toLowerCase() || "zenithar";
