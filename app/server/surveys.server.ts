import { createHash } from "node:crypto";
import { readFile, realpath, stat } from "node:fs/promises";
import { join, sep } from "node:path";
import { allSkyPath, SIMULATED, surveyText, tilePath, type SurveyFile } from "~/core/survey";
import { simulatedPicture } from "./simulated-sky.server";

/** Where pictures of the sky come from: a service elsewhere, a folder of this machine, or the app itself. */
export type SurveySource =
  | { readonly id: string; readonly kind: "service"; readonly address: URL }
  | { readonly id: string; readonly kind: "folder"; readonly path: string }
  | { readonly id: "simulated"; readonly kind: "simulated" };

/** How long a service may take, ms; and how much it may send, bytes. */
const LIMIT_MS = 10_000;
const MOST_TEXT_BYTES = 64_000;
const MOST_PICTURE_BYTES = 6_000_000;

/** A name that stays with a source, so that browsers do not take one survey's tiles for another's. */
const nameOf = (where: string): string => createHash("sha256").update(where).digest("hex").slice(0, 12);

const isHere = (host: string): boolean => ["localhost", "127.0.0.1", "[::1]"].includes(host);

/**
 * Reads the surveys that the operator set up: addresses and folders, one after the other with white space between. None = the app's own
 * simulated sky; "off" = no pictures. Throws on what cannot be used: a wrong setting should be seen at once.
 */
export function surveysOf(env: Readonly<Record<string, string | undefined>>): readonly SurveySource[] {
  const words = (env["ZENITHAR_HIPS"] ?? "").split(/\s+/).filter((word) => word !== "");
  if (words.length === 0) return [{ id: "simulated", kind: "simulated" }];
  if (words.length === 1 && words[0] === "off") return [];
  return words.map((word) => {
    if (!/^[a-z]+:\/\//i.test(word)) {
      if (!word.startsWith("/")) throw new RangeError(`ZENITHAR_HIPS: give a folder by its whole path: ${word}`);
      return { id: nameOf(word), kind: "folder", path: word };
    }
    const address = URL.canParse(word) ? new URL(word) : null;
    if (!address) throw new RangeError(`ZENITHAR_HIPS is no address: ${word}`);
    if (address.protocol !== "https:" && !(address.protocol === "http:" && isHere(address.hostname)))
      throw new RangeError("ZENITHAR_HIPS must be https; plain http only on this machine");
    if (address.username !== "" || address.password !== "" || address.search !== "" || address.hash !== "")
      throw new RangeError("ZENITHAR_HIPS takes addresses without a password, a question or a mark");
    if (!address.pathname.endsWith("/")) address.pathname += "/";
    return { id: nameOf(address.href), kind: "service", address };
  });
}

/** What is answered for a file of a survey. */
export interface SurveyAnswer {
  readonly status: number;
  readonly type: string;
  readonly body: Uint8Array<ArrayBuffer> | string;
}

const said = (status: number, words: string): SurveyAnswer => ({ status, type: "text/plain", body: `${words}\n` });
const NOT_COVERED = said(404, "The survey has nothing there.");

/** The path of a file under its survey. */
const pathOf = (file: SurveyFile): string =>
  file.kind === "properties" ? "properties" : file.kind === "allSky" ? allSkyPath(file.format) : tilePath(file.order, file.tile, file.format); // prettier-ignore

/** What the first bytes of a picture say it is. */
function pictureType(bytes: Uint8Array): string | null {
  if (bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff) return "image/jpeg";
  if ([0x89, 0x50, 0x4e, 0x47].every((byte, i) => bytes[i] === byte)) return "image/png";
  return null;
}

/** A file of a survey as it goes out: pictures only as what they are, text as text. */
function answerOf(file: SurveyFile, bytes: Uint8Array<ArrayBuffer>): SurveyAnswer {
  if (file.kind === "properties") return { status: 200, type: "text/plain; charset=utf-8", body: bytes };
  const type = pictureType(bytes);
  return type ? { status: 200, type, body: bytes } : said(502, "The survey sent something that is no picture.");
}

const mostBytes = (file: SurveyFile): number => (file.kind === "properties" ? MOST_TEXT_BYTES : MOST_PICTURE_BYTES);

/** Reads no more than is allowed; null when there is more. */
async function readLimited(response: Response, most: number): Promise<Uint8Array<ArrayBuffer> | null> {
  if (Number(response.headers.get("content-length") ?? 0) > most || !response.body) return null;
  const pieces: Uint8Array[] = [];
  let length = 0;
  const reader = response.body.getReader();
  for (let piece = await reader.read(); !piece.done; piece = await reader.read()) {
    length += piece.value.byteLength;
    if (length > most) {
      await reader.cancel();
      return null;
    }
    pieces.push(piece.value);
  }
  const whole = new Uint8Array(length);
  let at = 0;
  for (const piece of pieces) {
    whole.set(piece, at);
    at += piece.byteLength;
  }
  return whole;
}

/** Asks a service. Never follows it to another address. */
async function ofService(address: URL, file: SurveyFile, signal: AbortSignal): Promise<SurveyAnswer> {
  const stop = AbortSignal.any([signal, AbortSignal.timeout(LIMIT_MS)]);
  try {
    const response = await fetch(new URL(pathOf(file), address), { signal: stop, redirect: "error" });
    if (response.status === 404) return NOT_COVERED;
    if (!response.ok) return said(502, `The survey answered ${response.status}.`);
    const bytes = await readLimited(response, mostBytes(file));
    return bytes ? answerOf(file, bytes) : said(502, "The survey sent too much.");
  } catch (error) {
    const isLate = error instanceof Error && error.name === "TimeoutError";
    return isLate ? said(504, "The survey took too long.") : said(502, "The survey cannot be reached.");
  }
}

/** Reads a folder of this machine; what a link leads to outside of it is not there. */
async function ofFolder(folder: string, file: SurveyFile): Promise<SurveyAnswer> {
  try {
    const [root, path] = await Promise.all([realpath(folder), realpath(join(folder, pathOf(file)))]);
    if (!path.startsWith(root + sep)) return NOT_COVERED;
    if ((await stat(path)).size > mostBytes(file)) return said(502, "The survey’s file is too large.");
    return answerOf(file, new Uint8Array(await readFile(path)));
  } catch {
    return NOT_COVERED;
  }
}

/** Answers for a file of a survey. */
export async function surveyAnswer(source: SurveySource, file: SurveyFile, signal: AbortSignal): Promise<SurveyAnswer> {
  if (source.kind === "service") return ofService(source.address, file, signal);
  if (source.kind === "folder") return ofFolder(source.path, file);
  if (file.kind === "properties") return { status: 200, type: "text/plain", body: surveyText(SIMULATED, "simulated") };
  if (file.kind === "allSky" || file.format !== SIMULATED.format) return NOT_COVERED;
  if (file.order < SIMULATED.orderMin || file.order > SIMULATED.orderMax) return NOT_COVERED;
  return { status: 200, type: "image/png", body: await simulatedPicture(file.order, file.tile) };
}
