import { Why } from "./ui/Why";
import { HOUR_WORDS } from "./words/help";

/** The kinds of hour that a page tells of, each with its sentence behind it. */
export function HourWords({ of }: { readonly of: readonly (keyof typeof HOUR_WORDS)[] }) {
  return (
    <p className="text-note text-faint no-print mt-2">
      Hours:{" "}
      {of.map((word, i) => (
        <span key={word}>
          {i > 0 ? " · " : ""}
          <Why title={word} className="min-h-6">
            <p>{HOUR_WORDS[word]}</p>
          </Why>
        </span>
      ))}
    </p>
  );
}
