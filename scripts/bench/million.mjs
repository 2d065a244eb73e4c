// Reads a made-up sheet of a million rows, by the parser alone or as a source is read; prints milliseconds and peak memory.
import { Readable } from 'node:stream';
import { SheetSettings } from '@grivo/contract';
import { guessSheet } from '@grivo/core';
import Papa from 'papaparse';
import { openTable } from '../../server/src/formats/tables/open.ts';
import { ReadingRoom } from '../../server/src/ground/reading/room.ts';
import { begunTable, foundReader } from '../../server/src/nouns/sources/kinds/sheet.ts';

const ROWS = 1_000_000;

/** The sheet in parts of a thousand rows, never whole in memory. */
async function* parts() {
  yield Buffer.from('SKU,Name,Kind,Litres,Price,Notes\n');
  for (let at = 0; at < ROWS; at += 1_000) {
    let text = '';
    for (let i = at; i < at + 1_000; i++)
      text += `CH-${i},"Crock, number ${i}",crock,${i % 20},${(i % 900) / 10},A crock for a shelf\n`;
    yield Buffer.from(text);
  }
}

async function parser() {
  let rows = 0;
  await new Promise((resolve, reject) => {
    Papa.parse(Readable.from(parts()).setEncoding('utf8'), {
      chunk: ({ data }) => {
        rows += data.length;
      },
      complete: resolve,
      error: reject,
    });
  });
  return rows;
}

async function ours() {
  const opened = await openTable(new ReadingRoom(), parts(), { encoding: 'guess', separator: 'guess', table: null });
  const { head, rows } = await begunTable(opened.table);
  const settings = SheetSettings.parse({ kind: 'sheet', ...guessSheet(head.slice(0, 60)) });
  const found = foundReader(settings, 'Bench');
  let n = 0;
  for await (const batch of rows) n += found(batch).length;
  return n;
}

let peak = 0;
const watch = setInterval(() => {
  peak = Math.max(peak, process.memoryUsage().rss);
}, 20);
const from = performance.now();
const rows = process.argv[2] === 'parser' ? await parser() : await ours();
clearInterval(watch);
peak = Math.max(peak, process.memoryUsage().rss);
if (rows < ROWS) throw new Error(`only ${rows} rows were read`);
console.log(JSON.stringify({ ms: performance.now() - from, peakMB: peak / 1_048_576 }));
