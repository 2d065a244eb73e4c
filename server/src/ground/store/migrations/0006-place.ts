import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Where an open step run is: in a lane (L), in a worker's hand (H), waiting for a time of the database (T) or of the desk
 * (D), stopped by an incident or without one (I). A run is in one place at a time, so one key serves what five did; runs
 * that have ended are in none, and cost one entry instead of five. (RTRIM says that no padding of CHAR is meant; without
 * it the server refuses the expression, since a mode of the session could pad.)
 */
export class Place1764500000000 implements MigrationInterface {
  readonly name = 'Place1764500000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      `ALTER TABLE step_run
         ADD place VARCHAR(48) CHARACTER SET ascii COLLATE ascii_bin GENERATED ALWAYS AS (CASE state
           WHEN 'ready' THEN CONCAT('L', lane)
           WHEN 'running' THEN CONCAT('H', RTRIM(holder))
           WHEN 'waiting' THEN IF(due_at IS NULL,
             CONCAT('D', LPAD(due_desk, 15, '0')),
             CONCAT('T', due_at))
           WHEN 'stopped' THEN CONCAT('I', COALESCE(RTRIM(incident), ''))
           ELSE NULL END) VIRTUAL,
         ADD KEY step_run_place (place, id), DROP KEY step_run_lane, DROP KEY step_run_due_at, DROP KEY step_run_due_desk,
         DROP KEY step_run_holder, DROP KEY step_run_incident`,
    );
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query(
      `ALTER TABLE step_run DROP KEY step_run_place, DROP COLUMN place, ADD KEY step_run_lane (lane, id),
         ADD KEY step_run_due_at (due_at), ADD KEY step_run_due_desk (due_desk), ADD KEY step_run_holder (holder),
         ADD KEY step_run_incident (incident)`,
    );
  }
}
