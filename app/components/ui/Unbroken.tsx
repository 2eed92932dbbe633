/** A line that never breaks within a designation: "Sh2-216" stays whole. */
export function Unbroken({ text }: { readonly text: string }) {
  return text.split(/(\S*\w-\d\S*)/).map((part, i) =>
    i % 2 === 1 ? (
      <span key={i} className="whitespace-nowrap">
        {part}
      </span>
    ) : (
      part
    ),
  );
}
