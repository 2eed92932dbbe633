import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import { useSay } from "../ui/Toasts";
import { Button } from "../ui/Button";

/** What is typed and not saved yet. */
export interface KeptDraft {
  /** What it is of, in words that fit after "Not saved yet:". */
  readonly title: string;
  readonly value: unknown;
}

/** Where what is typed and not saved yet is written down; the shell provides one that outlives the tab. */
export interface DraftShelf {
  readonly get: (name: string) => unknown;
  readonly put: (name: string, draft: KeptDraft) => void;
  readonly drop: (name: string) => void;
}

const NOWHERE: DraftShelf = { get: () => null, put: () => undefined, drop: () => undefined };
const ShelfContext = createContext<DraftShelf>(NOWHERE);

/** Provides the shelf for drafts. */
export const DraftShelfProvider = ShelfContext.Provider;

/** What a stored draft holds; null when it is none. */
export function readDraft(raw: unknown): KeptDraft | null {
  const { title, value } = (typeof raw === "object" && raw !== null ? raw : {}) as Partial<KeptDraft>;
  return typeof title === "string" ? { title, value } : null;
}

/** Drafts that are on the page now: one that is only drawn anew is not left. */
const onPage = new Map<string, number>();

/** Whether the boxes of a draft are on the page now. */
export const isOnPage = (name: string): boolean => (onPage.get(name) ?? 0) > 0;

/** Says, when somebody leaves a page, that what was typed there is kept and not saved. */
function useSaidWhenLeft(name: string, title: string) {
  const shelf = useContext(ShelfContext);
  const say = useSay();
  useEffect(() => {
    onPage.set(name, (onPage.get(name) ?? 0) + 1);
    return () => {
      onPage.set(name, (onPage.get(name) ?? 1) - 1);
      setTimeout(() => {
        if (!isOnPage(name) && readDraft(shelf.get(name))) say(`Not saved yet: ${title}. It stays as you left it.`);
      }, 400);
    };
  }, [name, title, shelf, say]);
}

/** What a form starts from: what was typed before and not saved, box by box, or what is kept. */
export interface FormStart {
  readonly text: (name: string, kept: string) => string;
  readonly texts: (name: string, kept: readonly string[]) => readonly string[];
}

interface Drafted extends FormStart {
  readonly name: string;
  readonly title: string;
  readonly isRestored: boolean;
  readonly discard: () => void;
}

const KEPT: Drafted = {
  name: "",
  title: "",
  isRestored: false,
  text: (_, kept) => kept,
  texts: (_, kept) => kept,
  discard: () => undefined,
};
const DraftedContext = createContext<Drafted>(KEPT);

/** What the form this is asked in starts from. */
export const useFormStart = (): FormStart => useContext(DraftedContext);

type Fields = Readonly<Record<string, readonly string[]>>;

const MARK = "draft";

function fieldsOf(form: HTMLFormElement): Fields {
  const fields: Record<string, string[]> = {};
  for (const element of form.elements) {
    const { name } = element as HTMLInputElement;
    // A box that is not ticked sends nothing; that it was there is part of the draft.
    if (name !== "" && name !== MARK && !element.matches("[type=file]")) fields[name] ??= [];
  }
  for (const [name, value] of new FormData(form)) if (typeof value === "string") fields[name]?.push(value);
  return fields;
}

function readFields(raw: unknown): Fields | null {
  const value = readDraft(raw)?.value;
  if (typeof value !== "object" || value === null) return null;
  const entries = Object.entries(value);
  return entries.every(([, v]) => Array.isArray(v) && v.every((t) => typeof t === "string"))
    ? Object.fromEntries(entries)
    : null;
}

/**
 * Round a form: what is typed into it is written down at once and is there again when it is opened the next time, whatever
 * became of the page. The form asks `useFormStart` what its boxes begin with, and holds a `DraftMark`; its action takes the
 * draft away once it is saved.
 */
export function WithDraft({
  name,
  title,
  rev,
  children,
}: {
  readonly name: string;
  readonly title: string;
  /** The version that is kept: the form follows a new one, unless something is typed. */
  readonly rev: string;
  readonly children: ReactNode;
}) {
  const shelf = useContext(ShelfContext);
  const [round, setRound] = useState(0);
  const [shown, setShown] = useState(rev);
  const again = useCallback(() => setRound((r) => r + 1), []);
  if (shown !== rev && readDraft(shelf.get(name)) === null) setShown(rev);
  return (
    <DraftRound key={`${name} ${shown} ${round}`} name={name} title={title} onAgain={again}>
      {children}
    </DraftRound>
  );
}

