import { Command } from "cmdk";
import { useEffect, useState } from "react";
import { KIND_WORDS, type CatalogEntry } from "~/core/catalog";

/** Something of one's own that the search finds by name. */
export interface OwnPlace {
  readonly word: string;
  readonly kind: string;
  readonly to: string;
}

/** Search everywhere: stations, own projects, places and rigs, and the whole catalogue. */
export function SearchPalette({
  open,
  onOpenChange,
  own,
  searchObjects,
  onGo,
}: {
  readonly open: boolean;
  readonly onOpenChange: (open: boolean) => void;
  readonly own: readonly OwnPlace[];
  readonly searchObjects: (query: string) => Promise<CatalogEntry[]>;
  readonly onGo: (to: string) => void;
}) {
  const [query, setQuery] = useState("");
  const [found, setFound] = useState<{
    readonly query: string;
    readonly objects: readonly CatalogEntry[];
    /** Why the catalogue did not answer; "" when it did. */
    readonly fault: string;
  }>({ query: "", objects: [], fault: "" });
  useEffect(() => {
    if (query.trim() === "") return;
    let isCurrent = true;
    searchObjects(query).then(
      (objects) => isCurrent && setFound({ query, objects, fault: "" }),
      (error: unknown) =>
        isCurrent &&
        setFound({ query, objects: [], fault: error instanceof Error ? error.message : "it does not answer" }),
    );
    return () => {
      isCurrent = false;
    };
  }, [query, searchObjects]);
  const matches = own.filter((o) => query.trim() === "" || o.word.toLowerCase().includes(query.trim().toLowerCase()));
  const objects = query.trim() === "" ? [] : found.objects;
  const go = (to: string) => {
    onOpenChange(false);
    setQuery("");
    onGo(to);
  };
  const item = "flex cursor-pointer justify-between gap-4 rounded-[6px] px-3 py-1.5 data-[selected=true]:bg-raised";
  return (
    <Command.Dialog
      open={open}
      onOpenChange={onOpenChange}
      label="Search everywhere"
      shouldFilter={false}
      overlayClassName="fixed inset-0 z-40 bg-ground/70"
      contentClassName="fixed top-[12vh] left-1/2 z-50 w-[min(40rem,94vw)] -translate-x-1/2 rounded-[10px] border border-rule bg-sheet p-2"
    >
      <Command.Input
        value={query}
        onValueChange={setQuery}
        placeholder="An object, a project, a place: m81, veil, sh2-132 …"
        className="placeholder:text-faint w-full bg-transparent px-3 py-2 text-[1.0625rem] outline-none"
      />
      <Command.List className="border-rule [&_[cmdk-group-heading]]:text-note [&_[cmdk-group-heading]]:text-faint max-h-[55vh] overflow-y-auto border-t pt-1 [&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-2">
        <Command.Empty className="text-soft px-3 py-3">
          {found.query !== query
            ? "Looking through the catalogue …"
            : found.fault
              ? `The catalogue could not be loaded: ${found.fault}. Type on to ask again.`
              : "Nothing by that name. Planets and comets are not in the catalogue."}
        </Command.Empty>
        {matches.length > 0 ? (
          <Command.Group heading="Here">
            {matches.slice(0, 8).map((o) => (
              <Command.Item key={o.to} value={o.to} onSelect={() => go(o.to)} className={item}>
                <span>{o.word}</span>
                <span className="text-note text-faint">{o.kind}</span>
              </Command.Item>
            ))}
          </Command.Group>
        ) : null}
        {objects.length > 0 ? (
          <Command.Group heading="Catalogue">
            {objects.map((e) => (
              <Command.Item
                key={e.id}
                value={`object ${e.id}`}
                onSelect={() => go(`/targets/${encodeURIComponent(e.id)}`)}
                className={item}
              >
                <span>
                  {e.id}
                  {e.name ? <span className="text-soft"> · {e.name}</span> : null}
                </span>
                <span className="text-note text-faint">
                  {KIND_WORDS[e.kind]}, {e.constellation}
                </span>
              </Command.Item>
            ))}
          </Command.Group>
        ) : null}
      </Command.List>
    </Command.Dialog>
  );
}
