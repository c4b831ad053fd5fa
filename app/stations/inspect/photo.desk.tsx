import { InProgress } from "~/kit/ui/in-progress";
import { useDraft, type Widened, type Draft } from "~/kit/draft/use-draft";
import { useEffect, useState } from "react";
import { useFetcher, type FetcherWithComponents } from "react-router";
import { type Point, isInside } from "#core/kernel/geometry/geometry";
import { show } from "#core/kernel/units/format";
import { parseQuantity, type Parsed } from "#core/kernel/units/parse";
import type { NibCountState } from "./use-nib-count";
import type { FormAnswer } from "~/kit/form/answer";
import { ChoosePicture } from "~/kit/photo/choose-picture";
import { initial } from "~/kit/form/initial";
import { useUnits } from "~/kit/root/use-root";
import { usePanel } from "~/kit/panel/use-panel";
import { StandIn } from "~/kit/shell/stand-in";
import { Field, FieldErrors } from "~/kit/ui/field";
import { Tag } from "~/kit/ui/tag";
import { PanelDrawing } from "~/kit/panel/panel-drawing";
import { traceText } from "./use-trace";
import { NibPictureView } from "./nib-picture-view";
import { type NibMark, type NibPicture, useNibCount } from "./use-nib-count";
import { inUnits } from "#core/kernel/units/in-units";
import type { PictureSource } from "~/stations/inspect/picture";

const USUAL_WIDTH_M = 0.3;

/** Nibs of a picture taken straight on, top up, as places on the panel about the picture's middle. */
function placesOnPanel(marks: readonly NibMark[], { width, height }: NibPicture, width_m: number, [x, y]: Point): Point[] {
  const scale = width_m / width;
  const mm = (m: number) => Math.round(m * 1000) / 1000;
  return marks.map((m): Point => [mm(x + (m.x - width / 2) * scale), mm(y + (m.y - height / 2) * scale)]);
}

/** Nibs counted in a photograph: the program marks, the painter strikes and adds, the count is the painter's. */
export function NibCountDesk() {
  const { view } = usePanel();
  const units = useUnits();
  const fetcher = useFetcher<FormAnswer>();
  const { state, take, count, change, progress, cancel, clear } = useNibCount();
  const draft = useDraft("nibs", { width: initial("length", USUAL_WIDTH_M, units) }, { width: "length" });
  const { width } = draft.typed;
  const seen = parseQuantity("length", width, units.length);
  const own_m = "picture" in state ? state.picture.width_m : null;
  const width_m = own_m ?? (seen.ok && seen.si >= 0.02 && seen.si <= 3 ? seen.si : null);
  const kept = state.at === "counted" ? state.marks.filter((m) => !m.struck) : [];
  const stored = fetcher.data?.ok ? fetcher.data : null;
  useEffect(() => {
    if (stored) clear();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only a new answer clears the picture
  }, [stored]);
  const { shape } = view.panel;
  const [middle, setMiddle] = useState<Point>(() => view.spotPlan[0]?.at ?? [0, 0]);
  const places = state.at === "counted" && width_m !== null ? placesOnPanel(kept, state.picture, width_m, middle) : [];
  const off = places.filter((p) => !isInside(p, shape.outline)).length;
  const store = () => {
    if (state.at !== "counted") return;
    const form = new FormData();
    form.set("count", String(kept.length));
    // A mark set by hand has no size: none is made up for it.
    const sizes = kept.flatMap((m) => (m.diameter_m ? [m.diameter_m] : []));
    form.set("largest_m", sizes.length > 0 ? String(Math.max(...sizes)) : "");
    form.set("x_m", String(middle[0]));
    form.set("y_m", String(middle[1]));
    form.set("trace", traceText({ as: "points", points: places }));
    form.set("simulated", state.picture.simulated ? "yes" : "no");
    form.set("formKey", `${view.formKey}-nibs`);
    form.set("photos", state.picture.original ?? new File([state.picture.blob], "panel.jpg", { type: state.picture.blob.type }));
    void fetcher.submit(form, { method: "post", encType: "multipart/form-data" });
  };
  return (
    <>
      <Heading {...{ state, kept }} />
      <div className="mt-4 grid gap-x-8 gap-y-5 md:grid-cols-[1.6fr_1fr]">
        <Shown {...{ state, change }} />
        <div className="space-y-4">
          <Choose {...{ take }} />
          {"picture" in state && <Counted {...{ state, own_m, draft, width_m, seen }} />}
          {state.at === "looking" ? (
            <Looking {...{ progress, cancel }} />
          ) : (
            "picture" in state &&
            state.at !== "counted" && (
              <button
                type="button"
                className="press"
                data-kind="main"
                disabled={width_m === null}
                onClick={() => width_m !== null && void count(state.picture, width_m)}
              >
                Count the nibs
              </button>
            )
          )}
          {state.at === "refused" && (
            <p role="alert" className="font-medium text-stop-ink">
              {state.reason}.
            </p>
          )}
          {state.at === "counted" && <Place {...{ setMiddle, middle, places, off, state, kept, fetcher, store }} />}
          <p className="text-[13px] text-ink2">
            The light must be diffuse: in a grid of tubes most nibs are lost, and such a picture is refused. Where the picture was taken is
            stripped from it. The search was tested on made-up pictures only.
          </p>
        </div>
      </div>
    </>
  );
}

