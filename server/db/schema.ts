import type { ColumnType, Insertable, Selectable } from "kysely";

/** Set once when the row is made; never updated. */
type Fixed<T> = ColumnType<T, T, never>;

export interface ShopTable {
  id: Fixed<number>;
  settings_json: string;
  updated_at_ms: number;
}
export interface ProductTable {
  id: Fixed<string>;
  created_at_ms: Fixed<number>;
  archived_at_ms: number | null;
}
export interface ProductRevisionTable {
  id: Fixed<string>;
  product_id: Fixed<string>;
  revision: Fixed<number>;
  sheet_json: Fixed<string>;
  created_at_ms: Fixed<number>;
}
export interface JobTable {
  id: Fixed<string>;
  vehicle: string;
  colour_name: string;
  colour_css: string;
  finish: string;
  way_id: string;
  /** A way of the shop's own as the job was started with it; null for one that every shop has. */
  way_json: ColumnType<string | null, string | null | undefined, string | null>;
  /** What it was told beside its parts; null: nothing. */
  brief_json: ColumnType<string | null, string | null | undefined, string | null>;
  /** A second colour and how light falls on them; null: nothing was said. */
  colours_json: ColumnType<string | null, string | null | undefined, string | null>;
  created_at_ms: Fixed<number>;
  archived_at_ms: number | null;
  client_key: Fixed<string | null>;
}
export interface PanelTable {
  id: Fixed<string>;
  job_id: Fixed<string>;
  position: number;
  name: string;
  shape_json: string;
  tilt_rad: number;
  substrate: string;
  product_revision_id: string;
  coats_planned: number;
  /** 1 or 2. */
  sides: ColumnType<number, number | undefined, number>;
  /** Where its rows lie; null: nobody has planned them. */
  rows_json: string | null;
  /** Its place on a vehicle, by its key; null: none was said. */
  place: string | null;
  /** Which of the job's colours it has; null: the first. */
  colour: string | null;
  client_key: Fixed<string | null>;
}
export interface LedgerEntryTable {
  id: Fixed<string>;
  panel_id: Fixed<string>;
  kind: Fixed<string>;
  body_json: Fixed<string>;
  at_ms: Fixed<number>;
  recorded_at_ms: Fixed<number>;
  by_role: Fixed<string>;
  simulated: Fixed<number>;
  supersedes_id: Fixed<string | null>;
  /** Kept from files of earlier versions; `sent_form` has taken its place. */
  client_key: Fixed<string | null>;
  /** Order of writing in the whole file, from 1. */
  seq: Fixed<number>;
  /** Who entered it and on which device; null where nobody signs in. */
  person_id: ColumnType<string | null, string | null | undefined, never>;
  device_id: ColumnType<string | null, string | null | undefined, never>;
}
export interface ClockTable {
  id: Fixed<string>;
  panel_id: Fixed<string>;
  entry_id: Fixed<string>;
  kind: Fixed<string>;
  label: string;
  started_ms: number;
  due_ms: number;
  late_ms: number | null;
  stopped_ms: number | null;
  /** 1 while the entry that started it does not count. */
  struck: ColumnType<number, number | undefined, number>;
}

export interface ContainerTable {
  id: Fixed<string>;
  product_id: Fixed<string>;
  batch: string;
  size_m3: Fixed<number>;
  opened_ms: number | null;
  keeping: string;
  left_m3: number;
  /** Rises with every change, so that two windows cannot overwrite each other unseen. */
  version: number;
  created_at_ms: Fixed<number>;
  closed_at_ms: number | null;
  client_key: Fixed<string | null>;
}

export interface CardTable {
  id: Fixed<string>;
  number: Fixed<number>;
  body_json: Fixed<string>;
  at_ms: Fixed<number>;
  by_role: Fixed<string>;
  simulated: Fixed<number>;
  supersedes_id: Fixed<string | null>;
  struck_at_ms: number | null;
  client_key: Fixed<string | null>;
}

export interface PhotoTable {
  id: Fixed<string>;
  mime: Fixed<string>;
  bytes: ColumnType<ArrayBuffer | Uint8Array, Uint8Array, never>;
  width: Fixed<number>;
  height: Fixed<number>;
  name: Fixed<string>;
  created_at_ms: Fixed<number>;
  original: Fixed<Uint8Array | null>;
  original_mime: Fixed<string | null>;
  /** SHA-256 of the file as it was sent; null for those kept before. */
  digest: Fixed<string | null>;
}

/** A form that has been carried out. */
export interface SentFormTable {
  key: Fixed<string>;
  /** SHA-256 of what it asked; null for those of earlier versions. */
  digest: Fixed<string | null>;
  result_json: Fixed<string>;
  at_ms: Fixed<number>;
  /** In which words it was answered; null where in none, and for those of earlier versions. */
  said: ColumnType<string | null, string | null | undefined, never>;
}

