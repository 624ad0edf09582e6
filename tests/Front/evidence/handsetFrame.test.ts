// @vitest-environment happy-dom
// @vitest-environment-options {"settings": {"disableIframePageLoading": true}}
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query';
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils';
import PrimeVue from 'primevue/config';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import HandsetFrame from '@/areas/evidence/parts/HandsetFrame.vue';
import type { EvidenceTools } from '@/areas/evidence/useEvidence';
import { freshDevice } from '../support/person';
import { DemoServer } from '../support/pages';

const PRACTICE = 'http://127.0.0.1:8089';
const staging: Api['HandsetAddressLine'] = {
  environment_id: 'e1',
  name: 'Staging',
  address: 'https://staging.example/booking',
  origin: 'https://staging.example',
  built_in: false,
  observed: false,
  build: { id: 'b7', name: '4.2.0-7' },
};
const practice: Api['HandsetAddressLine'] = {
  environment_id: null,
  name: 'Practice page',
  address: `${PRACTICE}/`,
  origin: PRACTICE,
  built_in: true,
  observed: false,
  build: null,
};
let frame: VueWrapper;

async function open(
  handset: Api['HandsetAddressLine'][],
  configuration = 'Phone',
  environment: string | null = null,
  build: string | null = null,
): Promise<void> {
  freshDevice();
  // Frames load nothing here, and say so.
  vi.spyOn(console, 'error').mockImplementation(() => undefined);
  const server = new DemoServer('tobias');
  const setup = server.recorded<Api['WalkSetup']>('/projects/SKR/walk-setup');
  server.on('GET /projects/SKR/walk-setup', { ...setup, handset });
  vi.stubGlobal('fetch', server.fetch);
  const tested = { configuration, environment: environment ?? undefined, build: build ?? undefined };
  const tools = { target: { tested: () => tested } };
  frame = mount(HandsetFrame, {
    props: { tools: tools as unknown as EvidenceTools, project: 'SKR' },
    attachTo: document.body,
    global: { plugins: [[VueQueryPlugin, { queryClient: new QueryClient() }], PrimeVue] },
  });
  for (let n = 0; n < 8; n += 1) {
    await flushPromises();
    await new Promise((resolve) => setTimeout(resolve, 0));
  }
}
const handset = (): HTMLElement => document.querySelector('.handset')!;
const shown = (): string =>
  decodeURIComponent(document.querySelector('.handset iframe')?.getAttribute('src') ?? '');
async function go(address: string): Promise<void> {
  const field = handset().querySelector<HTMLInputElement>('[aria-label="Address"]')!;
  field.value = address;
  field.dispatchEvent(new Event('input', { bubbles: true }));
  handset()
    .querySelector('form')!
    .dispatchEvent(new Event('submit', { bubbles: true, cancelable: true }));
  await flushPromises();
}
afterEach(() => {
  frame.unmount();
  document.body.replaceChildren();
  vi.unstubAllGlobals();
});

describe('the handset', () => {
  it('opens where the build is that is walked, unless somebody said where', async () => {
    await open([practice, staging], 'Phone', null, 'b7');
    expect(shown()).toContain('https://staging.example/booking');
    expect(handset().textContent).toContain('Staging, build 4.2.0-7');
    frame.unmount();
    const old = {
      ...staging,
      name: 'Before',
      environment_id: 'e2',
      address: 'https://old.example/',
      origin: 'https://old.example',
    };
    await open([practice, old, staging], 'Phone', 'Staging', 'b5');
    expect(shown()).toContain('https://staging.example/booking');
    frame.unmount();
    await open([practice, staging], 'Phone', null, 'b5');
    expect(shown()).toContain(PRACTICE);
  });

  it('opens where the attempt is walked', async () => {
    await open([practice, staging], 'Phone', 'Staging');
    expect(shown()).toBe('/api/v1/projects/SKR/handset?address=https://staging.example/booking');
  });

  it('opens with the first address that the project lists, in the page that frames it', async () => {
    await open([practice, staging]);
    expect(shown()).toBe(`/api/v1/projects/SKR/handset?address=${PRACTICE}/`);
    const options = [...handset().querySelectorAll('[aria-label="Application"] option')].map((o) =>
      o.textContent?.trim(),
    );
    expect(options).toEqual(['Practice page', 'Staging, build 4.2.0-7']);
  });

  it('goes anywhere below a listed address, by its path alone too, and nowhere else', async () => {
    await open([practice, staging]);
    await go('https://staging.example/fares');
    expect(shown()).toContain('address=https://staging.example/fares');
    await go('/booking?step=2');
    expect(shown()).toContain('address=https://staging.example/booking?step=2');
    for (const [address, says] of [
      ['https://elsewhere.example/', 'does not list elsewhere.example'],
      ['http://staging.example/', 'does not list staging.example'],
      ['https://staging.example:8443/', 'does not list staging.example:8443'],
      ['ftp://staging.example/', 'Write an address'],
      ['javascript:alert(1)', 'Write an address'],
    ] as const) {
      await go(address);
      expect(handset().textContent, address).toContain(says);
      expect(shown(), address).toContain('address=https://staging.example/booking?step=2');
    }
  });

  it('says so where nothing is listed, and shows nothing', async () => {
    await open([]);
    expect(handset().textContent).toContain('No environment of this project has an address.');
    expect(shown()).toBe('');
    await go('/practice/');
    expect(handset().textContent).toContain('Write an address');
  });

  it('has the size that the configuration names', async () => {
    await open([practice], 'Tablet sideways, Firefox');
    const inner = document.querySelector('.handset iframe')!;
    expect([inner.getAttribute('width'), inner.getAttribute('height')]).toEqual(['1024', '768']);
  });
});
