// The stand-ins as a process of their own: main [folder] [port] [mail port]. Prints its address on the first line.
import {
  BLOGS,
  CHANNELS,
  DOCUMENTS,
  ELSEWHERE,
  NEWS,
  PAGES,
  PODCASTS,
  SEARCHES,
  SHEETS,
  SHOPS,
} from './material/index.ts';
import { start } from './start.ts';

const [folder = '', port = '0', mailPort = '0'] = process.argv.slice(2);
const standIns = await start({
  pages: PAGES,
  blogs: BLOGS,
  channels: CHANNELS,
  sheets: SHEETS,
  elsewhere: ELSEWHERE,
  searches: SEARCHES,
  news: NEWS,
  shops: SHOPS,
  documents: DOCUMENTS,
  podcasts: PODCASTS,
  folder: folder || null,
  port: Number(port),
  mailPort: Number(mailPort),
});
console.log(standIns.address);
const stop = () => {
  standIns.close().then(
    () => process.exit(0),
    () => process.exit(1),
  );
};
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
