import { NavLink } from "react-router";

/** Pages of one station. */
export function StationTabs({ label, tabs }: { label: string; tabs: readonly { to: string; label: string }[] }) {
  return (
    <nav aria-label={label} className="no-print mb-4 flex flex-wrap gap-1">
      {tabs.map(({ to, label: name }) => (
        <NavLink key={to} to={to} end className="press aria-[current=page]:bg-glow-wash" data-kind="quiet">
          {name}
        </NavLink>
      ))}
    </nav>
  );
}
