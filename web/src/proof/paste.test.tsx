// @vitest-environment jsdom
import { describe, expect, it } from 'vitest';
import { blocksOfHtml, pasted } from './paste.ts';

/** Blocks without the ids they do not have yet. */
const read = (html: string) => blocksOfHtml(html).map(({ id: _, ...rest }) => rest);
const p = (text: string) => ({ type: 'paragraph', content: [{ text }] });

describe('what is pasted', () => {
  it('from a page is its headings, texts, lists, quotations and tables', () => {
    expect(
      read(`<h1>Strings</h1><p>Gut <b>answers</b> <a href="https://a.example/x">sooner</a>.</p><ul><li>One<ul><li>Within</li></ul></li><li><p>Two</p></li></ul>
        <ol><li>First</li></ol><blockquote><p>Slowly.</p></blockquote><h5>Small</h5><script>alert(1)</script><style>p{}</style>`),
    ).toEqual([
      { type: 'heading', level: 2, text: 'Strings' },
      {
        type: 'paragraph',
        content: [
          { text: 'Gut ' },
          { text: 'answers', marks: ['strong'] },
          { text: ' ' },
          { text: 'sooner', link: { to: 'address', address: 'https://a.example/x' } },
          { text: '.' },
        ],
      },
      { type: 'list', ordered: false, items: [[{ text: 'One' }], [{ text: 'Within' }], [{ text: 'Two' }]] },
      { type: 'list', ordered: true, items: [[{ text: 'First' }]] },
      { type: 'quote', content: [{ text: 'Slowly.' }] },
      { type: 'heading', level: 4, text: 'Small' },
    ]);
  });

  it('from a word processor that draws lists as paragraphs is a list, without its signs', () => {
    const item = (sign: string, text: string) =>
      `<p class="MsoListParagraph" style="mso-list:l0 level1 lfo1"><span style="font-family:Symbol">${sign}<span style="font:7pt">&nbsp;&nbsp; </span></span>${text}<o:p></o:p></p>`;
    expect(
      read(
        `<html xmlns:o="urn:x"><head><style>p.MsoNormal{margin:0}</style></head><body><!--StartFragment--><p class="MsoNormal"><b><span>Bold</span></b> words<o:p></o:p></p>${item('·', 'One')}${item('·', 'Two')}${item('1.', 'First')}<!--EndFragment--></body></html>`,
      ),
    ).toEqual([
      { type: 'paragraph', content: [{ text: 'Bold', marks: ['strong'] }, { text: ' words' }] },
      { type: 'list', ordered: false, items: [[{ text: 'One' }], [{ text: 'Two' }]] },
      { type: 'list', ordered: true, items: [[{ text: 'First' }]] },
    ]);
  });

  it('from a word processor that wraps the page in an element of no weight is not all bold', () => {
    expect(
      read(
        '<meta charset="utf-8"><b style="font-weight:normal" id="x"><p dir="ltr"><span style="font-weight:400">Plain and </span><span style="font-weight:700;font-style:italic">strong</span></p><br><p dir="ltr"><span>Next</span></p></b>',
      ),
    ).toEqual([
      { type: 'paragraph', content: [{ text: 'Plain and ' }, { text: 'strong', marks: ['emphasis', 'strong'] }] },
      p('Next'),
    ]);
  });

  it('from one that parts paragraphs by divisions and breaks is parted likewise', () => {
    expect(read('<div><div>One<br>line</div><div><font face="Serif">Two</font></div></div>tail')).toEqual([
      p('One line'),
      p('Two'),
      p('tail'),
    ]);
  });

  it('as a range of a sheet is a table; a single cell is its words', () => {
    expect(
      read(
        '<table><caption>Salt</caption><tbody><tr><td>Jar</td><td>Grams</td></tr><tr><td>1 l</td><td><b>20</b></td></tr><tr><td></td><td></td></tr></tbody></table>',
      ),
    ).toEqual([
      {
        type: 'table',
        caption: [{ text: 'Salt' }],
        head: [[{ text: 'Jar' }], [{ text: 'Grams' }]],
        rows: [[[{ text: '1 l' }], [{ text: '20', marks: ['strong'] }]]],
      },
    ]);
    expect(read('<table><tr><td>alone</td></tr></table>')).toEqual([p('alone')]);
  });

  it('leads nowhere but to the web, loads nothing and holds nothing to run', () => {
    expect(
      read(
        '<p><a href="javascript:alert(1)">press</a> <img src="https://x.example/p.png" onerror="x()"><a href="file:///etc">file</a></p>',
      ),
    ).toEqual([p('press file')]);
  });

  it('as Markdown is read; plain words and what was copied here are left to the editor', () => {
    expect(pasted('', '## Strings\n\n- One\n- Two')?.map(({ type }) => type)).toEqual(['heading', 'list']);
    expect(pasted('', 'See [this](https://a.example).')).toHaveLength(1);
    expect(pasted('', 'Just words, 3 - 2 = 1.')).toBeNull();
    expect(pasted('<p data-pm-slice="1 1 []">x</p>', 'x')).toBeNull();
  });

  it('is read in a moment, however long and deep it is', () => {
    const deep = `${'<div>'.repeat(400)}words${'</div>'.repeat(400)}`;
    expect(read(deep)).toEqual([p('words')]);
    expect(read('<p>x</p>'.repeat(3_000))).toHaveLength(3_000);
    expect(pasted('', '['.repeat(50_000))).toBeNull();
  });
});
