import { debrief } from "#core/practice/debrief";
import { type Look, seenPanel } from "#core/models/panel-film/seen";
import { BenchTable } from "./bench-table";
import { JobTable } from "./job-table";
import type { FromBench, ToBench, ToJob } from "./bench-talk";

let table: BenchTable | null = null;
/** The panel once it has gone hard, and is worked on. */
let job: JobTable | null = null;
let look: Look | null = null;
let waiting: ReturnType<typeof setTimeout> | null = null;
/** A picture is under way: the next is made once it has gone. */
let drawing = false;
/** Something has changed since the picture under way was begun. */
let stale = false;

const say = (message: FromBench, give: Transferable[] = []) => self.postMessage(message, { transfer: give });
/** A picture has so many pixels at most: more is not seen on a tablet. */
const PIXELS = 180_000;
/** A wait runs so much faster than life, in turns of so long; between two turns it can be stopped. */
const PACE = 60;
const TURN_MS = 40;

const scaleOf = (cells: number) => Math.max(1, Math.min(4, Math.floor(Math.sqrt(PIXELS / cells))));

async function picture(of: BenchTable, how: Look): Promise<ImageBitmap> {
  const { film } = of.bench;
  const scale = scaleOf(film.columns * film.rows);
  const { rgba, width, height } = seenPanel(film, how, scale);
  job?.marksWork(rgba, how, scale);
  return createImageBitmap(new ImageData(rgba, width, height));
}
async function show(): Promise<void> {
  if (!table || !look) return;
  stale = drawing;
  if (drawing) return;
  drawing = true;
  const of = table;
  const bitmap = await picture(of, look);
  drawing = false;
  if (stale) void show();
  if (of !== table) return bitmap.close();
  say({ say: "seen", bitmap, used_m3: of.bench.film.sums.used_m3, slid_m: of.slid_m, touch: of.touch, here: of.here }, [bitmap]);
}

function stop(): void {
  if (waiting !== null) clearTimeout(waiting);
  waiting = null;
}
function wait(most_s: number): void {
  stop();
  let gone_s = 0;
  const turn = () => {
    if (!table) return;
    const began = performance.now();
    let turn_s = 0;
    const lay = table.lies;
    // No faster than its pace, and no longer at a time than a turn: a slow machine goes slower.
    while (turn_s < (PACE * TURN_MS) / 1000 && gone_s < most_s && table.lies === lay && performance.now() - began < TURN_MS) {
      const dt_s = Math.min(1, most_s - gone_s);
      table.waits(dt_s);
      turn_s += dt_s;
      gone_s += dt_s;
    }
    // Time rests as soon as something has fallen in: nobody could lift it out in a second.
    const rests = gone_s >= most_s - 1e-9 || table.lies !== lay;
    say({ say: "waited", seconds: gone_s, rests, lies: table.lies });
    void show();
    waiting = rests ? null : setTimeout(turn, Math.max(0, TURN_MS - (performance.now() - began)));
  };
  turn();
}

async function judge({ said, floor_m, look: shown }: Extract<ToJob, { say: "judge" }>): Promise<void> {
  if (!table || !job) return;
  const coats = table.asSprayed();
  const told = debrief(table.setting, coats, (share) => say({ say: "working", share }));
  const { judged, films } = job.handsOver(said, { told, floor_m });
  const drawn = films.map(({ film }) => {
    const { rgba, width, height } = seenPanel(film, shown, scaleOf(film.columns * film.rows));
    return createImageBitmap(new ImageData(rgba, width, height));
  });
  const [film, belief = null] = await Promise.all(drawn);
  say({ say: "judged", judged, debrief: told, coats, film: film!, belief }, belief ? [film!, belief] : [film!]);
}

async function tell(shown: Look): Promise<void> {
  if (!table) return;
  const of = table;
  const coats = of.asSprayed();
  const told = debrief(of.setting, coats, (share) => say({ say: "working", share: 0.8 * share }));
  of.settles();
  const film = await picture(of, shown);
  say({ say: "debriefed", debrief: told, coats, fibres: of.fell, film }, [film]);
}

function heard(message: ToBench): void {
  switch (message.say) {
    case "take":
      stop();
      job = null;
      table = new BenchTable(message.setting, {
        laid: message.laid,
        sprayed: message.coats,
        goesOn: message.goesOn,
        unseen: message.unseen,
      });
      look = message.look;
      say({ say: "ready" });
      void show();
      return;
    case "look":
      look = message.look;
      void show();
      return;
    case "coat":
      stop();
      table?.coat(message.coat);
      return;
    case "hand":
      table?.moments(message.moments);
      if (message.picture) void show();
      return;
    case "on":
      table?.on();
      void show();
      return;
    case "wait":
      table?.mayFall(message.seed);
      wait(message.most_s);
      return;
    case "lift":
      say({ say: "lifted", told: table?.lifts() ?? null });
      return;
    case "stop":
      stop();
      return;
    case "debrief":
      stop();
      void tell(message.look).catch(failed);
      return;
    default:
      askJob(message);
  }
}
function askJob(message: ToJob): void {
  if (!table) return;
  switch (message.say) {
    case "harden":
      stop();
      job = new JobTable(table, message.seed);
      say({ say: "hard", nibs: job.nibs });
      void show();
      return;
    case "read":
      say({ say: "reading", at: message.at, film_m: job?.reads(message.at) ?? null });
      return;
    case "sand":
      if (!job) return;
      job.sands(message.tool, message.at, message.seconds);
      say({ say: "sanded", nibs: job.nibs, seconds: message.seconds });
      void show();
      return;
    case "judge":
      void judge(message).catch(failed);
  }
}
const failed = (error: unknown) => say({ say: "failed", message: error instanceof Error ? error.message : String(error) });

self.addEventListener("message", ({ data }: MessageEvent<ToBench>) => {
  try {
    heard(data);
  } catch (error) {
    failed(error);
  }
});
