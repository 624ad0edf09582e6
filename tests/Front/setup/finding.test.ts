// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

let page: Page;
afterEach(() => page?.close());

describe('finding a setting', () => {
  it('knows every part that its pages have, and leads to it', async () => {
    const { PLACES, anchorOf } = await import('@/areas/setup/places');
    for (const path of ['', '/planning', '/walking', '/people'] as const) {
      page = await Page.open(`/SKR/setup${path}`, path === '/people' ? 'corin' : 'maren');
      await vi.waitFor(() => expect(page.has('main section[id], .page section[id]')).toBe(true));
      const there = [...document.querySelectorAll('section[id]')].map((e) => e.getAttribute('aria-label'));
      const { POLICIES } = await import('@/areas/setup/policies');
      const known = [
        ...PLACES.filter((p) => p.page === path).map((p) => p.title),
        ...(path === '/walking' ? POLICIES.map((g) => g.title) : []),
      ];
      expect(known.filter((t) => !there.includes(t))).toEqual([]);
      expect(there.filter((t) => !known.includes(t ?? '') && t !== 'Invited')).toEqual([]);
      for (const title of known) expect(document.getElementById(anchorOf(title))).not.toBeNull();
      page.close();
    }
    page = await Page.open('/SKR/setup', 'maren');
  });

  it('goes by words to a part, a policy or a line of any list, and finds parts while the server is away', async () => {
    const server = new DemoServer('maren').on('GET /projects/SKR/settings', [
      { place: 'reasons-blocked', name: 'Environment down', of: '' },
      { place: 'axes', name: 'Quay tablet', of: 'Device' },
    ] satisfies Api['SettingLine'][]);
    page = await Page.open('/SKR/setup', server);
    const field = '[aria-label="Find a setting"]';
    await page.type(field, 'down');
    await page.see('Environment down · Reasons behind a block', '[role=listbox]');
    await page.click('[role=option]', 'Quay tablet · Axes, Device');
    await page.reach('/SKR/setup/planning#axes');
    expect(document.activeElement?.getAttribute('aria-label')).toBe('Axes');
    server.away = true;
    await page.type(field, 'opening');
    await page.see('Opening an unassigned entry takes it · Who records', '[role=listbox]');
  });
});
