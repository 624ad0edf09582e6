import { computed, reactive, shallowReactive } from 'vue';
import { v7 as uuid7 } from 'uuid';
import { Problem, send } from '@/api/client';
import { wellFormed } from '@/api/wellFormed';
import { kindOf, requestOf, subjectOf, type Command, type QueuedCommand } from './commands';
import { checkFile } from './files';
import { device, isNoRoom, queuedOnDevice } from './device';

/** Called when the server has taken a command, with its answer. */
type Settled = (queued: QueuedCommand, answer: Record<string, unknown>) => Promise<void> | void;
/** What tabs tell each other: something else waits now, or this command was taken. */
type Word = { taken: QueuedCommand; answer: Record<string, unknown> } | 'changed';

/** How long an answer may take, in ms, before the server counts as away: a file has a ms more for each 20 bytes to travel. */
const patience = (queued: QueuedCommand): number => {
  const file = kindOf(queued.command).upload?.(queued.command)?.file;
  return 30_000 + (file ? Math.ceil(file.size / 20) : 0);
};

/** How long what the server failed over eight times is left alone, in ms. */
const REST = 120_000;

/**
 * Everything recorded in a walk goes through here: first written on the device, shown at once, then sent in
 * order with its key. Answers settle it. A failed request, not the browser, says that the server is away.
 */
class Outbox {
  /** What waits, in order. Refused commands stay until a person decides. */
  readonly commands = shallowReactive<QueuedCommand[]>([]);
  readonly state = reactive({
    loaded: false,
    sending: false,
    /** Since when the server is away; null while it answers. */
    awaySince: null as string | null,
    /** Why nothing is sent although the server answers. */
    stopped: null as string | null,
    /** Since when the server fails over what waits of some attempt; it is tried again, and the rest goes on. */
    failsSince: null as string | null,
    /** The device could not keep something: what to do. */
    full: null as string | null,
    savedAt: null as string | null,
  });
  readonly waiting = computed(() => this.commands.filter((a) => a.refused === undefined && !a.held));
  /** Pictures that are to be looked over before they leave the device. */
  readonly held = computed(() => this.commands.filter((a) => a.held && a.refused === undefined));
  readonly refused = computed(() => this.commands.filter((a) => a.refused !== undefined));

  private settled = new Set<Settled>();
  private timer: ReturnType<typeof setTimeout> | null = null;
  private pause = 1000;
  /** How often the server failed over a command. */
  private readonly faults = new Map<string, number>();
  /** Attempts of which nothing is sent until then (ms): a command that the server fails over holds up its own attempt alone. */
  private readonly resting = new Map<string, number>();
  private user: string | null = null;
  /** The command that is on its way right now. */
  private sendingKey: string | null = null;
  /** What was taken while this page is open: a list read from the device before that may still hold it. */
  private readonly gone = new Set<string>();
  private readonly others = new BroadcastChannel('lucid-step-outbox');

  constructor() {
    this.others.onmessage = ({ data }: MessageEvent<Word>) => void this.heard(data);
  }

  /** Another tab sent something: here too it becomes part of what the server knows, before it leaves the list. */
  private async heard(word: Word): Promise<void> {
    if (word !== 'changed' && word.taken.user === this.user) await this.settle(word.taken, word.answer);
    await this.reload();
  }

  private async settle(queued: QueuedCommand, answer: Record<string, unknown>): Promise<void> {
    if (this.gone.has(queued.key)) return;
    for (const listener of this.settled) await listener(queued, answer);
    this.gone.add(queued.key);
    this.state.savedAt = new Date().toISOString();
  }

  private tell(word: Word): void {
    this.others.postMessage(word);
  }

  /** Where a command stands in the list: the list may have been read anew since, with other objects for the same commands. */
  private at(queued: QueuedCommand): number {
    return this.commands.findIndex((a) => a.key === queued.key);
  }

  private async deliver(queued: QueuedCommand): Promise<Record<string, unknown>> {
    const { path, init } = requestOf(queued);
    const headers = new Headers(init.headers);
    headers.set('Idempotency-Key', queued.key);
    // A server that takes a request and says nothing is away; the same key makes sending it again harmless.
    const signal = AbortSignal.timeout(patience(queued));
    const response = await send(path, { ...init, headers, signal });
    return response.json().catch(() => ({})) as Promise<Record<string, unknown>>;
  }

  /** Begins to send for a person. Commands of another person on this device wait for them. */
  async begin(user: string): Promise<void> {
    this.user = user;
    this.state.stopped = null;
    // The browser may else throw away what waits when space runs short.
    void navigator.storage?.persist?.().catch(() => false);
    await this.reload();
    this.kick();
  }

