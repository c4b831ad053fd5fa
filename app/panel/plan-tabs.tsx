import { NavLink } from "react-router";

/** Pages of the Plan station: the brief, the mix, the gloss. */
export function PlanTabs({ base }: { base: string }) {
  return (
    <nav aria-label="Plan" className="mb-4 flex flex-wrap gap-1">
      {[
        { to: `${base}/plan`, label: "Coats" },
        { to: `${base}/plan/mix`, label: "Mix" },
        { to: `${base}/plan/gloss`, label: "Gloss" },
      ].map(({ to, label }) => (
        <NavLink key={to} to={to} end className="press aria-[current=page]:bg-glow-wash" data-kind="quiet">
          {label}
        </NavLink>
      ))}
    </nav>
  );
}