/** What was found, in a sentence. */
function Heading({ state, kept }: { state: NibCountState; kept: NibMark[] }) {
  return (
    <h2
      className="min-h-[1.12em] max-w-[26em] text-[25px] leading-[1.12] sm:text-[31px] font-semibold tracking-tight"
      data-testid="nib-sentence"
      aria-live="polite"
    >
      {state.at === "counted"
        ? `${kept.length} ${kept.length === 1 ? "nib" : "nibs"} marked. Strike what is none, tap what was missed.`
        : state.at === "looking"
          ? "Looking for nibs."
          : state.at === "refused"
            ? "This picture cannot be counted in."
            : "Photograph the panel in even, diffuse light, straight on."}
    </h2>
  );
}

/** The picture with its marks. */
function Shown({ state, change }: { state: NibCountState; change: (marks: (list: NibMark[]) => NibMark[]) => void }) {
  return (
    <div>
      {state.at === "none" ? (
        <div className="grid min-h-[260px] place-content-center rounded-press border border-dashed border-edge p-6 text-center text-ink2">
          {state.reason ? (
            <p role="alert" className="font-medium text-stop-ink">
              {state.reason}.
            </p>
          ) : (
            "No picture yet."
          )}
        </div>
      ) : (
        <NibPictureView
          picture={state.picture}
          marks={state.at === "counted" ? state.marks : []}
          {...(state.at === "counted" ? { onChange: change } : {})}
        />
      )}
    </div>
  );
}

/** What the picture is, and how wide. */
function Counted({
  state,
  own_m,
  draft,
  width_m,
  seen,
}: {
  state: Extract<NibCountState, { picture: NibPicture }>;
  own_m: number | null;
  draft: Draft<Widened<{ width: string }>>;
  width_m: number | null;
  seen: Parsed;
}) {
  const units = useUnits();
  const { width } = draft.typed;
  return (
    <>
      {state.picture.simulated && <Tag kind="simulated">simulated picture</Tag>}
      {own_m !== null ? (
        <p className="text-ink2">
          The camera sees {show("length", own_m, units).text} {units.length} of panel.
        </p>
      ) : (
        <Field
          label="Width of panel in the picture"
          unit={units.length}
          value={width}
          onChange={draft.field("width").onChange}
          hint="lay a coin or tape of known length beside it"
          errors={width_m === null ? [seen.ok ? inUnits("Between 20 mm and 3 m", units) : seen.message] : undefined}
        />
      )}
    </>
  );
}

/** Asked while the camera is held, and not before. */
const judge = () => import("#core/models/photo/nibs").then((m) => m.lightRefused);

/** A picture from the camera, the disk or the stand-in. */
function Choose({ take }: { take: (source: PictureSource) => Promise<void> }) {
  const { view } = usePanel();
  return (
    <div className="flex flex-wrap gap-2">
      <ChoosePicture judge={judge} onTake={(file) => void take({ file })} />
      <StandIn>
        <button type="button" className="press" onClick={() => void take({ standIn: `/do/panels/${view.panel.id}/stand-in-photo.png` })}>
          Use the stand-in camera
        </button>
      </StandIn>
    </div>
  );
}

/** How far the count is. */
function Looking({ progress, cancel }: { progress: number; cancel: () => void }) {
  return (
    <div className="flex items-center gap-3">
      <InProgress share={progress} label="Looking for nibs" onStop={cancel} />
    </div>
  );
}

/** Where the picture was taken, and what is kept of it. */
function Place({
  setMiddle,
  middle,
  places,
  off,
  state,
  kept,
  fetcher,
  store,
}: {
  setMiddle: React.Dispatch<React.SetStateAction<Point>>;
  middle: Point;
  places: Point[];
  off: number;
  state: { at: "counted"; picture: NibPicture; marks: NibMark[]; smallest_m: number };
  kept: NibMark[];
  fetcher: FetcherWithComponents<FormAnswer>;
  store: () => void;
}) {
  const { view } = usePanel();
  const units = useUnits();
  const { shape } = view.panel;
  return (
    <>
      <p className="font-medium">Where was it taken? Tap the middle of the picture on the panel.</p>
      <PanelDrawing
        shape={shape}
        label={`${view.panel.name}: where the picture was taken`}
        onPlace={setMiddle}
        placed={middle}
        drawing={{ as: "points", at: places }}
      />
      {off > 0 && (
        <p role="alert" className="font-medium text-stop-ink">
          {off} of the nibs would lie off the panel: move the picture.
        </p>
      )}
      <p className="text-ink2">
        Spots of {show("length", state.smallest_m, units, units.length === "mm" ? 1 : 3).text} {units.length} and more are told by size;
        smaller ones are marked “at most”. Check against your eye.
      </p>
      <button
        type="button"
        className="press"
        data-kind="main"
        disabled={kept.length === 0 || off > 0 || fetcher.state !== "idle"}
        onClick={store}
      >
        {`Keep ${kept.length} ${kept.length === 1 ? "nib" : "nibs"}`}
      </button>
      <FieldErrors
        errors={fetcher.data?.ok === false ? [fetcher.data.message ?? Object.values(fetcher.data.errors).flat().join(" ")] : undefined}
      />
    </>
  );
}
