// The plain page's script: reads the lists every two seconds while somebody is signed in.
const at = (id) => document.getElementById(id);

async function call(path, options) {
  const response = await fetch(`/api${path}`, options);
  if (response.ok) return response.status === 204 ? null : response.json();
  throw Object.assign(new Error('problem'), { problem: await response.json() });
}

function row(title, note, standing, address) {
  const li = document.createElement('li');
  li.className = standing.replace(/ /g, '-');
  const name = document.createElement('span');
  if (address) {
    const link = document.createElement('a');
    link.href = address;
    link.textContent = title;
    name.append(link);
  } else name.textContent = title;
  const small = document.createElement('small');
  small.textContent = note;
  li.append(name, small);
  return li;
}

const empty = (text) => row(text, '', 'empty');

async function show() {
  const [{ briefs }, { articles }, { incidents }] = await Promise.all([
    call('/briefs'),
    call('/articles'),
    call('/incidents'),
  ]);
  at('briefs').replaceChildren(
    ...(briefs.length
      ? briefs.map((b) => row(b.subject, b.standing, b.standing))
      : [empty('No briefs yet. Switch a pipeline on, or take items into it.')]),
  );
  at('articles').replaceChildren(
    ...(articles.length
      ? articles.map((a) =>
          row(
            a.title || 'No title yet',
            `${a.words} words, ${a.standing}${a.outDesk ? ` ${new Date(a.outDesk).toLocaleDateString()}` : ''}`,
            a.standing,
            a.address,
          ),
        )
      : [empty('No articles yet.')]),
  );
  at('incidents').textContent = incidents.map((i) => `${i.sentence} ${i.mend}`).join(' ');
}

async function begin() {
  try {
    const person = await call('/session');
    at('who').textContent = person.name;
    at('enter').hidden = true;
    at('desk').hidden = at('leave').hidden = false;
    await show();
  } catch (error) {
    if (error.problem?.status !== 401) throw error;
    at('desk').hidden = at('leave').hidden = true;
    at('enter').hidden = false;
  }
}

at('enter').addEventListener('submit', async (event) => {
  event.preventDefault();
  const form = new FormData(event.target);
  try {
    await call('/session', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(Object.fromEntries(form)),
    });
    at('trouble').textContent = '';
    await begin();
  } catch (error) {
    at('trouble').textContent = error.problem
      ? `${error.problem.detail} ${error.problem.mend}`
      : 'Grivo does not answer.';
  }
});
at('leave').addEventListener('click', () => call('/session', { method: 'DELETE' }).then(() => location.reload()));
setInterval(() => !at('desk').hidden && show().catch(begin), 2_000);
begin();
