import { computed, reactive, shallowReactive } from 'vue';
import { v7 as uuid7 } from 'uuid';
import { Problem, send } from '@/api/client';
import { requestOf, type Act, type Deed } from '@/areas/walk/acts';
import { checkFile } from './files';
import { device, isNoRoom } from './device';

/** Called when the server has taken an act, with its answer. */
type Settled = (act: Act, answer: Record<string, unknown>) => Promise<void> | void;
/** What tabs tell each other: something else waits now, or this act was taken. */
type Word = { taken: Act; answer: Record<string, unknown> } | 'changed';

/** How long an answer may take, in ms, before the server counts as away: a file has a ms more for each 20 bytes to travel. */
const patience = (act: Act): number =>
  30_000 + ('file' in act.deed && act.deed.file ? Math.ceil(act.deed.file.size / 20) : 0);

/**
 * Everything recorded in a walk goes through here: first written on the device, shown at once, then sent in
 * order with its key. Answers settle it. A failed request, not the browser, says that the server is away.
 */
class Outbox {
  /** What waits, in order. Refused acts stay until a person decides. */
  readonly acts = shallowReactive<Act[]>([]);
  readonly state = reactive({
    loaded: false,
    sending: false,
    /** Since when the server is away; null while it answers. */
    awaySince: null as string | null,
    /** Why nothing is sent although the server answers. */
    stopped: null as string | null,
    /** The device could not keep something: what to do. */
    full: null as string | null,
    savedAt: null as string | null,
  });
  readonly waiting = computed(() => this.acts.filter((a) => a.refused === undefined && !a.held));
  /** Pictures that are to be looked over before they leave the device. */
  readonly held = computed(() => this.acts.filter((a) => a.held && a.refused === undefined));
  readonly refused = computed(() => this.acts.filter((a) => a.refused !== undefined));

  private settled = new Set<Settled>();
  private timer: ReturnType<typeof setTimeout> | null = null;
  private pause = 1000;
  /** How often the server failed over an act; one it cannot digest must not hold up the rest for ever. */
  private readonly faults = new Map<string, number>();
  private user: string | null = null;
  /** The act that is on its way right now. */
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

  private async settle(act: Act, answer: Record<string, unknown>): Promise<void> {
    if (this.gone.has(act.key)) return;
    for (const listener of this.settled) await listener(act, answer);
    this.gone.add(act.key);
    this.state.savedAt = new Date().toISOString();
  }

  private tell(word: Word): void {
    this.others.postMessage(word);
  }

  /** Where an act stands in the list: the list may have been read anew since, with other objects for the same acts. */
  private at(act: Act): number {
    return this.acts.findIndex((a) => a.key === act.key);
  }

  private async deliver(act: Act): Promise<Record<string, unknown>> {
    const { path, init } = requestOf(act);
    const headers = new Headers(init.headers);
    headers.set('Idempotency-Key', act.key);
    // A server that takes a request and says nothing is away; the same key makes sending it again harmless.
    const signal = AbortSignal.timeout(patience(act));
    const response = await send(path, { ...init, headers, signal });
    return response.json().catch(() => ({})) as Promise<Record<string, unknown>>;
  }

  /** Begins to send for a person. Acts of another person on this device wait for them. */
  async begin(user: string): Promise<void> {
    this.user = user;
    this.state.stopped = null;
    // The browser may else throw away what waits when space runs short.
    void navigator.storage?.persist?.().catch(() => false);
    await this.reload();
    this.kick();
  }

  /**
   * Writes a deed on the device; it is safe when this returns. Throws a Problem, and keeps nothing, when the file is none
   * that the server would take, or when neither the device nor the server has room for it.
   *
   * @param entry the entry that the attempt walks
   * @param held  a picture that is to be looked over before it leaves the device
   */
  async add(attempt: string, deed: Deed, entry?: string, held = false): Promise<Act> {
    if (this.user === null) throw new Error('Nobody is signed in.');
    if (deed.kind === 'evidence' && deed.file) await checkFile(deed.file, deed.name);
    const act = { key: uuid7(), attempt, user: this.user, deed, at: new Date().toISOString() } as Act;
    if (entry !== undefined) act.entry = entry;
    if (held) act.held = true;
    try {
      act.counter = await (await device()).add('acts', act);
      this.state.full = null;
    } catch (error) {
      // Anything else is a mistake of the application and must not look like a full device.
      if (!isNoRoom(error)) throw error;
      if (!held && (await this.sendUnkept(act))) return act;
      this.state.full =
        'This device could not keep the last entry: its storage is full, and the server does not answer. Free some space and repeat it; what you typed is still there.';
      throw new Problem(507, 'device-full', this.state.full, {}, { cause: String(error) });
    }
    // The list may have been read anew meanwhile, with this act in it.
    if (this.at(act) < 0 && !this.gone.has(act.key)) this.acts.push(act);
    this.tell('changed');
    this.kick();
    return act;
  }

