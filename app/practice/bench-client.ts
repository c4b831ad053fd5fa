import type { BenchCoat, BenchSetting } from "#core/practice/bench-setting";
import type { Debrief } from "#core/practice/debrief";
import { type BenchGun, type CoatOfHand, benchGun } from "#core/practice/hand";
import type { RowMade } from "#core/practice/rows-made";
import type { JobSaid } from "#core/practice/job/judged";
import type { Look } from "#core/models/panel-film/seen";
import type { Fibre } from "#core/practice/fibre";
import type { BenchSeen, FibreTold, FromBench, ToBench } from "#workers/bench-talk";
import { anySeed } from "./any-seed";
import { type GunAt, HandLog, type HandNow } from "./hand-log";
import { JobClient } from "./job-client";
import { SmallStore } from "./small-store";

export type BenchPhase = "taking" | "ready" | "spraying" | "waiting" | "hardening" | "judging" | "working" | "told";

export interface BenchState {
  phase: BenchPhase;
  /** Number of the coat that is sprayed or comes next, from 1. */
  coat: number;
  /** Of the coat being sprayed: its time, rows so far, and how the hand goes now. */
  t_s: number;
  rows: readonly RowMade[];
  now: HandNow;
  seen: Omit<BenchSeen, "bitmap">;
  waited_s: number;
  /** A fibre that lies on the newest coat, and how it was where one was lifted out of it. */
  lies: Fibre | null;
  lifted: FibreTold | null;
  /** Share of the debrief that is worked out. */
  share: number;
  debrief: Debrief | null;
  coats: readonly CoatOfHand[];
  /** What fell on them. */
  fibres: readonly FibreTold[];
  fault: string | null;
}

const AT_REST: BenchState["seen"] = { used_m3: 0, slid_m: 0, touch: null, here: { fixed_m: 0, mobile_m: 0 } };
/** So often what is said of the hand changes. */
const SAY_S = 0.2;

const coatWanted = (wanted: readonly BenchCoat[], coat: number): BenchCoat => wanted[Math.max(1, Math.min(coat, wanted.length)) - 1]!;

/** A bench on which nothing has been sprayed by hand. */
const freshOn = (laid: number, wanted: readonly BenchCoat[]): BenchState => ({
  phase: "taking",
  coat: laid + 1,
  t_s: 0,
  rows: [],
  now: { speed_m_s: 0, distance_m: coatWanted(wanted, laid + 1).gun.distance_m, overlap: null, pulled: false },
  seen: AT_REST,
  waited_s: 0,
  lies: null,
  lifted: null,
  share: 0,
  debrief: null,
  coats: [],
  fibres: [],
  fault: null,
});

/** The bench in its worker, and the hand over it: what a page says to the one and sees of the other. */
export class BenchClient extends SmallStore<BenchState> {
  private readonly log: HandLog;
  /** The panel once it has gone hard. */
  readonly job = new JobClient((message) => this.say(message));
  private hard = false;
  private readonly worker: Worker;
  private canvas: HTMLCanvasElement | null = null;
  private filmCanvas: HTMLCanvasElement | null = null;
  private filmPicture: ImageBitmap | null = null;
  private picture = true;
  private newest: BenchState["seen"] | null = null;
  private saidAt_s = 0;
  private loop: number | null = null;
  private onFrame: (() => void) | null = null;

  constructor(
    readonly setting: BenchSetting,
    readonly wanted: readonly BenchCoat[],
    private readonly laid: number,
    private look: Look,
    /** Coats that nobody saw being sprayed: the panel comes hard. */
    private readonly unseen: readonly CoatOfHand[] | null = null,
  ) {
    super(freshOn(laid, wanted));
    this.log = new HandLog(wanted[0]!.gun.distance_m);
    this.worker = new Worker(new URL("../../workers/bench.worker.ts", import.meta.url), { type: "module" });
    this.worker.addEventListener("message", ({ data }: MessageEvent<FromBench>) => this.heard(data));
    this.worker.addEventListener("error", () => this.set({ fault: "the worker stopped" }));
    this.takeNew();
  }

  private fresh(): BenchState {
    return freshOn(this.laid, this.wanted);
  }
  wantedOf(coat: number): BenchCoat {
    return coatWanted(this.wanted, coat);
  }