  /**
   * Writes a command on the device; it is safe when this returns. Throws a Problem, and keeps nothing, when the file is none
   * that the server would take, or when neither the device nor the server has room for it.
   *
   * @param entry the entry that the attempt walks
   * @param held  a picture that is to be looked over before it leaves the device
   */
  async add(
    attempt: string,
    command: Command,
    entry?: string,
    held = false,
    at = new Date(),
  ): Promise<QueuedCommand> {
    if (this.user === null) throw new Error('Nobody is signed in.');
    const upload = kindOf(command).upload?.(command);
    if (upload) await checkFile(upload.file, upload.name);
    const queued = {
      key: uuid7(),
      attempt,
      user: this.user,
      command: wellFormed(command),
      at: at.toISOString(),
    } as QueuedCommand;
    if (entry !== undefined) queued.entry = entry;
    if (held) queued.held = true;
    try {
      queued.counter = await (await device()).add('acts', queued);
      this.state.full = null;
    } catch (error) {
      // Anything else is a mistake of the application and must not look like a full device.
      if (!isNoRoom(error)) throw error;
      if (!held && (await this.sendUnkept(queued))) return queued;
      this.state.full =
        'This device could not keep the last entry: its storage is full, and the server does not answer. ' +
        'Free some space and repeat it; what you typed is still there.';
      throw new Problem(507, 'device-full', this.state.full, {}, { cause: String(error) });
    }
    // The list may have been read anew meanwhile, with this command in it.
    if (this.at(queued) < 0 && !this.gone.has(queued.key)) this.commands.push(queued);
    this.tell('changed');
    this.kick();
    return queued;
  }

  /** Sends a command that the device has no room for, if nothing waits before it and the server answers. */
  private async sendUnkept(queued: QueuedCommand): Promise<boolean> {
    if (this.waiting.value.length > 0 || this.state.awaySince !== null) return false;
    try {
      const unkept = { ...queued, counter: 0 };
      const answer = await this.deliver(unkept);
      await this.settle(unkept, answer);
      this.state.full = null;
      this.tell({ taken: unkept, answer });
      return true;
    } catch {
      return false;
    }
  }

  /** Lets a picture go that was looked over; with `file`, that one instead. */
  async release(subject: string, file?: Blob): Promise<boolean> {
    const queued = this.commands.find((q) => this.creates(q.command, subject));
    if (!queued || (!queued.held && this.sendingKey === queued.key)) return false;
    const { held: _, ...rest } = queued;
    const kind = kindOf(queued.command);
    const command = file && kind.withFile ? kind.withFile(queued.command, file) : queued.command;
    await this.rewrite({ ...rest, command });
    this.kick();
    return true;
  }

  /** Whether a command makes a thing that later ones are about. */
  private creates(command: Command, subject: string): boolean {
    return kindOf(command).creates === 'subject' && subjectOf(command) === subject;
  }

  /** Sends a refused command once more, at the person's wish, and what was refused with it. */
  async again(queued: QueuedCommand): Promise<void> {
    for (const one of [queued, ...this.belonging(queued).filter((a) => a.refused !== undefined)]) {
      const { refused: _, ...rest } = one;
      this.faults.delete(one.key);
      await this.rewrite(rest);
    }
    this.kick();
  }

  /** What makes no sense without a command: what was done with its file, what was recorded in its attempt. */
  private belonging({ key, attempt, command }: QueuedCommand): QueuedCommand[] {
    const { creates } = kindOf(command);
    const subject = subjectOf(command);
    return this.commands.filter(
      (q) =>
        q.key !== key &&
        ((creates === 'subject' && subjectOf(q.command) === subject) ||
          (creates === 'attempt' && q.attempt === attempt)),
    );
  }

  private async rewrite(queued: QueuedCommand): Promise<void> {
    await (await device()).put('acts', queued);
    const at = this.at(queued);
    if (at >= 0) this.commands.splice(at, 1, queued);
    this.tell('changed');
  }

  /** Gives a command up, at the person's wish; with a file what was done with it. */
  async drop(queued: QueuedCommand): Promise<void> {
    const all = kindOf(queued.command).creates === 'subject' ? [queued, ...this.belonging(queued)] : [queued];
    for (const one of all) await (await device()).delete('acts', one.counter);
    await this.reload();
    this.tell('changed');
  }

  onSettled(listener: Settled): () => void {
    this.settled.add(listener);
    return () => this.settled.delete(listener);
  }

  /** Tries to send now. */
  kick(): void {
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    void this.run();
  }