function DraftRound({
  name,
  title,
  onAgain,
  children,
}: {
  readonly name: string;
  readonly title: string;
  readonly onAgain: () => void;
  readonly children: ReactNode;
}) {
  const shelf = useContext(ShelfContext);
  const [kept] = useState(() => readFields(shelf.get(name)));
  const discard = useCallback(() => {
    shelf.drop(name);
    onAgain();
  }, [shelf, name, onAgain]);
  const drafted = useMemo<Drafted>(
    () => ({
      name,
      title,
      isRestored: kept !== null,
      text: (field, now) => kept?.[field]?.[0] ?? now,
      texts: (field, now) => kept?.[field] ?? now,
      discard,
    }),
    [name, title, kept, discard],
  );
  useSaidWhenLeft(name, title);
  return <DraftedContext value={drafted}>{children}</DraftedContext>;
}

/** Stands in a form within `WithDraft`: follows what is typed, and says when that is from before and how to be rid of it. */
export function DraftMark() {
  const shelf = useContext(ShelfContext);
  const { name, title, isRestored, discard } = useContext(DraftedContext);
  const mark = useRef<HTMLInputElement>(null);
  const start = useRef<string | null>(null);
  const isTouched = useRef(isRestored);
  /** Sent, and not typed into since: its action has the word on the draft, and what is drawn meanwhile is not typed. */
  const isSent = useRef(false);
  const follow = useCallback(() => {
    const form = mark.current?.form;
    if (!form || name === "" || !isTouched.current || isSent.current) return;
    const fields = fieldsOf(form);
    if (JSON.stringify(fields) === start.current) shelf.drop(name);
    else shelf.put(name, { title, value: fields });
  }, [name, title, shelf]);
  useEffect(() => {
    const form = mark.current?.form;
    if (!form) return;
    if (!isRestored) start.current = JSON.stringify(fieldsOf(form));
    const touch = () => {
      isTouched.current = true;
      isSent.current = false;
      follow();
    };
    const send = () => {
      isSent.current = true;
    };
    form.addEventListener("input", touch);
    form.addEventListener("change", touch);
    form.addEventListener("submit", send);
    return () => {
      form.removeEventListener("input", touch);
      form.removeEventListener("change", touch);
      form.removeEventListener("submit", send);
    };
  }, [isRestored, follow]);
  useEffect(follow); // boxes that follow others have their values once the form is drawn anew
  return (
    <>
      <input ref={mark} type="hidden" name={MARK} value={name} />
      {isRestored ? <RestoredNote onDiscard={discard} /> : null}
    </>
  );
}

/**
 * For what is chosen by a press and typed into no box: a hidden one that carries it, and how to say that it changed, so that the
 * draft is written down as for anything typed.
 */
export function useChosenBox() {
  const box = useRef<HTMLInputElement>(null);
  const changed = useCallback(() => {
    // Once the form is drawn with it.
    requestAnimationFrame(() => box.current?.dispatchEvent(new Event("input", { bubbles: true })));
  }, []);
  return [box, changed] as const;
}

/** Says that what is in the boxes was typed before and is not saved. */
export function RestoredNote({ onDiscard }: { readonly onDiscard: () => void }) {
  return (
    <p role="status" className="text-note text-lamp col-span-full flex flex-wrap items-center gap-2">
      Not saved yet: this is what you typed here before.
      <Button look="plain" className="min-h-0 py-0" onClick={onDiscard}>
        Discard it
      </Button>
    </p>
  );
}

/**
 * A value that a screen holds itself until it is saved, written down at once like the boxes of a form. `read` makes sure that
 * what was written down is still such a value; null = it is not.
 */
export function useDraftState<T>(
  { name, title }: { readonly name: string; readonly title: string },
  kept: T,
  read: (raw: unknown) => T | null,
  isSame: (a: T, b: T) => boolean = (a, b) => JSON.stringify(a) === JSON.stringify(b),
) {
  const shelf = useContext(ShelfContext);
  const [typed, setTyped] = useState<{ readonly value: T; readonly isRestored: boolean } | null>(() => {
    const value = read(readDraft(shelf.get(name))?.value);
    return value === null ? null : { value, isRestored: true };
  });
  // Once it is what is kept, because it was saved or typed back, what is kept is followed again.
  if (typed !== null && isSame(typed.value, kept)) setTyped(null);
  const set = (value: T) => {
    if (isSame(value, kept)) {
      shelf.drop(name);
      setTyped(null);
    } else {
      shelf.put(name, { title, value });
      setTyped({ value, isRestored: typed?.isRestored ?? false });
    }
  };
  /** Takes what was typed away: it is not wanted, or was taken elsewhere. */
  const discard = () => {
    shelf.drop(name);
    setTyped(null);
  };
  useSaidWhenLeft(name, title);
  return { value: typed ? typed.value : kept, set, discard, isRestored: typed?.isRestored ?? false };
}

/** Reads a draft that is one text. */
export const textDraft = (raw: unknown): string | null => (typeof raw === "string" ? raw : null);