  private say(message: ToBench, give: Transferable[] = []): void {
    this.worker.postMessage(message, give);
  }
  close(): void {
    this.stopLoop();
    this.worker.terminate();
  }

  get gun(): GunAt {
    return this.log.gun;
  }
  /** What is seen beside the part: the gun goes no farther. */
  keepsWithin(reach: Parameters<HandLog["keepsWithin"]>[0]): void {
    this.log.keepsWithin(reach);
  }
  /** Tells of every frame, to move the gun's shadow. */
  tellsFrames(onFrame: (() => void) | null): void {
    this.onFrame = onFrame;
  }
  /** The canvas that shows the panel. */
  shows(canvas: HTMLCanvasElement | null): void {
    this.canvas = canvas;
    if (canvas) this.say({ say: "look", look: this.look });
  }
  /** The canvas that shows the film of the debrief. */
  showsFilm(canvas: HTMLCanvasElement | null): void {
    this.filmCanvas = canvas;
    this.drawFilm();
  }
  private drawFilm(): void {
    if (!this.filmCanvas || !this.filmPicture) return;
    const { width, height } = this.filmPicture;
    Object.assign(this.filmCanvas, { width, height });
    this.filmCanvas.getContext("2d")?.drawImage(this.filmPicture, 0, 0);
  }
  looks(look: Look): void {
    this.look = look;
    this.say({ say: "look", look });
  }

  /** A bare panel, or one sprayed up to where it is tried again. */
  private take(coats: readonly CoatOfHand[], goesOn: boolean): void {
    this.picture = true;
    this.say({ say: "take", setting: this.setting, laid: this.laid, look: this.look, coats, goesOn, unseen: this.unseen !== null });
  }
  private takeNew(): void {
    this.take(this.unseen ?? [], false);
    if (this.unseen) this.hardens();
  }
  again(): void {
    this.stopLoop();
    this.filmPicture = null;
    this.isSoft();
    this.set(this.fresh());
    this.takeNew();
  }
  /** Nothing of it is hard, nor judged. */
  private isSoft(): void {
    this.job.again();
    this.hard = false;
  }
  /** The panel goes hard, to be read, judged and worked on. */
  hardens(): void {
    this.set({ phase: "hardening" });
    this.say({ say: "harden", seed: anySeed() });
  }
  /** It is handed over: what was said of it is held against what is true. @param look of the films that are shown with it */
  handsOver(said: Omit<JobSaid, "readings">, floor_m: number, look: Look): void {
    this.set({ phase: "working", share: 0 });
    this.say({ say: "judge", said: { ...said, readings: this.job.get().readings }, floor_m, look });
  }
  /** The coats as they were up to a moment of one of them; from there on the hand goes on. */
  againFrom(coat: number, from_s: number): void {
    this.stopLoop();
    this.isSoft();
    const { coats } = this.state;
    const here = coats[coat - 1]!;
    const hand = here.hand.filter((m) => m.t_s <= from_s);
    this.log.begins(here.turned, hand);
    const kept = [...coats.slice(0, coat - 1), { ...here, hand, flash_s: 0 }];
    const last = hand.at(-1);
    if (last) Object.assign(this.gun, { x_m: last.x_m, y_m: last.y_m, distance_m: last.distance_m, pulled: false });
    this.filmPicture = null;
    this.set({ ...this.fresh(), coat, t_s: this.log.t_s, rows: this.rowsNow(coat), coats: kept });
    this.take(kept, true);
    this.set({ phase: "spraying" });
    this.startLoop();
  }

  begins(change: { gun?: BenchGun; turned?: boolean } = {}): void {
    const wanted = this.wantedOf(this.state.coat);
    this.say({
      say: "coat",
      coat: { gun: change.gun ?? benchGun(wanted.gun), reducer: wanted.reducer, turned: change.turned ?? false },
    });
    this.log.begins(change.turned ?? false);
    this.gun.distance_m = wanted.gun.distance_m;
    this.set({ phase: "spraying", t_s: 0, rows: [], waited_s: 0, lies: null, lifted: null });
    this.startLoop();
  }
  /** The coat is on. */
  on(): void {
    this.stopLoop();
    this.flush(true);
    this.say({ say: "on" });
    this.newest = null;
    this.set({ phase: "ready", coat: this.state.coat + 1, rows: this.rowsNow(this.state.coat) });
  }
  waits(most_s: number): void {
    this.set({ phase: "waiting", waited_s: 0 });
    this.say({ say: "wait", most_s, seed: anySeed() });
  }
  /** The fibre on the newest coat is lifted out. */
  lifts(): void {
    this.say({ say: "lift" });
  }
  stops(): void {
    this.say({ say: "stop" });
    this.set({ phase: "ready" });
  }
  /** @param look of the film that is shown with it */
  tells(look: Look): void {
    this.set({ phase: "working", share: 0 });
    this.say({ say: "debrief", look });
  }

