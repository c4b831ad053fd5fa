import { useMemo } from "react";
import type { PathSet } from "#core/coat/path-ahead";
import type { PathView } from "#core/coat/path-view";
import { placeInWords } from "#core/kernel/geometry/place-in-words";
import { show, showFilm, showSpan } from "#core/kernel/units/format";
import { chanceWord } from "#core/models/flow/run-chance";
import { stepsOf } from "~/kit/panel/bands";
import { RampScale } from "~/kit/panel/ramp";
import { usePanel } from "~/kit/panel/use-panel";
import { useUnits } from "~/kit/root/use-root";
import { Figure } from "~/kit/ui/figure";
import { Tag } from "~/kit/ui/tag";
import { Toggle } from "~/kit/ui/toggle";
import { CHANCE_OF } from "~/kit/words/flow-words";
import { PathDrawing } from "./path-drawing";
import { pathWorking } from "./path.words";

const COLOUR_STEPS = 7;
const FILM_UNIT_M = 1e-6;

/** The film with the rows of one coat over it. */
export function PathPicture({
  path,
  set,
  shown,
  take,
  setCoat,
}: {
  path: PathView;
  set: PathSet;
  shown: number;
  take: (set: PathSet) => void;
  setCoat: (coat: number) => void;
}) {
  const { view } = usePanel();
  const units = useUnits();
  const { shape } = view.panel;
  const steps = useMemo(() => stepsOf(path.least.film_m, path.most.film_m, FILM_UNIT_M, COLOUR_STEPS), [path]);
  const length = (m: number) => `${show("length", m, units).text} ${units.length}`;
  return (
    <>
      <PathDrawing
        shape={shape}
        view={path}
        steps={steps}
        coat={shown}
        set={set}
        onSet={take}
        length={length}
        label={`Film of this path over the ${view.panel.name.toLowerCase()}, with the rows of coat ${shown}.`}
      />
      <RampScale layer="clear" steps={steps} text={(v) => showFilm(v, units).text} unit={units.film} />
      {path.coats.length > 1 && (
        <div className="mt-2">
          <Toggle
            label="Rows of"
            value={String(shown)}
            onChange={(v) => setCoat(Number(v))}
            options={path.coats.map((c) => ({ value: String(c.number), name: `Coat ${c.number}` }))}
          />
        </div>
      )}
      <Figures path={path} />
    </>
  );
}

/** What it takes and what may go wrong. */
function Figures({ path }: { path: PathView }) {
  const { view } = usePanel();
  const units = useUnits();
  const working = pathWorking(path, units);
  const word = chanceWord(path.run.chance);
  const run = CHANCE_OF.run[word];
  const rows = path.coats.reduce((n, c) => n + c.passes.length, 0);
  return (
    <div className="mt-4 grid grid-cols-2 gap-4 sm:grid-cols-4" data-testid="path-figures">
      <Figure
        label="Through the gun"
        shown={show("volume", path.volume_m3, units)}
        working={working}
        size="middle"
        note={`${Math.round(100 * path.landedShare)} % of it lands`}
      />
      <Figure
        label="Rows and turns"
        shown={{ text: showSpan(path.time_s), unit: "min" }}
        working={working}
        size="middle"
        note={`${rows} rows`}
      />
      <Figure
        label="Even within"
        shown={{ text: `${Math.round(100 * path.cv)}`, unit: "%" }}
        working={working}
        size="middle"
        note="of its own mean"
      />
      <div>
        <p className="small-label">A run</p>
        <p className="my-1">
          <Tag kind={word === "unlikely" ? "good" : word === "may" ? "caution" : "stop"}>
            {run.big} {run.small}
          </Tag>
        </p>
        <p className="text-[13px] text-ink2">likeliest {placeInWords([path.run.x_m, path.run.y_m], view.panel.shape)}</p>
      </div>
      {path.laid > 0 && (
        <p className="col-span-full text-ink2">The {path.laid === 1 ? "coat that is" : "coats that are"} on and wet stand in it.</p>
      )}
      {path.placesOnly > 0 && <p className="col-span-full text-ink2">Coats that go over a place only are not in it.</p>}
    </div>
  );
}
