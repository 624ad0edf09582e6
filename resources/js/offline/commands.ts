/**
 * What a person asks the server to record. Each area says here, by declaration merging, which kinds it has and what each
 * carries, and registers how one is sent.
 */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type
export interface CommandMap {}

/** A command of one kind, or of any. */
export type Command<K extends keyof CommandMap = keyof CommandMap> = {
  [N in K]: { kind: N } & CommandMap[N];
}[K];

/** A command as it waits on the device. */
export interface QueuedCommand<K extends keyof CommandMap = keyof CommandMap> {
  /** The device's own counter. */
  counter: number;
  /** The Idempotency-Key, a UUIDv7. */
  key: string;
  /** What it is recorded in. */
  attempt: string;
  /** The entry that the attempt walks, where the walk knows it. */
  entry?: string;
  /** Whose command it is. */
  user: string;
  command: Command<K>;
  /** When it was done, by the clock of the device. */
  at: string;
  /** Set when the server refused it: what it said. It is kept, and not sent again by itself. */
  refused?: string;
  /** Set while it must not leave the device: a picture that is to be looked over first. */
  held?: boolean;
}

/** A request before the stamp of the device is added to it. */
export interface CommandRequest {
  method: 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  path: string;
  body: Record<string, unknown>;
  /** Sent as a form, with this file where there is one. */
  form?: { file: Blob | null; name: string };
}

/** What the outbox has to know of a kind. */
export interface CommandKind<K extends keyof CommandMap> {
  /** What it is called when the server refuses it, such as "A verdict". */
  label: string;
  request(command: Command<K>, queued: QueuedCommand): CommandRequest;
  /** A file that is looked over before it is kept on the device. */
  upload?(command: Command<K>): { file: Blob; name: string } | null;
  /** The same with another file. */
  withFile?(command: Command<K>, file: Blob): Command<K>;
  /** The thing it makes or changes: what is done with it makes no sense without it. */
  subject?(command: Command<K>): string;
  /** Whether it makes its subject, or begins the attempt that the others are recorded in. */
  creates?: 'subject' | 'attempt';
}

const kinds = new Map<string, CommandKind<keyof CommandMap>>();

/** Registers the kinds of an area. */
export function registerCommands(of: { [K in keyof CommandMap]?: CommandKind<K> }): void {
  for (const [kind, definition] of Object.entries(of))
    kinds.set(kind, definition as unknown as CommandKind<keyof CommandMap>);
}

/** How commands of a kind are sent. Throws for one that no area has registered. */
export function kindOf(command: Command): CommandKind<keyof CommandMap> {
  const kind = kinds.get((command as { kind: string }).kind);
  if (!kind) throw new Error(`No area knows the command ${JSON.stringify(command)}.`);
  return kind;
}

/** The thing that a command makes or changes; null for one that stands for itself. */
export function subjectOf(command: Command): string | null {
  return kindOf(command).subject?.(command) ?? null;
}

/** The request that delivers a command, with when it was done and sent by the clock of the device. */
export function requestOf(queued: QueuedCommand): { path: string; init: RequestInit } {
  const { method, path, body, form } = kindOf(queued.command).request(queued.command, queued);
  const stamped = {
    ...body,
    device_time: queued.at,
    sent_at: new Date().toISOString(),
    counter: queued.counter,
  };
  if (!form)
    return {
      path,
      init: { method, headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(stamped) },
    };
  const data = new FormData();
  if (form.file) data.set('file', form.file, form.name);
  for (const [name, value] of Object.entries(stamped))
    if (value !== null && value !== undefined) data.set(name, String(value));
  return { path, init: { method, body: data } };
}
