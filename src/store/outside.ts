import * as z from 'zod';
import { entrySchema } from '../core/log/entries';
import { engineLink, type EngineLink } from '../engine/client';
import { browserStorage, type BrowserStorage } from '../storage';

/** What one window says to the others of this program. */
const messageSchema = z.discriminatedUnion('kind', [
  /** Entries were kept, behind all others. `next`: the first free place of the log after them. */
  z.object({ kind: z.literal('entries'), id: z.string(), entries: z.array(entrySchema), next: z.number() }),
  z.object({ kind: z.literal('removed'), id: z.string() }),
  z.object({ kind: z.literal('replaced'), id: z.string(), by: z.string() }),
  z.object({ kind: z.literal('renamed'), id: z.string(), name: z.string() }),
  /** The list of kept extracts changed. */
  z.object({ kind: z.literal('listed') }),
  z.object({ kind: z.literal('standing') }),
]);
export type Message = z.infer<typeof messageSchema>;

export interface Windows {
  say(message: Message): void;
  hear(heard: (message: Message) => void): void;
}

/** Everything outside the page that a session has to do with. */
export interface Outside {
  engine: EngineLink;
  storage: BrowserStorage;
  windows: Windows;
  newId(): string;
  now(): Date;
}

let connected: Outside | null = null;

/** What the session has to do with: the browser's own, unless a test put something in its place. */
export const outside = (): Outside => (connected ??= ofTheBrowser());
export const connect = (made: Outside): void => void (connected = made);

function ofTheBrowser(): Outside {
  return {
    engine: engineLink(),
    storage: browserStorage,
    windows: otherWindows(),
    newId: () => crypto.randomUUID(),
    now: () => new Date(),
  };
}

function otherWindows(): Windows {
  if (typeof BroadcastChannel === 'undefined') return { say: () => undefined, hear: () => undefined };
  const channel = new BroadcastChannel('dig-first');
  return {
    say: (message) => channel.postMessage(message),
    hear: (heard) =>
      channel.addEventListener('message', ({ data }: MessageEvent<unknown>) => {
        const message = messageSchema.safeParse(data);
        if (message.success) heard(message.data);
      }),
  };
}
