import type { Api } from '@/api/client';
import 'fake-indexeddb/auto';
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query';
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils';
import PrimeVue from 'primevue/config';
import { expect, vi } from 'vitest';
import demo from '../answers/demo.json';
import { freshDevice } from './person';

export type Who = keyof typeof demo;

type Session = Api['SessionState'];
type Role = Session['projects'][number]['role'];
const ALL = [
  ...['read', 'see_evidence', 'work_on_defects', 'file_defects', 'record', 'write_cases'],
  ...['lead', 'administer', 'remove_content'],
];
/** How many of them each may. */
const MAY: Record<Role, number> = { reader: 2, developer: 3, tester: 6, lead: 7, admin: 9 };

/** The same person with another role, with all that goes with it. */
export const inRole = (session: Session, role: Role): Session => ({
  ...session,
  projects: session.projects.map((p) => ({ ...p, role, may: ALL.slice(0, MAY[role]) })),
});
export interface Sent {
  method: string;
  path: string;
  body: Record<string, unknown>;
}
/** A refusal as the server gives it. */
export interface Refusal {
  status: number;
  type?: string;
  detail?: string;
  errors?: Record<string, string[]>;
}
const isRefusal = (answer: unknown): answer is Refusal =>
  typeof answer === 'object' && answer !== null && 'status' in answer && typeof answer.status === 'number';

/** What a page asks while it is being filled in; nothing is written by it. */
const PREVIEWS: Record<string, unknown> = {
  '/projects/SKR/case-checks': { problems: [], row: 0, rows: 0, row_label: '', steps: [] },
  '/cycles/SKR-R3/assignment-previews': { people: [], given: {}, count: 0 },
  '/cycles/SKR-R3/short-plan-previews': { in: [], out: [], seconds: 0, of: 0, risk: 0, exact: true },
  '/projects/SKR/selection-counts': {
    cases: 0,
    entries: 0,
    there: 0,
    seconds: 0,
    days: 5,
    capacity_seconds: 36_000,
    refused: [],
    refused_count: 0,
    usual: 0,
    with_tables: [],
    rows: {},
  },
  '/projects/SKR/axis-checks': {
    all: 10,
    all_more: false,
    pairs: 6,
    sample: [],
    impossible: [],
    untested: [],
  },
};

/**
 * A server that answers readings as the demo did (tests/Front/answers/demo.json) and writes as a test says.
 */
export class DemoServer {
  readonly sent: Sent[] = [];
  /** Readings that were asked for, with their query. */
  readonly asked: string[] = [];
  /** What was asked for and nobody had recorded. */
  readonly missing: string[] = [];
  away = false;
  /** Answers to writes, by method and path; the newest reading of a path can be put here as well. */
  readonly answers = new Map<string, unknown>();

  constructor(readonly who: Who) {}

  /** The first recorded reading whose path begins so. */
  first(start: string): string {
    return Object.keys(demo[this.who]).find((p) => p.startsWith(start) && p.split('/').length === 3) ?? '';
  }

  /** What the demo answers to a reading, to be changed by the test as it likes. */
  recorded<T>(path: string): T {
    return structuredClone((demo[this.who] as Record<string, unknown>)[path]) as T;
  }

  on(what: string, answer: unknown): this {
    this.answers.set(what, answer);
    return this;
  }

  readonly fetch = async (input: string | URL | Request, init: RequestInit = {}): Promise<Response> => {
    if (this.away) throw new TypeError('away');
    const request = input instanceof Request ? input : null;
    const url = new URL(request?.url ?? String(input), 'http://localhost');
    const method = init.method ?? request?.method ?? 'GET';
    const path = url.pathname.replace('/api/v1', '');
    if (method !== 'GET') this.sent.push({ method, path, body: await this.bodyOf(init) });
    return this.answer(method, path, url.search);
  };

  private async bodyOf(init: RequestInit): Promise<Record<string, unknown>> {
    const raw = init.body instanceof Blob ? await init.body.text() : init.body;
    if (raw instanceof FormData) return Object.fromEntries(raw.entries());
    return raw ? (JSON.parse(String(raw)) as Record<string, unknown>) : {};
  }

  private answer(method: string, path: string, search: string): Response {
    if (method === 'GET') this.asked.push(path + decodeURIComponent(search));
    if (path.endsWith('/changes')) return Response.json({ cursor: '1', changes: [] });
    const of = this.answers.get(`${method} ${path}${search}`) ?? this.answers.get(`${method} ${path}`);
    if (isRefusal(of))
      return Response.json(
        { detail: 'Nothing was changed.', ...of, type: `urn:lucid-step:problem:${of.type ?? 'invalid'}` },
        { status: of.status, headers: { 'Content-Type': 'application/problem+json' } },
      );
    if (of !== undefined) return of === null ? new Response(null, { status: 204 }) : Response.json(of);
    if (path.endsWith('/presence')) return Response.json({ others: [] });
    if (method !== 'GET') return Response.json(PREVIEWS[path] ?? {});
    const all = demo[this.who] as Record<string, unknown>;
    // No more than the first window of a list is recorded.
    const first = !/[?&]after=[^&]/.test(search);
    const found = all[path + search] ?? (first ? all[path] : { items: [], next: null });
    if (found !== undefined) return Response.json(found);
    if (!/thumbnail|\/file/.test(path)) this.missing.push(path + search);
    return Response.json({ type: 'urn:lucid-step:problem:not-found', detail: 'Not found' }, { status: 404 });
  }
}

/** A page of the application as a whole, masthead and all. */
export class Page {
  private constructor(
    readonly server: DemoServer,
    private readonly wrapper: VueWrapper,
    private readonly pathOf: () => string,
    readonly complaints: string[],
    private readonly die: () => void,
  ) {}

