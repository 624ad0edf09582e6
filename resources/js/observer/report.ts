/** What was done, as it is sent (`POST /api/v1/observations`). */
export interface Act {
  id: string;
  kind: 'visit' | 'press' | 'type' | 'choose' | 'tick' | 'submit' | 'trouble';
  at: number;
  n: number;
  tab: string;
  page: string;
  words?: string;
  reached?: string;
  opener?: string;
  control?: string;
  value?: string | null;
}
export type State = 'running' | 'paused' | 'stopped' | 'refused' | 'away';

const KEY = 'lucid-step:';
/** Acts that wait at most, and that are sent at once. */
const MOST = 1000;
const AT_ONCE = 100;
/** A request that outlives its page carries 64 kB at most (Fetch Standard, 4.6). */
const LARGEST = 60_000;
const SOON = 800;
/** While nothing is done it says that it still listens. */
const SIGN_OF_LIFE = 20_000;
/** What a tab left that said nothing for so long is sent by another. */
const ORPHANED = 15_000;

/** What comes out of something that a browser may refuse. */
export const attempt = <T>(run: () => T, otherwise: T): T => {
  try {
    return run();
  } catch {
    return otherwise;
  }
};
export const on = <K extends keyof WindowEventMap>(name: K, act: (event: WindowEventMap[K]) => void): void =>
  addEventListener(name, act);
export const read = (name: string): string => attempt(() => localStorage.getItem(KEY + name) ?? '', '');
/** Where nothing can be kept, what waits is lost with the page. */
export const keep = (name: string, value: string): void =>
  attempt(() => {
    if (value) localStorage.setItem(KEY + name, value);
    else localStorage.removeItem(KEY + name);
  }, undefined);

/**
 * Sends what was done, in batches and in order; what the server does not take waits on the device, also over page changes.
 * @param told how the session stands after each answer, what is explored, and how many acts wait
 */
export function startReport(
  address: string,
  code: string,
  tab: string,
  told: (state: State, charter: string, waiting: number) => void,
): { add: (act: Act) => void; send: () => Promise<void> } {
  let waiting: Act[] = [];
  let lost = 0;
  let busy = false;
  let failures = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let sentAt = 0;

  const store = (): void =>
    keep(`q:${tab}`, waiting.length ? JSON.stringify({ at: Date.now(), acts: waiting }) : '');
  const body = (acts: Act[]): string =>
    JSON.stringify({ code, sent_at: new Date().toISOString(), lost, acts });
  const soon = (): void => {
    timer ||= setTimeout(
      () => {
        timer = undefined;
        void send();
      },
      SOON * 2 ** Math.min(failures, 5),
    );
  };

  async function send(): Promise<void> {
    if (busy) return;
    busy = true;
    // What became of an act since it was written down goes along.
    store();
    let batch = waiting.slice(0, AT_ONCE);
    while (body(batch).length > LARGEST && batch.length > 1) batch = batch.slice(0, batch.length >> 1);
    const lostBefore = lost;
    sentAt = Date.now();
    let status = 0;
    let answer: { state?: State; charter?: string } = {};
    try {
      const response = await fetch(address, {
        method: 'POST',
        body: body(batch),
        credentials: 'omit',
        keepalive: true,
        headers: { 'Content-Type': 'text/plain' },
      });
      status = response.status;
      answer = (await response.json()) as typeof answer;
    } catch {
      // Nobody answers, or this address is not listed: the browser tells no difference.
    }
    busy = false;
    // What cannot be taken, as the page made it so, is not sent for ever.
    const isDone = status === 200 || status === 422;
    const refused = !isDone && status >= 400 && status < 500 && status !== 408 && status !== 429;
    if (isDone) {
      waiting = waiting.filter((a) => !batch.includes(a));
      lost -= lostBefore;
      failures = 0;
      store();
    } else failures++;
    told(
      isDone ? (answer.state ?? 'running') : refused ? 'refused' : 'away',
      answer.charter ?? '',
      waiting.length,
    );
    if (!refused && waiting.length) soon();
  }

  attempt(() => {
    for (const key of Object.keys(localStorage)) {
      const of = key.startsWith(`${KEY}q:`) ? key.slice(KEY.length + 2) : null;
      if (of === null) continue;
      const left = JSON.parse(localStorage.getItem(key) ?? '{}') as { at?: number; acts?: Act[] };
      if (of !== tab) {
        if (Date.now() - (left.at ?? 0) < ORPHANED) continue;
        keep(`q:${of}`, '');
      }
      waiting.push(...(left.acts ?? []));
    }
    waiting.sort((a, b) => a.at - b.at);
    store();
  }, undefined);
  if (waiting.length) soon();
  setInterval(() => {
    if (!document.hidden && Date.now() - sentAt > SIGN_OF_LIFE) void send();
  }, 5000);
  return {
    send,
    add: (act) => {
      if (waiting.length < MOST) waiting.push(act);
      else lost++;
      store();
      soon();
    },
  };
}
