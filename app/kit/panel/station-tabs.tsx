import { NavLink } from "react-router";

/** Pages of one station. */
export function StationTabs({ label, tabs }: { label: string; tabs: readonly { to: string; label: string }[] }) {
  return (
    <nav aria-label={label} className="no-print mb-2 flex gap-1 overflow-x-auto sm:mb-4 sm:flex-wrap">
      {tabs.map(({ to, label: name }) => (
        <NavLink
          key={to}
          to={to}
          end
          className="press shrink-0 whitespace-nowrap aria-[current=page]:bg-glow-wash max-sm:!px-3"
          data-kind="quiet"
        >
          {name}
        </NavLink>
      ))}
    </nav>
  );
}
