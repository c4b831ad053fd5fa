import { type Kysely, type Migration, sql } from "kysely";
import { withoutNotes } from "../commands/photos";

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
  "0006-order-keys-summaries": {
    async up(db: Kysely<unknown>) {
      const statements = [
        // Order of writing, whatever the wall clock does. Until now it was the row's own number.
        sql`alter table ledger_entry add column seq integer`,
        sql`drop trigger ledger_no_update`,
        sql`update ledger_entry set seq = rowid`,
        sql`create trigger ledger_no_update before update on ledger_entry begin select raise(abort, 'the ledger is append-only'); end`,
        sql`create unique index ledger_seq on ledger_entry (seq)`,
        sql`create index ledger_panel_seq on ledger_entry (panel_id, seq)`,
        sql`drop index ledger_panel`,
        // Forms that have been carried out: the key a form was made with, a digest of what it asked, and what was answered.
        sql`create table sent_form (key text primary key, digest text, result_json text not null, at_ms integer not null)`,
        sql`insert into sent_form (key, digest, result_json, at_ms)
            select client_key, null, json_array(id), recorded_at_ms from ledger_entry where client_key is not null`,
        // What lists show of a panel, written with each of its entries; the ledger stays the truth.
        sql`create table panel_summary (
          panel_id text primary key references panel(id), job_id text not null references job(id), away integer not null,
          version integer not null, seq integer not null, counts_json text not null,
          done integer not null, attention integer not null, unfinished integer not null, last_coat_ms integer,
          booth_json text, sprayed_json text, worked_json text, learnt_json text)`,
        sql`create index summary_job on panel_summary (job_id, away, attention, done, unfinished)`,
        sql`create index summary_attention on panel_summary (away, attention)`,
        sql`create index summary_done on panel_summary (away, done, job_id)`,
        sql`create index summary_unfinished on panel_summary (away, unfinished)`,
        sql`create index summary_sprayed on panel_summary (away, last_coat_ms) where sprayed_json is not null`,
        sql`create index summary_worked on panel_summary (away, last_coat_ms) where worked_json is not null`,
        sql`create index summary_learnt on panel_summary (away, last_coat_ms) where learnt_json is not null`,
        sql`create table cause_word (entry_id text primary key, panel_id text not null references panel(id), kind text not null, cause_id text not null)`,
        sql`create index cause_word_panel on cause_word (panel_id)`,
        sql`create index cause_word_kind on cause_word (kind, cause_id)`,
        sql`alter table clock add column struck integer not null default 0`,
        sql`create index clock_panel on clock (panel_id)`,
        sql`create index job_open on job (archived_at_ms, created_at_ms, id)`,
        sql`alter table photo add column digest text`,
        sql`create unique index photo_digest on photo (digest) where digest is not null`,
      ];
      for (const statement of statements) await statement.execute(db);
      await cutOriginals(db);
    },
  },
  "0007-removed-jobs": {
    async up(db: Kysely<unknown>) {
      // A job that is deleted leaves its job file here, so that it can come back; only such a job's ledger may go.
      await sql`create table removed_job (
        job_id text primary key, vehicle text not null, removed_at_ms integer not null, by_role text not null, bundle_json text not null)`.execute(
        db,
      );
      await sql`drop trigger ledger_no_delete`.execute(db);
      await sql`create trigger ledger_no_delete before delete on ledger_entry
        when not exists (select 1 from panel join removed_job on removed_job.job_id = panel.job_id where panel.id = old.panel_id)
        begin select raise(abort, 'the ledger is append-only'); end`.execute(db);
    },
  },
  "0008-sides": {
    async up(db: Kysely<unknown>) {
      // Faces of a part that are sprayed; until now every part had one.
      await sql`alter table panel add column sides integer not null default 1`.execute(db);
    },
  },
  "0009-ways-briefs": {
    async up(db: Kysely<unknown>) {
      // Ways of the shop's own; a job keeps the one it was started with, whatever becomes of it in House, and what it was told.
      await sql`create table house_way (
        id text primary key, body_json text not null, version integer not null, created_at_ms integer not null, archived_at_ms integer)`.execute(
        db,
      );
      await sql`alter table job add column way_json text`.execute(db);
      await sql`alter table job add column brief_json text`.execute(db);
    },
  },
  "0010-pictures": {
    async up(db: Kysely<unknown>) {
      // Whether a picture is still shown anywhere is asked of the index, not of every entry.
      await sql`create index ledger_picture on ledger_entry (case when json_valid(body_json) then body_json ->> '$.photoId' end)
        where kind in ('defect', 'neighbour')`.execute(db);
    },
  },
  "0011-removed-panels": {
    async up(db: Kysely<unknown>) {
      // A panel that was added by mistake leaves its file here, so that it can come back; only such a panel's ledger may go, beside a deleted job's.
      await sql`create table removed_panel (
        panel_id text primary key, job_id text not null, name text not null, removed_at_ms integer not null, by_role text not null,
        bundle_json text not null)`.execute(db);
      await sql`create index removed_panel_job on removed_panel (job_id)`.execute(db);
      await sql`drop trigger ledger_no_delete`.execute(db);
      await sql`create trigger ledger_no_delete before delete on ledger_entry
        when not exists (select 1 from panel join removed_job on removed_job.job_id = panel.job_id where panel.id = old.panel_id)
          and not exists (select 1 from removed_panel where removed_panel.panel_id = old.panel_id)
        begin select raise(abort, 'the ledger is append-only'); end`.execute(db);
    },
  },
  "0012-people-devices": {
    async up(db: Kysely<unknown>) {
      // Who may come in, on which devices, and whose each entry is.
      const statements = [
        sql`create table person (
          id text primary key, name text not null, role text not null, secret_hash text not null, version integer not null,
          created_at_ms integer not null, ended_at_ms integer)`,
        sql`create table device (
          id text primary key, name text not null, kind text not null, token_hash text not null unique, paired_at_ms integer not null,
          seen_ms integer not null, address text not null, person_id text references person(id), wrong integer not null,
          wait_until_ms integer not null, locked_at_ms integer, ended_at_ms integer)`,
        sql`create table device_person (
          device_id text not null references device(id), person_id text not null references person(id), pin_at_ms integer not null,
          primary key (device_id, person_id))`,
        sql`alter table ledger_entry add column person_id text`,
        sql`alter table ledger_entry add column device_id text`,
      ];
      for (const statement of statements) await statement.execute(db);
    },
  },
  "0013-followed-rows": {
    async up(db: Kysely<unknown>) {
      // Which rows have changed since when: devices that keep some of them ask for what is new.
      await sql`create table row_change (seq integer primary key autoincrement, tbl text not null, key text not null, unique (tbl, key))`.execute(
        db,
      );
      const keys = {
        shop: "id",
        person: "id",
        product: "id",
        product_revision: "id",
        gun: "id",
        house_way: "id",
        booth_plan: "id",
        container: "id",
        card: "id",
        job: "id",
        panel: "id",
        ledger_entry: "id",
        clock: "id",
        photo: "id",
        panel_summary: "panel_id",
        cause_word: "entry_id",
      };
      for (const [table, key] of Object.entries(keys))
        for (const op of ["insert", "update", "delete"] as const) {
          // More than its own row comes or goes with a job that is put away, brought back or taken out.
          const [tbl, of] =
            table === "job" && op !== "insert" ? ["*", "''"] : [table, `cast(${op === "delete" ? "old" : "new"}.${key} as text)`];
          const note = `delete from row_change where tbl = '${tbl}' and key = ${of}; insert into row_change (tbl, key) values ('${tbl}', ${of});`;
          await sql.raw(`create trigger follow_${table}_${op} after ${op} on ${table} begin ${note} end`).execute(db);
        }
    },
  },
  "0014-practice": {
    async up(db: Kysely<unknown>) {
      // Sessions at the practice bench: nothing of them is of any panel.
      await sql`create table practice_session (
        id text primary key, exercise text not null, level text not null, passed integer not null, body_json text not null,
        person_id text references person(id), at_ms integer not null)`.execute(db);
      await sql`create index practice_person on practice_session (person_id, at_ms)`.execute(db);
      for (const op of ["insert", "update", "delete"] as const) {
        const of = `${op === "delete" ? "old" : "new"}.id`;
        await sql
          .raw(
            `create trigger follow_practice_session_${op} after ${op} on practice_session begin delete from row_change where tbl = 'practice_session' and key = ${of}; insert into row_change (tbl, key) values ('practice_session', ${of}); end`,
          )
          .execute(db);
      }
    },
  },
  "0015-rows-places": {
    async up(db: Kysely<unknown>) {
      // Where the rows of its coats lie, and which place of a vehicle it is.
      await sql`alter table panel add column rows_json text`.execute(db);
      await sql`alter table panel add column place text`.execute(db);
    },
  },
  "0016-said": {
    async up(db: Kysely<unknown>) {
      // In which words a form was answered: sent again it is answered in the same.
      await sql`alter table sent_form add column said text`.execute(db);
    },
  },
  "0017-colours": {
    async up(db: Kysely<unknown>) {
      // A second colour of a vehicle, and which of them each part has.
      await sql`alter table job add column colours_json text`.execute(db);
      await sql`alter table panel add column colour text`.execute(db);
    },
  },
};

/** Originals kept by earlier versions held notes that were promised to go; one that cannot be read is left as it is. */
async function cutOriginals(db: Kysely<unknown>): Promise<void> {
  const { rows } = await sql<{ id: string }>`select id from photo where original_mime = 'image/jpeg'`.execute(db);
  for (const { id } of rows) {
    const { rows: found } = await sql<{ original: Uint8Array }>`select original from photo where id = ${id}`.execute(db);
    const bytes = new Uint8Array(found[0]!.original);
    const cut = await withoutNotes(bytes).then(
      (kept) => kept.bytes,
      () => bytes,
    );
    if (cut.length !== bytes.length) await sql`update photo set original = ${cut} where id = ${id}`.execute(db);
  }
}
