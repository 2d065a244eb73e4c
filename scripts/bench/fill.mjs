// Fills a store as years of work would: what one brief left behind, so many times over, and items beside.

/** Columns of a table that are not reckoned from others. */
async function columnsOf(db, table) {
  const rows = await db.rows(
    'SELECT column_name AS name FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = ? AND generation_expression IS NULL ORDER BY ordinal_position',
    [table],
  );
  return rows.map(({ name }) => name);
}

/**
 * Rows of a table, each so many times: named columns get an expression of `s.n` (the copy) and `s.t`, the template's row.
 * @param {Record<string, string>} changed what is not as in the template
 */
async function copies(db, table, where, many, changed) {
  const columns = await columnsOf(db, table);
  const values = columns.map((column) => changed[column] ?? `s.${column}`);
  await db.run(
    `INSERT INTO ${table} (${columns.join(', ')}) SELECT ${values.join(', ')} FROM seq_1_to_${many} q
     JOIN (SELECT x.*, ROW_NUMBER() OVER () AS t FROM ${table} x WHERE ${where}) s`,
  );
}

/** An id of a copy: a letter for its kind, the copy, the row of the template. Older than all others. */
const id = (kind, row = '0') => `CONCAT('0${kind}', LPAD(q.seq, 9, '0'), LPAD(${row}, 9, '0'))`;

/**
 * @param {import('../../server/src/ground/store/database.ts').Database} db
 * @param {{ brief: string, source: string, briefs: number, items: number }} of a brief that is out, and a source
 */
export async function fillStore(db, { brief, source, briefs, items }) {
  const of = `brief = '${brief}'`;
  const runs = `(SELECT id FROM step_run WHERE ${of})`;
  const [article] = await db.rows(`SELECT id FROM article WHERE ${of} ORDER BY id LIMIT 1`);
  await copies(db, 'brief', `id = '${brief}'`, briefs, {
    id: id('b'),
    subject: "CONCAT(s.subject, ' ', q.seq)",
    standing: "IF(q.seq % 50 = 0, 'waiting', IF(q.seq % 77 = 0, 'set aside', 'out'))",
  });
  await copies(db, 'brief_pin', of, briefs, { brief: id('b') });
  // Of what ran, what is open now is a small part, as in life.
  await copies(db, 'step_run', of, briefs, { id: id('r', 's.t'), brief: id('b'), place: 'DEFAULT' });
  await db.run(
    `INSERT INTO output (step_run, input_digest, proposed, decided) SELECT c.id, o.input_digest, JSON_OBJECT('passages', JSON_ARRAY()), NULL FROM step_run c
     JOIN step_run r ON r.brief = ? AND r.path = c.path AND r.round = c.round JOIN output o ON o.step_run = r.id WHERE c.brief LIKE '0b%'`,
    [brief],
  );
  await copies(db, 'ledger', `step_run IN ${runs}`, briefs, {
    id: id('l', 's.t'),
    brief: id('b'),
    step_run: id('r', 's.t'),
    // An hour apart: a month of them is a small part.
    at_desk: 's.at_desk - q.seq * 3600000',
  });
  await copies(db, 'article', `id = '${article.id}'`, briefs, {
    id: id('a'),
    brief: id('b'),
    family: id('b'),
    title: "CONCAT(s.title, ' ', q.seq)",
    n: 'NULL',
  });
  await copies(db, 'article_glance', `article = '${article.id}'`, briefs, {
    article: id('a'),
  });
  await db.run(
    `INSERT INTO article_word (word, block, mask) SELECT w.word, a.n DIV 32, BIT_OR(1 << a.n % 32) FROM article a
     JOIN (SELECT DISTINCT v.word FROM article_word v JOIN article t ON t.id = ? AND v.block = t.n DIV 32 AND v.mask >> t.n % 32 & 1) w
     WHERE a.id LIKE '0a%' GROUP BY w.word, a.n DIV 32 ON DUPLICATE KEY UPDATE mask = mask | VALUES(mask)`,
    [article.id],
  );
  await copies(db, 'placement', `article = '${article.id}'`, briefs, {
    article: id('a'),
    due_desk: 's.due_desk - q.seq * 3600000',
  });
  await copies(db, 'publication', `article = '${article.id}'`, briefs, {
    id: id('p'),
    article: id('a'),
    key_: "CONCAT('c', q.seq)",
    address: "CONCAT(s.address, '-', q.seq)",
    out_desk: 's.out_desk - q.seq * 3600000',
  });
  await db.run(
    `INSERT INTO intent (id, key_, kind, step_run, state, token, due_at, result) SELECT CONCAT('0i', LPAD(seq, 18, '0')), CONCAT('create/c', seq, '/1'), 'create',
     CONCAT('0r', LPAD(seq, 9, '0'), '000000001'), 'done', 'x', '2026-01-01', '"x"' FROM seq_1_to_${briefs}`,
  );
  await copies(db, 'link_page', `article = '${article.id}'`, briefs, {
    address_digest: 'SHA2(q.seq, 256)',
    address: "CONCAT(s.address, '-', q.seq)",
    article: id('a'),
    seen_at: 'DATE_SUB(s.seen_at, INTERVAL q.seq MINUTE)',
  });
  for (let from = 0; from < items; from += 100_000) {
    const many = Math.min(100_000, items - from);
    await db.run(
      `INSERT INTO item (id, source, identity, content_digest, subject, fields, fingerprint) SELECT CONCAT('0t', LPAD(? + seq, 18, '0')), ?,
       SHA2(CONCAT('i', ? + seq), 256), SHA2(? + seq, 256), CONCAT('phrase number ', ? + seq), '{}', SHA2(CONCAT('f', ? + seq), 256) FROM seq_1_to_${many}`,
      [from, source, from, from, from, from],
    );
  }
  await db.run(
    `INSERT INTO event (id, at, noun, noun_id) SELECT CONCAT('0e', LPAD(seq, 18, '0')), '2026-01-01', 'brief', CONCAT('0b', LPAD(seq, 9, '0'), '000000000') FROM seq_1_to_${briefs}`,
  );
  await db.run(
    `INSERT INTO taken (pipeline, fingerprint, item, brief, source) SELECT (SELECT pipeline FROM brief WHERE id = ?), SHA2(CONCAT('f', seq), 256), CONCAT('0t', LPAD(seq, 18, '0')), CONCAT('0b', LPAD(seq, 9, '0'), '000000000'), ? FROM seq_1_to_${Math.min(briefs, items)}`,
    [brief, source],
  );
  const tables = await db.rows(
    "SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE() AND table_type = 'BASE TABLE'",
  );
  await db.run(`ANALYZE TABLE ${tables.map(({ name }) => name).join(', ')}`);
}
