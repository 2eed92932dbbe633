import { termOf } from "~/components/words/terms";

/** What a word means, as the glossary says it. */
export function TermSays({ word }: { readonly word: string }) {
  const term = termOf(word);
  return (
    <p>
      <b>{term.word}</b>: {term.says}
    </p>
  );
}
