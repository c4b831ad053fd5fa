import { Check, Circle, CircleDot } from "lucide-react";
import { Link, useFetcher } from "react-router";
import { KeptForm } from "~/kit/draft/draft-form";
import { LookPress } from "~/kit/first/look-press";
import { UsualClears } from "~/kit/first/usual-clears";
import type { FormAnswer } from "~/kit/form/answer";
import { initial } from "~/kit/form/initial";
import { useUnits } from "~/kit/root/use-root";
import { Field, FieldErrors, SelectField } from "~/kit/ui/field";

export interface First {
  /** The shop has said who it is. */
  named: boolean;
  shop: { name: string; wayId: string; floor_m: number };
  ways: readonly { id: string; name: string }[];
  /** A clear stands on the shelf. */
  clear: boolean;
}

/** An empty shop is led to its first panel: each step may be left out and come back to; what is done is ticked by what is stored. */
export function FirstHour({ first }: { first: First }) {
  const now = !first.named ? 0 : !first.clear ? 1 : 2;
  const step = (i: number, title: string, children: React.ReactNode) => {
    const done = i === 0 ? first.named : i === 1 ? first.clear : false;
    const Icon = done ? Check : i === now ? CircleDot : Circle;
    return (
      <li className="grid grid-cols-[28px_1fr] gap-x-2 border-b border-hair py-3" data-step={i} data-done={done}>
        <Icon size={20} aria-hidden className={done ? "mt-0.5 text-glow-ink" : "mt-0.5"} />
        <div className="space-y-2">
          <h3 className="text-[17px] font-semibold">
            {title}
            {done && <span className="sr-only">, done</span>}
          </h3>
          {!done && children}
        </div>
      </li>
    );
  };
  return (
    <ol className="mt-3 border-t border-hair" aria-label="First hour" data-testid="first-hour">
      {step(0, "Your shop", <ShopForm first={first} />)}
      {step(1, "A first clear", <UsualClears asked="floor" />)}
      {step(
        2,
        "A first panel",
        <div className="flex flex-wrap gap-2">
          <Link to="/jobs/new" className="press" {...(now === 2 ? { "data-kind": "main" } : {})}>
            Start a job
          </Link>
          <Link to="/ask/sand" className="press">
            Only ask: may I sand this?
          </Link>
        </div>,
      )}
      <li className="flex flex-wrap items-center gap-3 py-3">
        <LookPress intent="look" busy="Setting it up…">
          Look at a demo shop first
        </LookPress>
        <span className="text-ink2">invented, thrown away by one press; takes some seconds</span>
      </li>
    </ol>
  );
}

const COUNTRIES = {
  british: "metric, British words, A4",
  american: "mils and °F, American words, Letter",
} as const;

function ShopForm({ first: { shop, ways } }: { first: First }) {
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const errors = fetcher.data?.ok === false ? fetcher.data.errors : {};
  return (
    <KeptForm fetcher={fetcher} place="first shop" className="grid gap-3 sm:grid-cols-2">
      <input type="hidden" name="intent" value="firstShop" />
      <Field label="Name of the shop" name="name" defaultValue="" placeholder={shop.name} errors={errors.name} />
      <SelectField label="Figures and words" name="region" defaultValue="british" errors={errors.region}>
        {Object.entries(COUNTRIES).map(([id, name]) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </SelectField>
      <Field
        label="Clear that has to stay"
        unit={units.film}
        name="floor"
        defaultValue={initial("film", shop.floor_m, units)}
        errors={errors.floor}
      />
      <SelectField label="Coats are laid by" name="wayId" defaultValue={shop.wayId} errors={errors.wayId}>
        {ways.map((w) => (
          <option key={w.id} value={w.id}>
            {w.name}
          </option>
        ))}
      </SelectField>
      <button className="press sm:w-fit" data-kind="main" disabled={fetcher.state !== "idle"}>
        Keep it
      </button>
      <FieldErrors errors={fetcher.data?.ok === false && fetcher.data.message ? [fetcher.data.message] : undefined} />
    </KeptForm>
  );
}
