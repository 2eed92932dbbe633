import type { SkyMesh } from "~/core/framing";
import type { Result } from "~/core/result";
import type { Drawer, StorageFault } from "./driver";
import type { Cupboard } from "./ports";

/** A picture of one's own under the chart of a frame. */
export interface KeptPicture {
  readonly name: string;
  /** JPEG or PNG as any browser reads it. */
  readonly bytes: ArrayBuffer;
  readonly type: string;
  readonly mesh: SkyMesh;
  readonly opacity: number;
  /** The four corners as typed, where a person gave them. */
  readonly corners: readonly string[] | null;
}

/** Pictures of one's own, by frame: no merge ever looks at them. */
export interface Pictures {
  /** The picture kept for a frame; null when there is none, or none that reads. The last one asked for is remembered. */
  readonly of: (frameId: string) => Promise<KeptPicture | null>;
  /** Keeps a picture for a frame in place of the one before; null takes it away. */
  readonly keep: (frameId: string, picture: KeptPicture | null) => Promise<Result<null, StorageFault>>;
  /** Takes all pictures away and hands them back raw. */
  readonly takeAll: () => Promise<ReadonlyMap<string, unknown>>;
  /** Puts back what `takeAll` took. */
  readonly putBack: (all: ReadonlyMap<string, unknown>) => Promise<void>;
}

/** The pictures of a browser. */
export function createPictures({ open }: Pick<Cupboard, "open">): Pictures {
  let opened: Promise<Drawer> | null = null;
  const drawer = (): Promise<Drawer> => (opened ??= open("pictures"));
  let last: { readonly frameId: string; readonly picture: Promise<KeptPicture | null> } | null = null;
  const read = async (frameId: string): Promise<KeptPicture | null> => {
    const stored = await (await drawer()).read(frameId);
    if (stored === null) return null;
    // With the first picture there is, not with every page.
    const { readPicture } = await import("./picture-schema");
    return readPicture(stored);
  };
  return {
    of(frameId) {
      if (last?.frameId !== frameId) last = { frameId, picture: read(frameId) };
      return last.picture;
    },
    async keep(frameId, picture) {
      last = null;
      const d = await drawer();
      return picture === null ? d.drop(frameId) : d.write(new Map([[frameId, picture]]));
    },
    async takeAll() {
      last = null;
      const d = await drawer();
      const all = await d.readAll();
      await d.clear();
      return all;
    },
    async putBack(all) {
      last = null;
      await (await drawer()).write(all);
    },
  };
}