  static async open(path: string, server: DemoServer | Who = 'maren', sameDevice = false): Promise<Page> {
    const at = typeof server === 'string' ? new DemoServer(server) : server;
    if (!sameDevice) freshDevice();
    vi.resetModules();
    vi.stubGlobal('fetch', at.fetch);
    const locks = { request: (_: string, __: unknown, work: (lock: object) => Promise<void>) => work({}) };
    Object.defineProperty(navigator, 'locks', { value: locks, configurable: true });
    const complaints: string[] = [];
    for (const level of ['warn', 'error'] as const)
      vi.spyOn(console, level).mockImplementation(
        (...words: unknown[]) => void complaints.push(words.join(' ')),
      );
    window.history.replaceState(null, '', path);
    await Promise.all([import('@/areas/sessions/commands'), import('@/areas/walk/commands')]);
    const [{ default: App }, { router }, { theme }, { outbox }] = await Promise.all([
      import('@/App.vue'),
      import('@/router'),
      import('@/kit/theme'),
      import('@/offline/outbox'),
    ]);
    const queries = new QueryClient({ defaultOptions: { queries: { retry: false, networkMode: 'always' } } });
    await router.push(path);
    const wrapper = mount(App, {
      attachTo: document.body,
      global: {
        plugins: [
          router,
          [VueQueryPlugin, { queryClient: queries }],
          [PrimeVue, { theme: { preset: theme, options: { darkModeSelector: 'system', cssLayer: false } } }],
        ],
      },
    });
    const page = new Page(
      at,
      wrapper,
      () => router.currentRoute.value.fullPath,
      complaints,
      () => outbox.end(),
    );
    await page.settle(8);
    return page;
  }

  get path(): string {
    return this.pathOf();
  }

  get sent(): Sent[] {
    return this.server.sent.filter((s) => !s.path.endsWith('/presence'));
  }

  close(): void {
    this.die();
    this.wrapper.unmount();
    document.body.replaceChildren();
    vi.restoreAllMocks();
  }

  async settle(turns = 4): Promise<void> {
    for (let n = 0; n < turns; n += 1) {
      await flushPromises();
      await new Promise((resolve) => setTimeout(resolve, 0));
    }
  }

  text(selector = 'body'): string {
    const found = document.querySelector(selector);
    return (found?.textContent ?? '').replace(/\s+/g, ' ').trim();
  }

  all(selector: string): string[] {
    return [...document.querySelectorAll(selector)].map((e) =>
      (e.textContent ?? '').replace(/\s+/g, ' ').trim(),
    );
  }

  has(selector: string): boolean {
    return document.querySelector(selector) !== null;
  }

  async see(words: string, selector = 'body'): Promise<this> {
    await vi.waitFor(() => expect(this.text(selector)).toContain(words), { timeout: 4000, interval: 10 });
    return this;
  }

  async seeNot(words: string, selector = 'body'): Promise<this> {
    await vi.waitFor(() => expect(this.text(selector)).not.toContain(words), { timeout: 4000, interval: 10 });
    return this;
  }

  /** Waits until one is at an address; its page may have to be fetched first. */
  async reach(path: string | RegExp): Promise<this> {
    const there = (): void =>
      typeof path === 'string' ? expect(this.path).toBe(path) : expect(this.path).toMatch(path);
    await vi.waitFor(there, { timeout: 10_000, interval: 20 });
    return this;
  }

  private async find(selector: string, words: string): Promise<HTMLElement> {
    const find = (): HTMLElement | undefined =>
      [...document.querySelectorAll<HTMLElement>(selector)].find((e) =>
        `${e.textContent ?? ''} ${e.getAttribute('aria-label') ?? ''}`.replace(/\s+/g, ' ').includes(words),
      );
    await vi.waitFor(() => expect(find(), `${selector} “${words}”`).toBeDefined(), {
      timeout: 4000,
      interval: 10,
    });
    return find()!;
  }

  async click(selector: string, words = ''): Promise<this> {
    (await this.find(selector, words)).click();
    await this.settle();
    return this;
  }

  /** Chooses in the list that one of the application's own selects has opened. */
  async pick(option: string): Promise<this> {
    const found = await this.find('[role=option]', option);
    found.dispatchEvent(new MouseEvent('mousedown', { bubbles: true, cancelable: true }));
    found.click();
    await this.settle();
    return this;
  }

  /** Chooses in a select by what its option says. */
  async choose(selector: string, option: string): Promise<this> {
    const select = (await this.find(`select${selector}`, '')) as HTMLSelectElement;
    const found = [...select.options].find((o) => o.textContent?.trim() === option);
    expect(found, `${selector} “${option}”`).toBeDefined();
    found!.selected = true;
    select.dispatchEvent(new Event('change', { bubbles: true }));
    await this.settle();
    return this;
  }

  async type(selector: string, text: string): Promise<this> {
    const field = (await this.find(selector, '')) as HTMLInputElement;
    field.focus();
    field.value = text;
    field.dispatchEvent(new Event('input', { bubbles: true }));
    field.dispatchEvent(new Event('change', { bubbles: true }));
    await this.settle();
    return this;
  }

  async press(...keys: string[]): Promise<this> {
    for (const key of keys) {
      const at = document.activeElement ?? document.body;
      at.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
      await this.settle(3);
    }
    return this;
  }

  async submit(selector = 'form'): Promise<this> {
    const form = await this.find(selector, '');
    form.dispatchEvent(new Event('submit', { bubbles: true, cancelable: true }));
    await this.settle();
    return this;
  }
}
