import { type Kysely, type Migration, sql } from "kysely";

/** Migrations are appended, never edited once they have been released. */
export const MIGRATIONS: Record<string, Migration> = {
  "0001-foundation": {
    async up(db: Kysely<unknown>) {
      const statements = [
        sql`create table shop (id integer primary key check (id = 1), settings_json text not null, updated_at_ms integer not null)`,
        sql`create table product (id text primary key, created_at_ms integer not null, archived_at_ms integer)`,
        sql`create table product_revision (
          id text primary key, product_id text not null references product(id), revision integer not null,
          sheet_json text not null, created_at_ms integer not null, unique (product_id, revision))`,
        sql`create table job (
          id text primary key, vehicle text not null, colour_name text not null, colour_css text not null, finish text not null,
          way_id text not null, created_at_ms integer not null, archived_at_ms integer, client_key text unique)`,
        sql`create table panel (
          id text primary key, job_id text not null references job(id), position integer not null, name text not null,
          shape_json text not null, tilt_rad real not null, substrate text not null,
          product_revision_id text not null references product_revision(id), coats_planned integer not null, client_key text unique)`,
        sql`create table ledger_entry (
          id text primary key, panel_id text not null references panel(id), kind text not null, body_json text not null,
          at_ms integer not null, recorded_at_ms integer not null, by_role text not null, simulated integer not null default 0,
          supersedes_id text references ledger_entry(id), client_key text unique)`,
        sql`create table clock (
          id text primary key, panel_id text not null references panel(id), entry_id text not null references ledger_entry(id),
          kind text not null, label text not null, started_ms integer not null, due_ms integer not null, late_ms integer, stopped_ms integer)`,
        sql`create index panel_job on panel (job_id, position)`,
        sql`create index ledger_panel on ledger_entry (panel_id, recorded_at_ms)`,
        sql`create index ledger_supersedes on ledger_entry (supersedes_id) where supersedes_id is not null`,
        sql`create index clock_running on clock (stopped_ms, due_ms)`,
        // The ledger is append-only also for a hand at the file.
        sql`create trigger ledger_no_update before update on ledger_entry begin select raise(abort, 'the ledger is append-only'); end`,
        sql`create trigger ledger_no_delete before delete on ledger_entry begin select raise(abort, 'the ledger is append-only'); end`,
      ];
      for (const statement of statements) await statement.execute(db);
    },
  },
  "0002-cans-cards-photos": {
    async up(db: Kysely<unknown>) {
      const statements = [
        sql`create table container (
          id text primary key, product_id text not null references product(id), batch text not null, size_m3 real not null,
          opened_ms integer, keeping text not null, left_m3 real not null, version integer not null,
          created_at_ms integer not null, closed_at_ms integer, client_key text unique)`,
        sql`create table card (
          id text primary key, number integer not null, body_json text not null, at_ms integer not null, by_role text not null,
          simulated integer not null default 0, supersedes_id text references card(id), struck_at_ms integer, client_key text unique)`,
        sql`create table photo (
          id text primary key, mime text not null, bytes blob not null, width integer not null, height integer not null,
          name text not null, created_at_ms integer not null)`,
        sql`create index container_product on container (product_id)`,
        sql`create trigger card_body_fixed before update of body_json on card begin select raise(abort, 'a card is never changed, only superseded'); end`,
        sql`create trigger card_no_delete before delete on card begin select raise(abort, 'a card is never deleted'); end`,
      ];
      for (const statement of statements) await statement.execute(db);
    },
  },
  "0003-booth-plan": {
    async up(db: Kysely<unknown>) {
      await sql`create table booth_plan (
        id integer primary key check (id = 1), body_json text not null, version integer not null, updated_at_ms integer not null)`.execute(
        db,
      );
    },
  },
  "0004-guns": {
    async up(db: Kysely<unknown>) {
      await sql`create table gun (
        id text primary key, body_json text not null, version integer not null, created_at_ms integer not null,
        archived_at_ms integer, client_key text unique)`.execute(db);
    },
  },
  "0005-originals": {
    async up(db: Kysely<unknown>) {
      await sql`alter table photo add column original blob`.execute(db);
      await sql`alter table photo add column original_mime text`.execute(db);
    },
  },
};
