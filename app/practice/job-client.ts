import type { PlaceOnPanel } from "#core/models/panel-film/over-part";
import type { Nib } from "#core/practice/job/cured";
import type { JobJudged, Reading } from "#core/practice/job/judged";
import type { JobTool } from "#core/practice/job/sanding";
import type { FromBench, FromJob, ToJob } from "#workers/bench-talk";
import { SmallStore } from "./small-store";

export interface JobState {
  nibs: readonly Nib[];
  readings: readonly Reading[];
  /** Time at the block, at the panel's own pace. */
  sanded_s: number;
  judged: JobJudged | null;
  /** The film as the readings say it, in colours. */
  belief: ImageBitmap | null;
}
const FRESH: JobState = { nibs: [], readings: [], sanded_s: 0, judged: null, belief: null };

/** What a panel that has gone hard is asked, and what it answered. */
export class JobClient extends SmallStore<JobState> {
  constructor(private readonly say: (message: ToJob) => void) {
    super(FRESH);
  }
  again(): void {
    this.state.belief?.close();
    this.set(FRESH);
  }
  reads(at: PlaceOnPanel): void {
    this.say({ say: "read", at });
  }
  sands(tool: JobTool, at: PlaceOnPanel, seconds: number): void {
    this.say({ say: "sand", tool, at, seconds });
  }

  /** @returns whether it was an answer of the panel's */
  heard(message: FromBench): message is FromJob {
    switch (message.say) {
      case "hard":
        this.set({ nibs: message.nibs });
        return true;
      case "reading": {
        const { at, film_m } = message;
        if (film_m !== null) this.set({ readings: [...this.state.readings, { ...at, film_m }] });
        return true;
      }
      case "sanded":
        this.set({ nibs: message.nibs, sanded_s: this.state.sanded_s + message.seconds });
        return true;
      case "judged":
        this.set({ judged: message.judged, belief: message.belief });
        return true;
      default:
        return false;
    }
  }
}
