// A cluster of three MariaDB machines on this one, for trying what happens when they die. Needs root: the servers run as
// the user mysql, whose folders the hand-over between them writes.
import { spawn, spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { freePort, greets } from './mariadb.mjs';

const SERVER = '/usr/sbin/mariadbd';
const PROVIDER = '/usr/lib/galera/libgalera_smm.so';

function run(command, args) {
  const { status, stderr, error } = spawnSync(command, args, { encoding: 'utf8' });
  if (status !== 0) throw new Error(`${command} failed: ${stderr || error?.message}`);
}

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** @returns the nodes by number, each to be started, killed and started again; and one address that names them all */
export async function cluster(folder) {
  if (process.getuid?.() !== 0) throw new Error('The cluster needs root: its servers run as the user mysql.');
  for (const path of [PROVIDER, '/usr/bin/rsync'])
    if (!existsSync(path)) throw new Error(`${path} is missing: apt-get install -y mariadb-server rsync`);
  mkdirSync(folder, { recursive: true });
  // The user mysql must be able to pass through to its own folders.
  for (const path of [dirname(folder), folder]) chmodSync(path, 0o711);
  const password = randomBytes(18).toString('base64url');
  const nodes = [];
  for (let i = 1; i <= 3; i++)
    nodes.push({
      name: `node-${i}`,
      data: join(folder, `n${i}`),
      port: await freePort(),
      group: await freePort(),
      gradual: await freePort(),
      whole: await freePort(),
      child: null,
      ended: true,
      begun: false,
    });
  const everyone = `gcomm://${nodes.map(({ group }) => `127.0.0.1:${group}`).join(',')}`;

  function prepare(node) {
    mkdirSync(node.data, { recursive: true, mode: 0o700 });
    run('chown', ['mysql:mysql', node.data]);
    run('mariadb-install-db', [
      '--no-defaults',
      `--datadir=${join(node.data, 'db')}`,
      '--auth-root-authentication-method=normal',
      '--skip-test-db',
      '--skip-name-resolve',
      '--user=mysql',
    ]);
    run('chown', ['-R', 'mysql:mysql', node.data]);
  }

  /** Starts a node and waits until it is in step with the others. */
  async function start(node) {
    if (!node.begun) prepare(node);
    // Only the very first start of the first node makes a cluster; whoever comes later joins the others.
    const first = node === nodes[0] && !node.begun;
    node.begun = true;
    const init = join(node.data, 'init.sql');
    if (first) {
      writeFileSync(
        init,
        [
          `CREATE USER IF NOT EXISTS 'grivo'@'127.0.0.1' IDENTIFIED BY '${password}';`,
          "GRANT ALL ON *.* TO 'grivo'@'127.0.0.1';",
          'CREATE DATABASE IF NOT EXISTS grivo CHARACTER SET utf8mb4 COLLATE utf8mb4_uca1400_ai_ci;',
        ].join('\n'),
      );
      run('chown', ['mysql:mysql', init]);
    }
    node.ended = false;
    node.child = spawn(
      SERVER,
      [
        '--no-defaults',
        '--user=mysql',
        `--datadir=${join(node.data, 'db')}`,
        `--socket=${join(node.data, 's')}`,
        `--pid-file=${join(node.data, 'pid')}`,
        `--log-error=${join(node.data, 'err')}`,
        ...(first ? [`--init-file=${init}`, '--wsrep-new-cluster'] : []),
        '--bind-address=127.0.0.1',
        `--port=${node.port}`,
        '--skip-name-resolve',
        '--character-set-server=utf8mb4',
        '--collation-server=utf8mb4_uca1400_ai_ci',
        '--default-time-zone=+00:00',
        '--innodb-buffer-pool-size=128M',
        '--innodb-flush-log-at-trx-commit=1',
        '--max-connections=200',
        '--wsrep-on=ON',
        `--wsrep-provider=${PROVIDER}`,
        '--wsrep-cluster-name=grivo',
        `--wsrep-cluster-address=${everyone}`,
        `--wsrep-node-name=${node.name}`,
        '--wsrep-node-address=127.0.0.1',
        '--binlog-format=ROW',
        '--innodb-autoinc-lock-mode=2',
        '--wsrep-sst-method=rsync',
        `--wsrep-sst-receive-address=127.0.0.1:${node.whole}`,
        `--wsrep-provider-options=gmcast.listen_addr=tcp://127.0.0.1:${node.group};ist.recv_addr=127.0.0.1:${node.gradual};gcache.size=64M`,
      ],
      { stdio: 'ignore', detached: true },
    );
    const { child } = node;
    child.once('exit', () => {
      node.ended = true;
    });
    for (let waited = 0; waited < 90_000; waited += 100) {
      if (node.ended) throw new Error(`${node.name} ended; see ${join(node.data, 'err')}`);
      if ((await greets(node.port)) && state(node) === 'Synced') return;
      await pause(100);
    }
    throw new Error(`${node.name} did not come into step within 90 s`);
  }

  function state(node) {
    const { stdout } = spawnSync(
      'mariadb',
      [
        '--no-defaults',
        `--host=127.0.0.1`,
        `--port=${node.port}`,
        '--user=grivo',
        `--password=${password}`,
        '--skip-column-names',
        '--batch',
        '-e',
        "SHOW STATUS LIKE 'wsrep_local_state_comment'",
      ],
      { encoding: 'utf8', timeout: 3_000 },
    );
    return stdout?.trim().split('\t')[1] ?? null;
  }

  return {
    nodes,
    start,
    inStep: () => nodes.filter((node) => !node.ended && state(node) === 'Synced').length,
    kill(node) {
      if (!node.ended) process.kill(node.child.pid, 'SIGKILL');
    },
    /** The address of the cluster for a process that prefers one node: that one first, the others after it. */
    url(first) {
      const order = [...nodes.slice(first), ...nodes.slice(0, first)];
      return `mysql://grivo:${password}@${order.map(({ port }) => `127.0.0.1:${port}`).join(',')}/grivo`;
    },
    async stop() {
      for (const node of nodes) {
        if (node.ended) continue;
        process.kill(node.child.pid, 'SIGTERM');
        for (let waited = 0; !node.ended && waited < 15_000; waited += 50) await pause(50);
        if (!node.ended) process.kill(node.child.pid, 'SIGKILL');
      }
    },
  };
}
