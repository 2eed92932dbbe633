import clsx from "clsx";
import { NavLink } from "react-router";

/** Pages that belong together, as links above them. */
export function TabLinks({
  tabs,
  search,
  label,
}: {
  readonly tabs: readonly { readonly to: string; readonly word: string; readonly isExact?: boolean }[];
  readonly search: string;
  readonly label: string;
}) {
  return (
    <nav aria-label={label} className="no-print border-rule mb-4 flex gap-5 overflow-x-auto border-b">
      {tabs.map((t) => (
        <NavLink
          key={t.to}
          to={{ pathname: t.to, search }}
          end={t.isExact ?? false}
          className={({ isActive }) =>
            clsx(
              "-mb-px border-b-2 px-0.5 py-2 whitespace-nowrap",
              isActive ? "border-lamp text-ink" : "text-soft hover:text-ink border-transparent",
            )
          }
        >
          {t.word}
        </NavLink>
      ))}
    </nav>
  );
}
