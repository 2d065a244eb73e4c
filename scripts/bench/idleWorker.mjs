// A worker whose steps do nothing but give a little that differs: what remains is the engine.
import { randomBytes } from 'node:crypto';
import { assemble } from '../../server/src/api/product.ts';

const product = await assemble({ databaseUrl: process.argv[2], secretKey: randomBytes(32), migrates: false });
let n = 0;
const nothing = async () => ({ kind: 'done', fields: { n: ++n, text: `what step ${n} gave` } });
await product.work('worker', { performers: { check: nothing, fetch: nothing } });
console.log('works');
process.on('SIGTERM', () => product.close().then(() => process.exit(0)));
