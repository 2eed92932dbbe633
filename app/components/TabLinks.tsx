import clsx from "clsx";
import { NavLink, useLocation } from "react-router";

/** Pages that belong together, as links above them. `also` is where pages of a tab lie that its own address does not begin. */
export function TabLinks({
  tabs,
  search,
  label,
}: {
  readonly tabs: readonly { readonly to: string; readonly word: string; readonly also?: string }[];
  readonly search: string;
  readonly label: string;
}) {
  const { pathname } = useLocation();
  return (
    <nav aria-label={label} className="no-print border-rule mb-4 flex gap-5 overflow-x-auto border-b">
      {tabs.map((t) => (
        <NavLink
          key={t.to}
          to={{ pathname: t.to, search }}
          end={t.also !== undefined}
          className={({ isActive }) =>
            clsx(
              "-mb-px border-b-2 px-0.5 py-2 whitespace-nowrap",
              isActive || (t.also !== undefined && pathname.startsWith(t.also))
                ? "border-lamp text-ink"
                : "text-soft hover:text-ink border-transparent",
            )
          }
        >
          {t.word}
        </NavLink>
      ))}
    </nav>
  );
}
