import { expect, test } from 'vitest';
import { laidOutHtml } from './laidOutHtml.ts';

const read = (html: string) => {
  let n = 0;
  return laidOutHtml(html, () => `b${++n}`);
};

test('a piece of a web page becomes blocks in its order', () => {
  expect(
    read(`<h1>Setting a bridge</h1>
      Loose words <b>stay</b>.
      <p>Cut it <em>thin</em>, <a href="https://a.example/x">as here</a><br>or thinner. <img src="https://a.example/p.png" alt="A bridge"></p>
      <ol><li>Mark</li><li>Cut</li></ol>
      <table><caption>Woods</caption><tr><th>Wood</th><th>Use</th></tr><tr><td>Maple</td></tr></table>
      <blockquote><p>Listen first.</p><cite>— N. Luthier</cite></blockquote>
      <figure><img src="data:image/png;base64,AAAA" alt=""><figcaption>The cut. Photo: N. Luthier</figcaption></figure>
      <h5>Deep</h5><div><div><p>Nested.</p></div></div>`).parts,
  ).toMatchObject([
    { type: 'heading', level: 2, text: 'Setting a bridge' },
    { type: 'paragraph', content: [{ text: ' Loose words ' }, { text: 'stay', marks: ['strong'] }, { text: '. ' }] },
    {
      type: 'paragraph',
      content: [
        { text: 'Cut it ' },
        { text: 'thin', marks: ['emphasis'] },
        { text: ', ' },
        { text: 'as here', link: { to: 'address', address: 'https://a.example/x' } },
        { text: ' ' },
        { text: 'or thinner. ' },
      ],
    },
    { type: 'picture asked', address: 'https://a.example/p.png', alternative: 'A bridge' },
    { type: 'list', ordered: true, items: [[{ text: 'Mark' }], [{ text: 'Cut' }]] },
    {
      type: 'table',
      caption: [{ text: 'Woods' }],
      head: [[{ text: 'Wood' }], [{ text: 'Use' }]],
      rows: [[[{ text: 'Maple' }], []]],
    },
    { type: 'quote', content: [{ text: 'Listen first.' }], credit: [{ text: 'N. Luthier' }] },
    { type: 'picture asked', caption: 'The cut.', credit: 'Photo: N. Luthier' },
    { type: 'heading', level: 4, text: 'Deep' },
    { type: 'paragraph', content: [{ text: 'Nested.' }] },
  ]);
});

test('films are asked for by their address, and what has no place is named once', () => {
  const { parts, left } = read(`<iframe src="https://films.example/player/1" title="Setting a bridge"></iframe>
    <video><source src="https://films.example/1.mp4"></video><video></video>
    <p>https://films.example/watch/2</p>
    <script>alert(1)</script><form><input></form><form></form><svg><path/></svg><style>p{}</style><hr>
    <p onclick="alert(1)">Words <a href="javascript:alert(1)">stay</a></p>`);
  expect(parts).toMatchObject([
    {
      type: 'video asked',
      address: 'https://films.example/player/1',
      words: [{ content: [{ text: 'Setting a bridge' }] }],
    },
    { type: 'video asked', address: 'https://films.example/1.mp4' },
    { type: 'video asked', address: 'https://films.example/watch/2' },
    { type: 'paragraph', content: [{ text: 'Words ' }, { text: 'stay' }] },
  ]);
  expect(parts.at(-1)).not.toHaveProperty('content.1.link');
  expect(left).toEqual(['a video without an address', 'a script', 'a form', 'a drawing (SVG)']);
});

test('what is tangled is named, not read', () => {
  expect(read('<div>'.repeat(1_000))).toEqual({ parts: [], left: [expect.stringContaining('400 deep')] });
});
