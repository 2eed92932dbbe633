import { Flame, Lamp, Sun } from "lucide-react";

const THEMES = [
  { id: "day", word: "Day", Icon: Sun },
  { id: "dusk", word: "Dusk", Icon: Lamp },
  { id: "ember", word: "Ember", Icon: Flame },
] as const;

function choose(theme: string): void {
  document.documentElement.dataset["theme"] = theme;
  document.cookie = `theme=${theme}; path=/; max-age=31536000; samesite=lax`;
}

/** Day for planning, Dusk for the evening, Ember (red only) for the field. Kept in a cookie, so that no page flashes. */
export function ThemeChoice({ isInRow = false }: { readonly isInRow?: boolean }) {
  return (
    <div role="group" aria-label="Theme" className={isInRow ? "flex gap-2" : "flex sm:flex-col"}>
      {THEMES.map(({ id, word, Icon }) => (
        <button
          key={id}
          type="button"
          title={`${word} theme`}
          aria-label={`${word} theme`}
          onClick={() => choose(id)}
          className="text-faint hover:text-ink rounded-[8px] p-1.5"
        >
          <Icon size={16} strokeWidth={1.6} aria-hidden="true" />
        </button>
      ))}
    </div>
  );
}