  private heard(message: FromBench): void {
    this.job.heard(message);
    switch (message.say) {
      case "hard":
        this.hard = true;
        this.set({ phase: "judging" });
        return;
      case "ready":
        if (this.state.phase === "taking") this.set({ phase: "ready" });
        return;
      case "seen": {
        const { bitmap, used_m3, slid_m, touch, here } = message;
        const seen = { used_m3, slid_m, touch, here };
        this.picture = true;
        if (this.canvas) {
          if (this.canvas.width !== bitmap.width) Object.assign(this.canvas, { width: bitmap.width, height: bitmap.height });
          this.canvas.getContext("bitmaprenderer")?.transferFromImageBitmap(bitmap);
        } else bitmap.close();
        // While a hand sprays it is said with the hand's own figures, not with every picture.
        if (this.state.phase === "spraying") this.newest = seen;
        else this.set({ seen });
        return;
      }
      case "waited":
        if (this.state.phase !== "waiting") return;
        this.set({ waited_s: message.seconds, lies: message.lies, ...(message.rests ? { phase: "ready" as const } : {}) });
        return;
      case "lifted":
        this.set({ lies: null, lifted: message.told });
        return;
      case "working":
        this.set({ share: message.share });
        return;
      case "debriefed":
      case "judged":
        this.filmPicture = message.film;
        if (message.say === "debriefed") this.set({ fibres: message.fibres });
        this.set({ phase: "told", debrief: message.debrief, coats: message.coats });
        this.drawFilm();
        return;
      case "failed":
        this.set({ fault: message.message, ...(this.state.phase === "working" ? { phase: this.hard ? "judging" : "ready" } : {}) });
    }
  }

  /** A page that goes into the background lets go of the trigger, and no time passes until it is back. */
  private readonly onHidden = () => {
    if (!document.hidden) return;
    this.gun.pulled = false;
    this.log.pauses();
  };
  private startLoop(): void {
    this.log.isWatched();
    document.addEventListener("visibilitychange", this.onHidden);
    this.saidAt_s = -SAY_S;
    const frame = (at_ms: number) => {
      this.loop = requestAnimationFrame(frame);
      this.frame(at_ms / 1000);
    };
    this.loop = requestAnimationFrame(frame);
  }
  private stopLoop(): void {
    document.removeEventListener("visibilitychange", this.onHidden);
    if (this.loop !== null) cancelAnimationFrame(this.loop);
    this.loop = null;
  }
  /** An event of the pointer says where the gun was at its own time. */
  passes(at_s: number): void {
    if (this.loop !== null) this.log.passes(at_s, false);
  }
  private frame(at_s: number): void {
    const { gun, fan_m } = this.wantedOf(this.state.coat);
    this.log.isSteered(at_s, gun.handSpeed_m_s);
    // What the frame before said stands by now.
    this.flush(false);
    this.log.passes(at_s, true);
    const { t_s } = this.log;
    if (t_s - this.saidAt_s >= SAY_S) {
      this.saidAt_s = t_s;
      const rows = this.rowsNow(this.state.coat);
      this.set({ t_s, rows, now: this.log.now(rows, fan_m), seen: this.newest ?? this.state.seen });
    }
    this.onFrame?.();
  }
  /** What the hand did since the last time goes to the bench. */
  private flush(all: boolean): void {
    const moments = this.log.news();
    if (!moments) return;
    const picture = this.picture || all;
    this.picture = false;
    this.say({ say: "hand", moments, picture }, [moments.buffer]);
  }
  private rowsNow(coat: number): RowMade[] {
    return this.log.rows(this.setting.outline, this.wantedOf(coat).fan_m);
  }
}
