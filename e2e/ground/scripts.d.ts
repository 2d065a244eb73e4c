/** What the journeys use of the start scripts, which are plain JavaScript. */

declare module '*/scripts/build.mjs' {
  export function buildScreens(): boolean;
}

declare module '*/scripts/client.mjs' {
  export type Call = (method: string, path: string, body?: unknown) => Promise<unknown>;
  export function client(address: string, owner: { email: string; password: string }): Promise<Call>;
}

declare module '*/scripts/crockhaven.mjs' {
  type Call = (method: string, path: string, body?: unknown) => Promise<unknown>;
  export function setUp(call: Call, standIns: string): Promise<string[]>;
  export function live(
    call: Call,
    pipelines: string[],
    weeks: number,
    now: number,
    tell: (line: string) => void,
  ): Promise<void>;
}

declare module '*/scripts/processes.mjs' {
  export interface Installation {
    address: string;
    standIns: string;
    owner: { email: string; password: string; name: string };
    stop(): Promise<void>;
  }
  export function startAll(
    folder: string,
    options: { durable?: boolean; log?: string; allow?: string[] },
  ): Promise<Installation>;
}
