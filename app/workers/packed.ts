/** A file as its own bytes, packed by gzip or not. */
export interface Opened {
  readonly sizeBytes: number;
  readonly isPacked: boolean;
  /** Its first bytes, as many as there are up to `length`. */
  readonly first: (length: number) => Promise<Uint8Array<ArrayBuffer>>;
}

/** Opens a file; of one packed by gzip (RFC 1952) only as much is unpacked as is asked for. */
export async function opened(file: Blob): Promise<Opened> {
  const bytes = async (from: number, to: number) => new Uint8Array(await file.slice(from, to).arrayBuffer());
  const [one, two] = await bytes(0, 2);
  if (one !== 0x1f || two !== 0x8b)
    return { sizeBytes: file.size, isPacked: false, first: (length) => bytes(0, length) };
  const tail = await bytes(Math.max(0, file.size - 4), file.size);
  const sizeBytes = tail.length === 4 ? new DataView(tail.buffer).getUint32(0, true) : 0; // of the unpacked file
  return { sizeBytes, isPacked: true, first: (length) => unpackedStart(file, length) };
}

/** The first bytes of a packed file. */
async function unpackedStart(file: Blob, length: number): Promise<Uint8Array<ArrayBuffer>> {
  const reader = file.stream().pipeThrough(new DecompressionStream("gzip")).getReader();
  const out = new Uint8Array(length);
  let filled = 0;
  while (filled < length) {
    const { done, value } = await reader.read();
    if (done) break;
    out.set(value.subarray(0, length - filled), filled);
    filled += value.length;
  }
  await reader.cancel().catch(() => undefined);
  return out.subarray(0, Math.min(filled, length));
}

/** Whether a file that begins like FITS is its header as text, a card a line: no header of 80 columns has a line break in it. */
export async function isCardsAsText(file: Blob): Promise<boolean> {
  const start = await file.slice(0, 81).text();
  return /^\s*[A-Z][A-Z0-9_-]{0,7}\s*=/.test(start) && /[\r\n]/.test(start);
}