  /** Sends an act that the device has no room for, if nothing waits before it and the server answers. */
  private async sendUnkept(act: Act): Promise<boolean> {
    if (this.waiting.value.length > 0 || this.state.awaySince !== null) return false;
    try {
      const unkept = { ...act, counter: 0 };
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
  async release(evidence: string, file?: Blob): Promise<boolean> {
    const act = this.acts.find((a) => a.deed.kind === 'evidence' && a.deed.id === evidence);
    if (!act || act.deed.kind !== 'evidence' || (!act.held && this.sendingKey === act.key)) return false;
    const { held: _, ...rest } = act;
    await this.rewrite({ ...rest, deed: file ? { ...act.deed, file } : act.deed });
    this.kick();
    return true;
  }

  /** Sends a refused act once more, at the person's wish, and what was refused with it. */
  async again(act: Act): Promise<void> {
    for (const one of [act, ...this.belonging(act).filter((a) => a.refused !== undefined)]) {
      const { refused: _, ...rest } = one;
      this.faults.delete(one.key);
      await this.rewrite(rest);
    }
    this.kick();
  }

  /** What makes no sense without an act: what was done with a file, what was recorded in an attempt. */
  private belonging({ key, attempt, deed }: Act): Act[] {
    return this.acts.filter((a) =>
      a.key === key
        ? false
        : deed.kind === 'evidence'
          ? 'id' in a.deed && a.deed.id === deed.id
          : deed.kind === 'start' && a.attempt === attempt,
    );
  }

  private async rewrite(act: Act): Promise<void> {
    await (await device()).put('acts', act);
    const at = this.at(act);
    if (at >= 0) this.acts.splice(at, 1, act);
    this.tell('changed');
  }

  /** Gives an act up, at the person's wish; with a file what was done with it. */
  async drop(act: Act): Promise<void> {
    const all = act.deed.kind === 'evidence' ? [act, ...this.belonging(act)] : [act];
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
    const all = await (await device()).getAll('acts');
    this.acts.splice(
      0,
      this.acts.length,
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
        for (let act = this.nextOne(); act !== undefined; act = this.nextOne()) {
          this.sendingKey = act.key;
          const went = await this.sendOne(act);
          this.sendingKey = null;
          if (!went) break;
        }
      } finally {
        this.state.sending = false;
      }
    });
  }

  /** The first act that may go: what belongs to a held picture waits with it. */
  private nextOne(): Act | undefined {
    const held = new Set(this.held.value.map((a) => (a.deed.kind === 'evidence' ? a.deed.id : '')));
    return this.waiting.value.find((a) => !('id' in a.deed && held.has(a.deed.id)));
  }

  private async sendOne(act: Act): Promise<boolean> {
    try {
      const answer = await this.deliver(act);
      this.state.awaySince = null;
      this.state.stopped = null;
      this.pause = 1000;
      if (answer.applied === false) {
        await this.refuse(
          act,
          `Arrived too late: ${String(answer.held_because)} It is kept, and waits for a lead.`,
        );
        return true;
      }
      await this.settle(act, answer);
      await (await device()).delete('acts', act.counter);
      const at = this.at(act);
      if (at >= 0) this.acts.splice(at, 1);
      this.tell({ taken: act, answer });
      return true;
    } catch (error) {
      return this.failed(act, error);
    }
  }

  private async failed(act: Act, error: unknown): Promise<boolean> {
    const problem = error instanceof Problem ? error : new Problem(0, 'away', String(error));
    const faults = problem.status >= 500 && !problem.isAway ? (this.faults.get(act.key) ?? 0) + 1 : 0;
    this.faults.set(act.key, faults);
    if (problem.isAway || problem.status === 429 || (problem.status >= 500 && faults < 8)) {
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
    await this.refuse(act, why);
    // What was recorded in an attempt that could not begin stays with it.
    if (act.deed.kind === 'start') {
      for (const later of this.waiting.value.filter((a) => a.attempt === act.attempt))
        await this.refuse(later, `Its attempt could not begin: ${why}`);
    }
    return true;
  }

  private async refuse(act: Act, why: string): Promise<void> {
    const refused = { ...act, refused: why };
    try {
      await (await device()).put('acts', refused);
    } catch (error) {
      // It stays on the device as it was, and is refused again after a reload.
      if (!isNoRoom(error)) throw error;
    }
    const at = this.at(act);
    if (at >= 0) this.acts.splice(at, 1, refused);
    this.tell('changed');
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
