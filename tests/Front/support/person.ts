import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query';
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils';
import PrimeVue from 'primevue/config';
import { expect, vi } from 'vitest';
import { h } from 'vue';
import { createMemoryHistory, createRouter, RouterView } from 'vue-router';
import type { Server } from './server';

/** A person at a page of the application. */
export class Person {
  private constructor(
    readonly server: Server,
    private readonly page: VueWrapper,
    private readonly pathOf: () => string,
    private readonly die: () => void,
  ) {}

  /** Opens a walk, as after a reload: the device keeps what it has, the page begins anew. */
  static async open(server: Server, path = '/SKR/walk/a1'): Promise<Person> {
    vi.resetModules();
    let alive = true;
    const never = (): Promise<never> => new Promise(() => undefined);
    // Of a page that is gone nothing goes out and nothing comes in any more.
    vi.stubGlobal('fetch', async (...asked: Parameters<Server['fetch']>) => {
      if (!alive) return never();
      const answer = await server.fetch(...asked);
      return alive ? answer : never();
    });
    let held = false;
    const locks = {
      request: async (
        _: string,
        __: unknown,
        work: (lock: object | null) => Promise<void>,
      ): Promise<void> => {
        if (held) return work(null);
        held = true;
        try {
          await work({});
        } finally {
          held = false;
        }
      },
    };
    Object.defineProperty(navigator, 'locks', { value: locks, configurable: true });
    const [{ default: WalkPage }, { default: SaveState }, { whoIsThere }, { outbox }] = await Promise.all([
      import('@/areas/walk/pages/WalkPage.vue'),
      import('@/offline/SaveState.vue'),
      import('@/areas/people/session'),
      import('@/offline/outbox'),
    ]);
    await whoIsThere();
    const elsewhere = { render: () => h('p', 'Elsewhere') };
    const router = createRouter({
      history: createMemoryHistory(),
      routes: [
        { path: '/:project/walk/:attempt', component: WalkPage },
        { path: '/:rest(.*)', component: elsewhere },
      ],
    });
    await router.push(path);
    const frame = { render: () => [h('header', [h(SaveState)]), h('main', [h(RouterView)])] };
    const queries = new QueryClient({ defaultOptions: { queries: { retry: false, networkMode: 'always' } } });
    const page = mount(frame, {
      attachTo: document.body,
      global: { plugins: [router, [VueQueryPlugin, { queryClient: queries }], PrimeVue] },
    });
    const me = new Person(
      server,
      page,
      () => router.currentRoute.value.fullPath,
      () => {
        alive = false;
        outbox.end();
      },
    );
    const there = (): boolean => me.has('.lit, .wrap, .whole');
    await vi.waitFor(() => expect(there(), me.text()).toBe(true), { timeout: 5_000, interval: 10 });
    await me.settle();
    return me;
  }

  get path(): string {
    return this.pathOf();
  }

  /** The page is gone, without a chance to do anything more. */
  close(): void {
    this.die();
    this.page.unmount();
    document.body.replaceChildren();
  }

  /** Lets everything happen that is on its way. */
  async settle(turns = 6): Promise<void> {
    for (let n = 0; n < turns; n += 1) {
      await flushPromises();
      await new Promise((resolve) => setTimeout(resolve, 0));
    }
  }

  text(selector = 'main'): string {
    return this.page.find(selector).exists() ? this.page.find(selector).text().replace(/\s+/g, ' ') : '';
  }

  /** What each of the elements says. */
  rows(selector: string): string[] {
    return this.page.findAll(selector).map((e) => e.text().replace(/\s+/g, ' '));
  }

  has(selector: string): boolean {
    return this.page.find(selector).exists();
  }

  async see(words: string, selector = 'main'): Promise<this> {
    await vi.waitFor(() => expect(this.text(selector)).toContain(words), { timeout: 4000, interval: 10 });
    return this;
  }

  async seeNot(words: string, selector = 'main'): Promise<this> {
    await vi.waitFor(() => expect(this.text(selector)).not.toContain(words), {
      timeout: 4000,
      interval: 10,
    });
    return this;
  }

  /** Presses keys where the focus is, one after another. */
  async press(...keys: string[]): Promise<this> {
    for (const key of keys) {
      const at = document.activeElement ?? document.body;
      at.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
      await this.settle(3);
    }
    return this;
  }

  async type(selector: string, words: string): Promise<this> {
    await vi.waitFor(() => expect(this.has(selector)).toBe(true), { timeout: 4000, interval: 10 });
    const field = this.page.find(selector);
    (field.element as HTMLElement).focus();
    await field.setValue(words);
    await this.settle(2);
    return this;
  }

  valueOf(selector: string): string {
    return (this.page.find(selector).element as HTMLInputElement).value;
  }

  async blur(): Promise<this> {
    (document.activeElement as HTMLElement | null)?.blur();
    await this.settle(3);
    return this;
  }

  /** Clicks what says these words. */
  async click(selector: string, words = ''): Promise<this> {
    const find = () => this.page.findAll(selector).find((e) => e.text().replace(/\s+/g, ' ').includes(words));
    await vi.waitFor(() => expect(find(), `${selector} ${words}`).toBeDefined(), {
      timeout: 4000,
      interval: 10,
    });
    await find()?.trigger('click');
    await this.settle(3);
    return this;
  }

  /** Chooses out of a list by the value. */
  async choose(selector: string, value: string): Promise<this> {
    await vi.waitFor(() => expect(this.has(selector)).toBe(true), { timeout: 4000, interval: 10 });
    await this.page.find(selector).setValue(value);
    await this.settle(2);
    return this;
  }

  /** Chooses a file as evidence. */
  async choosesFile(file: File): Promise<this> {
    const input = this.page.find('input[type=file]').element as HTMLInputElement;
    Object.defineProperty(input, 'files', { value: [file], configurable: true });
    input.dispatchEvent(new Event('change', { bubbles: true }));
    await this.settle();
    return this;
  }

  async check(selector: string, on = true): Promise<this> {
    await this.page.find(selector).setValue(on);
    await this.settle(2);
    return this;
  }

  /** Lets some time go by. */
  async wait(ms: number): Promise<this> {
    await new Promise((resolve) => setTimeout(resolve, ms));
    return this;
  }

  async submit(selector = 'form'): Promise<this> {
    await this.page.find(selector).trigger('submit');
    await this.settle(3);
    return this;
  }

  async saved(): Promise<this> {
    return this.see('Saved', 'header');
  }
}

const native = globalThis.structuredClone;
const isPlain = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && Object.getPrototypeOf(value) === Object.prototype;
const holdsFile = (value: unknown): boolean =>
  value instanceof Blob || ((isPlain(value) || Array.isArray(value)) && Object.values(value).some(holdsFile));
/** Files of the made-up browser are none that Node could copy: the made-up database keeps them as they are. */
function clone(value: unknown): unknown {
  if (!holdsFile(value) || value instanceof Blob) return value instanceof Blob ? value : native(value);
  if (Array.isArray(value)) return value.map(clone);
  return Object.fromEntries(
    Object.entries(value as Record<string, unknown>).map(([key, one]) => [key, clone(one)]),
  );
}

/** A device with nothing on it. */
export function freshDevice(): void {
  globalThis.structuredClone = clone as typeof structuredClone;
  localStorage.clear();
  Object.defineProperty(globalThis, 'indexedDB', {
    value: new IDBFactory(),
    configurable: true,
    writable: true,
  });
}
