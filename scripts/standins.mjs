// The stand-ins as a process of their own. Prints its address on the first line.
import { BLOGS, PAGES, start } from '@grivo/standins';

const [folder = '', port = '0'] = process.argv.slice(2);
const standIns = await start({ pages: PAGES, blogs: BLOGS, folder: folder || null, port: Number(port) });
console.log(standIns.address);
const stop = () => standIns.close().then(() => process.exit(0));
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
