// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { renderDocument } from '@/kit/documents';
import { DemoServer, Page } from '../support/pages';

let page: Page;
afterEach(() => page?.close());
vi.setConfig({ testTimeout: 20_000 });

describe('the documentation', () => {
  it('leads from one document to another within the application', async () => {
    page = await Page.open('/docs', new DemoServer('maren'));
    await page.see('People, projects and the installation', '.document');
    const link = [...document.querySelectorAll<HTMLAnchorElement>('.document a')].find((a) =>
      a.getAttribute('href')?.startsWith('/docs/access'),
    );
    link?.click();
    await page.reach('/docs/access');
    await page.see('walk entries and record what was seen', '.document table');
    expect(page.all('[aria-label="Documents"] [aria-current]')).toEqual(['Who may what']);
  });

  it('says where there is no such document', async () => {
    page = await Page.open('/docs/nothing', new DemoServer('maren'));
    await page.see('There is no such document.');
    await page.see('Maren Voss', 'header');
  });

  it('shows links to what is not there as words, and nothing of its own HTML', () => {
    const html = renderDocument('A word.\n\n# A b\n\n[x](walk.md#y) [z](decisions/2026.md) <b>c</b>', [
      'walk',
    ]);
    expect(html).toContain('<a href="/docs/walk#y">x</a> z');
    expect(html).toContain('id="a-b"');
    expect(html).not.toContain('<b>');
  });
});

describe('the page of words', () => {
  it('marks the word that led there', async () => {
    page = await Page.open('/words#held', new DemoServer('maren'));
    await page.see('It cannot be walked yet', 'dd.named');
    expect(page.all('dt.named')).toEqual(['Held']);
  });
});

describe('first steps', () => {
  const overview = (server: DemoServer, steps: Partial<Api['FirstSteps']>): DemoServer => {
    const now = server.recorded<Api['OverviewPage']>('/projects/SKR/overview');
    const none = { cases: 0, builds: 0, people: 1, invited: 0, cycles: 0, entries: 0 };
    return server.on('GET /projects/SKR/overview', {
      ...now,
      cycles: [],
      first_steps: { ...none, ...steps },
    });
  };
  const lit = (): string[] => page.all('[aria-label="First steps"] .lit strong');

  it.each<[Partial<Api['FirstSteps']>, string]>([
    [{}, 'Cases'],
    [{ cases: 12 }, 'A build'],
    [{ cases: 12, builds: 1 }, 'People'],
    [{ cases: 12, builds: 1, invited: 2 }, 'A cycle'],
    [{ cases: 12, builds: 1, people: 3, cycles: 1 }, 'A cycle'],
    [{ cases: 12, builds: 1, people: 3, cycles: 1, entries: 9 }, 'Release'],
  ])('light the one that is next: %j', async (steps, next) => {
    page = await Page.open('/SKR/today', overview(new DemoServer('corin'), steps));
    await page.see('First steps');
    expect(lit()).toEqual([next]);
  });

  it('offer a lead no inviting, which is for admins', async () => {
    page = await Page.open('/SKR/today', overview(new DemoServer('maren'), { cases: 3, builds: 1 }));
    await page.see('An admin of the project invites them.');
    expect(lit()).toEqual(['A cycle']);
    await page.click('[aria-label="First steps"] .lit a', 'Plan one');
    await page.reach('/SKR/cycles/new');
  });

  it('are gone once a cycle was released', async () => {
    page = await Page.open('/SKR/today', new DemoServer('maren'));
    await page.see('Notices');
    await page.seeNot('First steps');
  });
});
