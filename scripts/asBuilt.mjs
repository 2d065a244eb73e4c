// Reads TypeScript as it is built: the loader of tests keeps the name of every function by a call of its own, which the
// programs as they run do not make.
import { register } from 'node:module';

register('./asBuiltHooks.mjs', import.meta.url);