  /** What a request elsewhere found out about the server. */
  sawServer(away: boolean): void {
    if (away) this.state.awaySince ??= new Date().toISOString();
    else if (this.state.awaySince !== null) {
      this.state.awaySince = null;
      this.pause = 1000;
      this.kick();
    }
  }

  private async reload(): Promise<void> {
    const all = await queuedOnDevice();
    this.commands.splice(
      0,
      this.commands.length,
      ...all.filter((a) => a.user === this.user && !this.gone.has(a.key)),
    );
    this.state.loaded = true;
  }

  /** Only one tab sends at a time. */
  private async run(): Promise<void> {
    if (this.user === null) return;
    await navigator.locks.request('lucid-step-outbox', { ifAvailable: true }, async (lock) => {
      if (lock === null) {
        this.later(1500);
        return;
      }
      await this.reload();
      this.state.sending = true;
      try {
        for (let queued = this.nextOne(); queued !== undefined; queued = this.nextOne()) {
          this.sendingKey = queued.key;
          const went = await this.sendOne(queued);
          this.sendingKey = null;
          if (!went) break;
        }
      } finally {
        this.state.sending = false;
      }
    });
  }

  /** The first command that may go: what belongs to a held picture waits with it, and what follows one that fails with that. */
  private nextOne(): QueuedCommand | undefined {
    const held = new Set(this.held.value.map((q) => subjectOf(q.command)));
    return this.waiting.value.find((q) => {
      const subject = subjectOf(q.command);
      return (subject === null || !held.has(subject)) && (this.resting.get(q.attempt) ?? 0) <= Date.now();
    });
  }

  private async sendOne(queued: QueuedCommand): Promise<boolean> {
    try {
      const answer = await this.deliver(queued);
      this.state.awaySince = null;
      this.state.stopped = null;
      this.pause = 1000;
      if (this.resting.delete(queued.attempt) && this.resting.size === 0) this.state.failsSince = null;
      if (answer.applied === false) {
        await this.refuse(
          queued,
          `Arrived too late: ${String(answer.held_because)} It is kept, and waits for a lead.`,
        );
        return true;
      }
      await this.settle(queued, answer);
      await (await device()).delete('acts', queued.counter);
      const at = this.at(queued);
      if (at >= 0) this.commands.splice(at, 1);
      this.tell({ taken: queued, answer });
      return true;
    } catch (error) {
      return this.failed(queued, error);
    }
  }

  private async failed(queued: QueuedCommand, error: unknown): Promise<boolean> {
    const problem = error instanceof Problem ? error : new Problem(0, 'away', String(error));
    const fails = problem.status >= 500 && !problem.isAway;
    const faults = fails ? (this.faults.get(queued.key) ?? 0) + 1 : 0;
    this.faults.set(queued.key, faults);
    if (fails && faults >= 8) {
      // A fault of the server is no refusal: it is kept, and tried again until the server is mended.
      this.resting.set(queued.attempt, Date.now() + REST);
      this.state.failsSince ??= new Date().toISOString();
      setTimeout(() => this.kick(), REST + 1000);
      return true;
    }
    if (fails || problem.isAway || problem.status === 429) {
      this.state.awaySince ??= new Date().toISOString();
      this.later(this.pause);
      this.pause = Math.min(this.pause * 1.7, 15_000);
      return false;
    }
    if (problem.status === 401 || problem.status === 419) {
      this.state.stopped = 'You are signed out. Sign in again and what waits is sent.';
      return false;
    }
    const words = Object.values(problem.errors).flat();
    const why = words.length > 0 ? words.join(' ') : problem.message;
    await this.refuse(queued, why);
    // What was recorded in an attempt that could not begin stays with it.
    if (kindOf(queued.command).creates === 'attempt') {
      for (const later of this.waiting.value.filter((a) => a.attempt === queued.attempt))
        await this.refuse(later, `Its attempt could not begin: ${why}`);
    }
    return true;
  }

  private async refuse(queued: QueuedCommand, why: string): Promise<void> {
    const refused = { ...queued, refused: why };
    try {
      await (await device()).put('acts', refused);
    } catch (error) {
      // It stays on the device as it was, and is refused again after a reload.
      if (!isNoRoom(error)) throw error;
    }
    const at = this.at(queued);
    if (at >= 0) this.commands.splice(at, 1, refused);
    this.tell('changed');
  }

  /** This tab sends nothing more, since nobody is signed in or it is closed. What waits stays on the device. */
  end(): void {
    this.user = null;
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
  }

  private later(ms: number): void {
    if (this.timer === null) {
      this.timer = setTimeout(() => {
        this.timer = null;
        void this.run();
      }, ms);
    }
  }
}

export const outbox = new Outbox();
