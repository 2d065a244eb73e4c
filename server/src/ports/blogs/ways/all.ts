import type { BlogWay } from '@grivo/contract';
import type { BlogPort } from '../blog.ts';
import { AtomBlog } from './atomBlog.ts';
import type { WayPorts } from './calls.ts';
import { FolderBlog } from './folder/folderBlog.ts';
import { HookBlog } from './hookBlog.ts';
import { Micropub } from './micropub.ts';
import { XmlRpcBlog } from './xmlRpcBlog.ts';

/** Every way to a blog there is. One more is its adapter and a line here. */
export function allWays(
  ports: WayPorts & { folders: readonly string[] },
): Record<BlogWay, BlogPort> & { folder: FolderBlog } {
  return {
    micropub: new Micropub(ports),
    atom: new AtomBlog(ports),
    'xml-rpc': new XmlRpcBlog(ports),
    folder: new FolderBlog(ports),
    hook: new HookBlog(ports),
  };
}
