/** What is being worked out, over the room that it is about to take, so that nothing jumps when it comes. */
export function Waiting({ words, heightPx }: { readonly words: string; readonly heightPx: number }) {
  return (
    <div className="mt-3">
      <p className="text-soft" role="status">
        {words}
      </p>
      <div aria-hidden="true" className="bg-raised mt-2 rounded-[8px]" style={{ height: heightPx }} />
    </div>
  );
}
