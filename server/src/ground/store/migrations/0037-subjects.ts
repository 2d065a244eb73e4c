import type { MigrationInterface, QueryRunner } from 'typeorm';
import { subjectDigest } from '../subject.ts';

const AT_ONCE = 2_000;

/** Briefs on one subject are found, however it is put. */
export class Subjects1767600000000 implements MigrationInterface {
  readonly name = 'Subjects1767600000000';

  async up(q: QueryRunner): Promise<void> {
    await q.query(
      'ALTER TABLE brief ADD subject_sign CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NULL, ADD KEY brief_subject (subject_sign, id)',
    );
    for (let after = ''; ; ) {
      const briefs: { id: string; subject: string; language: string | null }[] = await q.query(
        `SELECT b.id, b.subject, JSON_VALUE(v.document, '$.language') AS language FROM brief b
         JOIN brief_pin p ON p.brief = b.id AND p.main = 1 JOIN procedure_version v ON v.procedure_id = p.procedure_id AND v.n = p.version
         WHERE b.trial = 0 AND b.id > ? ORDER BY b.id LIMIT ${AT_ONCE}`,
        [after],
      );
      if (briefs.length === 0) return;
      after = briefs.at(-1)!.id;
      const whens = briefs.map(() => 'WHEN ? THEN ?').join(' ');
      await q.query(`UPDATE brief SET subject_sign = CASE id ${whens} END WHERE id IN (?)`, [
        ...briefs.flatMap(({ id, subject, language }) => [id, subjectDigest(subject, language ?? 'en')]),
        briefs.map(({ id }) => id),
      ]);
    }
  }

  async down(q: QueryRunner): Promise<void> {
    await q.query('ALTER TABLE brief DROP KEY brief_subject, DROP COLUMN subject_sign');
  }
}
