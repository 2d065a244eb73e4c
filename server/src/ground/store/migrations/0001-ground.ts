import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Ids, digests and keys: compared byte for byte. */
const ID = 'CHAR(20) CHARACTER SET ascii COLLATE ascii_bin';
const SHA = 'CHAR(64) CHARACTER SET ascii COLLATE ascii_bin';
const CODE = (n: number) => `VARCHAR(${n}) CHARACTER SET ascii COLLATE ascii_bin`;
const EXACT = (n: number) => `VARCHAR(${n}) COLLATE utf8mb4_bin`;
const TABLE = 'ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_ai_ci';

/**
 * The whole ground. Columns named `..._desk` are milliseconds of the desk clock; DATETIME columns are the database's own
 * clock, in UTC. Money is in micros.
 */
export class Ground1764000000000 implements MigrationInterface {
  readonly name = 'Ground1764000000000';

  async up(q: QueryRunner): Promise<void> {
    for (const statement of STATEMENTS) await q.query(statement);
  }

  async down(): Promise<void> {
    throw new Error('There is nothing before the ground; restore a backup instead.');
  }
}

const STATEMENTS: readonly string[] = [
  // People and their access.
  `CREATE TABLE person (id ${ID} NOT NULL PRIMARY KEY, email ${EXACT(190)} NOT NULL, name VARCHAR(120) NOT NULL, role ${CODE(16)} NOT NULL,
      password_hash VARCHAR(255) NOT NULL, rev INT NOT NULL DEFAULT 1, created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), UNIQUE KEY person_email (email)) ${TABLE}`,
  `CREATE TABLE session (token ${SHA} NOT NULL PRIMARY KEY, person ${ID} NOT NULL, created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), expires_at DATETIME(3) NOT NULL,
      KEY session_person (person), KEY session_expires (expires_at)) ${TABLE}`,
  `CREATE TABLE idempotency (person ${ID} NOT NULL, key_ ${CODE(100)} NOT NULL, request ${SHA} NOT NULL, status SMALLINT NULL, body JSON NULL,
      at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), PRIMARY KEY (person, key_), KEY idempotency_at (at)) ${TABLE}`,
  `CREATE TABLE setting (name ${CODE(64)} NOT NULL PRIMARY KEY, value JSON NOT NULL, rev INT NOT NULL DEFAULT 1) ${TABLE}`,
  // Clocks and processes.
  `CREATE TABLE desk_clock (id TINYINT NOT NULL PRIMARY KEY, base_real BIGINT NOT NULL, base_desk BIGINT NOT NULL, speed DOUBLE NOT NULL, rev INT NOT NULL DEFAULT 1) ${TABLE}`,
  'INSERT INTO desk_clock (id, base_real, base_desk, speed) VALUES (1, 0, 0, 1)',
  `CREATE TABLE worker (id ${ID} NOT NULL PRIMARY KEY, role ${CODE(8)} NOT NULL, address ${CODE(64)} NOT NULL, started_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
      lease_until DATETIME(3) NOT NULL, KEY worker_lease (lease_until)) ${TABLE}`,
  // Services and blogs.
  `CREATE TABLE service (id ${ID} NOT NULL PRIMARY KEY, role ${CODE(16)} NOT NULL, name VARCHAR(120) NOT NULL, address VARCHAR(500) NOT NULL, model VARCHAR(120) NOT NULL DEFAULT '',
      secret VARBINARY(2000) NULL, price JSON NOT NULL, permits INT NOT NULL DEFAULT 4, time_limit_ms INT NOT NULL DEFAULT 60000,
      standard TINYINT NOT NULL DEFAULT 0, rev INT NOT NULL DEFAULT 1, created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), KEY service_role (role, standard, id)) ${TABLE}`,
  `CREATE TABLE permit (service ${ID} NOT NULL, n SMALLINT NOT NULL, holder ${ID} NULL, PRIMARY KEY (service, n), KEY permit_holder (holder)) ${TABLE}`,
  `CREATE TABLE blog (id ${ID} NOT NULL PRIMARY KEY, name VARCHAR(120) NOT NULL, address VARCHAR(500) NOT NULL, endpoint VARCHAR(500) NOT NULL, media_endpoint VARCHAR(500) NULL,
      secret VARBINARY(2000) NULL, language CHAR(2) NOT NULL DEFAULT 'en', time_limit_ms INT NOT NULL DEFAULT 15000, cadence JSON NOT NULL, cadence_rev INT NOT NULL DEFAULT 1,
      last_out_desk BIGINT NULL, rev INT NOT NULL DEFAULT 1, created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3)) ${TABLE}`,
  `CREATE TABLE link_page (blog ${ID} NOT NULL, address_digest ${SHA} NOT NULL, address VARCHAR(1000) NOT NULL, title VARCHAR(500) NOT NULL, article ${ID} NULL,
      seen_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), PRIMARY KEY (blog, address_digest), KEY link_page_article (article)) ${TABLE}`,
  // Procedures and what feeds them.
  `CREATE TABLE procedure_version (procedure_id ${ID} NOT NULL, n INT NOT NULL, document JSON NOT NULL, digest ${SHA} NOT NULL, by_person ${ID} NULL,
      created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), PRIMARY KEY (procedure_id, n)) ${TABLE}`,
  `CREATE TABLE pipeline (id ${ID} NOT NULL PRIMARY KEY, name VARCHAR(120) NOT NULL, procedure_id ${ID} NOT NULL, version INT NOT NULL, is_on TINYINT NOT NULL DEFAULT 0,
      open_limit INT NOT NULL DEFAULT 10, priority TINYINT NOT NULL DEFAULT 5, admitted_desk BIGINT NULL, rev INT NOT NULL DEFAULT 1,
      created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3)) ${TABLE}`,
  `CREATE TABLE source (id ${ID} NOT NULL PRIMARY KEY, kind ${CODE(24)} NOT NULL, name VARCHAR(120) NOT NULL, rev INT NOT NULL DEFAULT 1,
      created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3)) ${TABLE}`,
  `CREATE TABLE item (id ${ID} NOT NULL PRIMARY KEY, source ${ID} NOT NULL, identity ${SHA} NOT NULL, content_digest ${SHA} NOT NULL, subject VARCHAR(500) NOT NULL, fields JSON NOT NULL,
      created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), UNIQUE KEY item_identity (source, identity), KEY item_order (source, id)) ${TABLE}`,
  `CREATE TABLE look (id ${ID} NOT NULL PRIMARY KEY, source ${ID} NOT NULL, pipeline ${ID} NOT NULL, at_desk BIGINT NOT NULL, found INT NOT NULL, taken INT NOT NULL, failure JSON NULL,
      KEY look_source (source, id), KEY look_pipeline (pipeline, id)) ${TABLE}`,
  `CREATE TABLE taken (pipeline ${ID} NOT NULL, fingerprint ${SHA} NOT NULL, item ${ID} NOT NULL, brief ${ID} NOT NULL, PRIMARY KEY (pipeline, fingerprint), KEY taken_brief (brief)) ${TABLE}`,
  // Briefs and the work on them.
  `CREATE TABLE brief (id ${ID} NOT NULL PRIMARY KEY, pipeline ${ID} NOT NULL, trial TINYINT NOT NULL DEFAULT 0, rev INT NOT NULL DEFAULT 1, standing ${CODE(12)} NOT NULL, seed ${CODE(24)} NOT NULL,
      subject VARCHAR(500) NOT NULL, fields JSON NOT NULL, priority TINYINT NOT NULL DEFAULT 5, made_desk BIGINT NOT NULL, ended_desk BIGINT NULL,
      created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), KEY brief_standing (pipeline, trial, standing, id), KEY brief_list (trial, id)) ${TABLE}`,
  `CREATE TABLE brief_item (brief ${ID} NOT NULL, item ${ID} NOT NULL, PRIMARY KEY (brief, item)) ${TABLE}`,
  `CREATE TABLE brief_pin (brief ${ID} NOT NULL, procedure_id ${ID} NOT NULL, version INT NOT NULL, PRIMARY KEY (brief, procedure_id)) ${TABLE}`,
  `CREATE TABLE step_run (id ${ID} NOT NULL PRIMARY KEY, brief ${ID} NOT NULL, path ${EXACT(191)} NOT NULL, round SMALLINT NOT NULL DEFAULT 0, opens TINYINT NOT NULL DEFAULT 0,
      kind ${CODE(16)} NOT NULL, state ${CODE(10)} NOT NULL, lane ${CODE(24)} NULL, home_lane ${CODE(24)} NOT NULL, due_at DATETIME(3) NULL, due_desk BIGINT NULL, for_slot TINYINT NOT NULL DEFAULT 0,
      holder ${ID} NULL, attempts SMALLINT NOT NULL DEFAULT 0, tries SMALLINT NOT NULL DEFAULT 0, incident ${ID} NULL, failure JSON NULL, outcome JSON NULL,
      made_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), started_at DATETIME(3) NULL, ended_at DATETIME(3) NULL,
      UNIQUE KEY step_run_path (brief, path, round), KEY step_run_lane (lane, id), KEY step_run_due_at (due_at), KEY step_run_due_desk (due_desk), KEY step_run_holder (holder), KEY step_run_incident (incident)) ${TABLE}`,
  `CREATE TABLE attempt (step_run ${ID} NOT NULL, n SMALLINT NOT NULL, worker ${ID} NOT NULL, started_at DATETIME(3) NULL, ended_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), result ${CODE(10)} NOT NULL,
      failure JSON NULL, micros BIGINT NOT NULL DEFAULT 0, PRIMARY KEY (step_run, n)) ${TABLE}`,
  `CREATE TABLE output (step_run ${ID} NOT NULL PRIMARY KEY, input_digest ${SHA} NULL, proposed JSON NOT NULL, decided JSON NULL, by_person ${ID} NULL) ${TABLE}`,
  // What calls cost and what they answered.
  `CREATE TABLE answer (digest ${SHA} NOT NULL PRIMARY KEY, service ${ID} NOT NULL, state ${CODE(8)} NOT NULL, holder ${ID} NOT NULL, token ${ID} NOT NULL, step_run ${ID} NOT NULL, reserved BIGINT NOT NULL DEFAULT 0,
      scope ${CODE(48)} NULL, start ${CODE(16)} NULL, body LONGBLOB NULL, micros BIGINT NOT NULL DEFAULT 0, at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), KEY answer_pending (state, holder)) ${TABLE}`,
  `CREATE TABLE spending_limit (scope ${CODE(48)} NOT NULL PRIMARY KEY, cap BIGINT NOT NULL, rev INT NOT NULL DEFAULT 1) ${TABLE}`,
  `CREATE TABLE limit_window (scope ${CODE(48)} NOT NULL, start ${CODE(16)} NOT NULL, cap BIGINT NOT NULL, spent BIGINT NOT NULL DEFAULT 0, reserved BIGINT NOT NULL DEFAULT 0, PRIMARY KEY (scope, start)) ${TABLE}`,
  `CREATE TABLE ledger (id ${ID} NOT NULL PRIMARY KEY, step_run ${ID} NULL, brief ${ID} NULL, pipeline ${ID} NULL, service ${ID} NOT NULL, at_desk BIGINT NOT NULL, what ${CODE(12)} NOT NULL,
      micros BIGINT NOT NULL, tokens_in INT NOT NULL DEFAULT 0, tokens_out INT NOT NULL DEFAULT 0, known TINYINT NOT NULL DEFAULT 1, KEY ledger_pipeline (pipeline, at_desk), KEY ledger_brief (brief), KEY ledger_at (at_desk)) ${TABLE}`,
  `CREATE TABLE incident (id ${ID} NOT NULL PRIMARY KEY, service ${CODE(64)} NOT NULL, cause ${CODE(32)} NOT NULL, open TINYINT NULL, failure JSON NOT NULL, opened_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
      closed_at DATETIME(3) NULL, UNIQUE KEY incident_one (service, cause, open)) ${TABLE}`,
  `CREATE TABLE event (id ${ID} NOT NULL PRIMARY KEY, at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), noun ${CODE(16)} NOT NULL, noun_id ${ID} NOT NULL, rev INT NOT NULL DEFAULT 0, KEY event_at (at)) ${TABLE}`,
  `CREATE TABLE schedule (id ${ID} NOT NULL PRIMARY KEY, kind ${CODE(16)} NOT NULL, ref ${ID} NOT NULL, due_desk BIGINT NOT NULL, every_minutes INT NOT NULL, UNIQUE KEY schedule_ref (kind, ref), KEY schedule_due (due_desk)) ${TABLE}`,
  `CREATE TABLE firing (schedule ${ID} NOT NULL, due_desk BIGINT NOT NULL, at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), PRIMARY KEY (schedule, due_desk)) ${TABLE}`,
  // Material and files, by content.
  `CREATE TABLE material (digest ${SHA} NOT NULL PRIMARY KEY, address VARCHAR(1000) NOT NULL, title VARCHAR(500) NOT NULL, language CHAR(2) NOT NULL, at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3)) ${TABLE}`,
  `CREATE TABLE passage (material ${SHA} NOT NULL, n INT NOT NULL, locator JSON NOT NULL, text MEDIUMTEXT NOT NULL, PRIMARY KEY (material, n)) ${TABLE}`,
  `CREATE TABLE file (digest ${SHA} NOT NULL PRIMARY KEY, mime ${CODE(64)} NOT NULL, bytes BIGINT NOT NULL, width INT NULL, height INT NULL, at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3)) ${TABLE}`,
  `CREATE TABLE file_chunk (digest ${SHA} NOT NULL, n INT NOT NULL, body MEDIUMBLOB NOT NULL, PRIMARY KEY (digest, n)) ${TABLE}`,
  // Articles and where they go.
  `CREATE TABLE article (id ${ID} NOT NULL PRIMARY KEY, brief ${ID} NOT NULL, line ${EXACT(160)} NOT NULL DEFAULT '', blog ${ID} NULL, family ${ID} NOT NULL, language CHAR(2) NOT NULL, trial TINYINT NOT NULL DEFAULT 0,
      standing ${CODE(12)} NOT NULL, current ${ID} NULL, passed ${ID} NULL, title VARCHAR(500) NOT NULL DEFAULT '', words INT NOT NULL DEFAULT 0, rev INT NOT NULL DEFAULT 1,
      created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), UNIQUE KEY article_line (brief, line), KEY article_blog (blog, standing, id), KEY article_list (trial, id), KEY article_family (family)) ${TABLE}`,
  `CREATE TABLE article_revision (id ${ID} NOT NULL PRIMARY KEY, article ${ID} NOT NULL, parent ${ID} NULL, by_step ${ID} NULL, by_person ${ID} NULL, document JSON NOT NULL, words INT NOT NULL,
      sealed_at DATETIME(3) NULL, created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), KEY revision_article (article, id)) ${TABLE}`,
  `CREATE TABLE placement (article ${ID} NOT NULL, blog ${ID} NOT NULL, due_desk BIGINT NOT NULL, pinned TINYINT NOT NULL DEFAULT 0, PRIMARY KEY (article, blog), KEY placement_due (blog, due_desk)) ${TABLE}`,
  `CREATE TABLE publication (id ${ID} NOT NULL PRIMARY KEY, article ${ID} NOT NULL, blog ${ID} NOT NULL, key_ ${CODE(16)} NOT NULL, state ${CODE(12)} NOT NULL, as_ ${CODE(12)} NOT NULL, address VARCHAR(1000) NULL, etag VARCHAR(200) NULL,
      revision ${ID} NULL, out_desk BIGINT NULL, rev INT NOT NULL DEFAULT 1, created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), UNIQUE KEY publication_one (article, blog), UNIQUE KEY publication_key (key_), KEY publication_blog (blog, out_desk)) ${TABLE}`,
  `CREATE TABLE intent (id ${ID} NOT NULL PRIMARY KEY, key_ ${CODE(120)} NOT NULL, kind ${CODE(16)} NOT NULL, step_run ${ID} NOT NULL, state ${CODE(8)} NOT NULL, token ${ID} NOT NULL, due_at DATETIME(3) NOT NULL, result JSON NULL,
      made_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3), ended_at DATETIME(3) NULL, UNIQUE KEY intent_key (key_), KEY intent_due (state, due_at)) ${TABLE}`,
];