/** What lists show of a panel; derived, and written anew with each of its entries. */
export interface PanelSummaryTable {
  panel_id: Fixed<string>;
  job_id: Fixed<string>;
  /** 1 while its job is put away. */
  away: number;
  version: number;
  /** Newest entry it knows of. */
  seq: number;
  counts_json: string;
  done: number;
  attention: number;
  unfinished: number;
  last_coat_ms: number | null;
  booth_json: string | null;
  sprayed_json: string | null;
  worked_json: string | null;
  learnt_json: string | null;
}

/** The final word on a defect's cause, as far as it counts now. */
export interface CauseWordTable {
  entry_id: Fixed<string>;
  panel_id: Fixed<string>;
  kind: Fixed<string>;
  cause_id: Fixed<string>;
}

/** One row: the day's plan of the booth, as the painter set it. */
export interface BoothPlanTable {
  id: Fixed<number>;
  body_json: string;
  version: number;
  updated_at_ms: number;
}

/** A gun as the shop keeps it; a change is a new row version, `version` guards against two windows. */
export interface GunTable {
  id: Fixed<string>;
  body_json: string;
  version: number;
  created_at_ms: Fixed<number>;
  archived_at_ms: number | null;
  client_key: Fixed<string | null>;
}

/** A house way of the shop's own; `version` guards against two windows. */
export interface HouseWayTable {
  id: Fixed<string>;
  body_json: string;
  version: number;
  created_at_ms: Fixed<number>;
  archived_at_ms: number | null;
}

/** A panel that was taken off its job, kept as a job file of it alone until it is let go. */
export interface RemovedPanelTable {
  panel_id: Fixed<string>;
  job_id: Fixed<string>;
  name: Fixed<string>;
  removed_at_ms: Fixed<number>;
  by_role: Fixed<string>;
  bundle_json: Fixed<string>;
}
/** A deleted job: what is left of it is its job file. */
export interface RemovedJobTable {
  job_id: Fixed<string>;
  vehicle: Fixed<string>;
  removed_at_ms: Fixed<number>;
  by_role: Fixed<string>;
  bundle_json: Fixed<string>;
}

/** Somebody of the shop. */
export interface PersonTable {
  id: Fixed<string>;
  name: string;
  role: string;
  /** argon2id of the PIN or passcode. */
  secret_hash: string;
  /** Rises with every change, so that two windows cannot overwrite each other unseen. */
  version: number;
  created_at_ms: Fixed<number>;
  /** Since when they may not come in any more. */
  ended_at_ms: number | null;
}

/** A tablet, telephone or computer that was let in, or a bridge that sends what a gauge reads. */
export interface DeviceTable {
  id: Fixed<string>;
  name: string;
  kind: Fixed<string>;
  /** SHA-256 of the token that it shows. */
  token_hash: string;
  paired_at_ms: Fixed<number>;
  seen_ms: number;
  /** Where it was when somebody last signed in on it. */
  address: string;
  person_id: string | null;
  /** PINs that were not right since the last that was, until when none is looked at, and since when none is any more. */
  wrong: number;
  wait_until_ms: number;
  locked_at_ms: number | null;
  ended_at_ms: number | null;
}

/** Whose PIN was given on which device, and when. */
export interface DevicePersonTable {
  device_id: Fixed<string>;
  person_id: Fixed<string>;
  pin_at_ms: number;
}

/** A session at the practice bench: what it came to, of no panel. */
export interface PracticeSessionTable {
  id: Fixed<string>;
  exercise: Fixed<string>;
  level: Fixed<string>;
  passed: Fixed<number>;
  body_json: Fixed<string>;
  person_id: Fixed<string | null>;
  at_ms: Fixed<number>;
}

export interface Schema {
  practice_session: PracticeSessionTable;
  person: PersonTable;
  device: DeviceTable;
  device_person: DevicePersonTable;
  removed_job: RemovedJobTable;
  removed_panel: RemovedPanelTable;
  sent_form: SentFormTable;
  panel_summary: PanelSummaryTable;
  cause_word: CauseWordTable;
  gun: GunTable;
  house_way: HouseWayTable;
  booth_plan: BoothPlanTable;
  shop: ShopTable;
  product: ProductTable;
  product_revision: ProductRevisionTable;
  job: JobTable;
  panel: PanelTable;
  ledger_entry: LedgerEntryTable;
  clock: ClockTable;
  container: ContainerTable;
  card: CardTable;
  photo: PhotoTable;
}
export type LedgerRow = Selectable<LedgerEntryTable>;
export type NewLedgerRow = Insertable<LedgerEntryTable>;
