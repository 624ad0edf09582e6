// @vitest-environment happy-dom
import { afterEach, describe, expect, it } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

/** What walking with a fix came to, at the defect. */
let page: Page;
afterEach(() => page?.close());

const entry = (key: string, result: Api['RetestedEntry']['result'], asked = true): Api['RetestedEntry'] => ({
  entry_id: key,
  case_key: key,
  title: `Case ${key}`,
  cycle_key: 'SKR-Y1',
  asked,
  result,
  attempt_id: result === 'open' ? null : `a-${key}`,
});

function server(
  progress: Partial<Api['FixProgress']>,
  state: Api['DefectLine']['state'] = 'fixed',
): DemoServer {
  const base = new DemoServer('tobias').recorded<Api['DefectDetail']>('/defects/SKR-D2');
  const reproduction = new DemoServer('tobias').recorded<object>('/defects/SKR-D2/reproduction');
  return new DemoServer('maren')
    .on('GET /defects/SKR-D2', {
      ...base,
      defect: { ...base.defect, state, open_ms: 3 * 86_400_000 },
      progress: { passed: 0, of: 0, proven: false, proposed: false, entries: [], ...progress },
    } satisfies Api['DefectDetail'])
    .on('GET /defects/SKR-D2/reproduction', reproduction)
    .on('GET /defects/SKR-D2/retests', []);
}
const section = 'section[aria-label="Walked with the fix"]';

describe('how far a fix is proven', () => {
  it('counts what was asked for, and says of each what came of it', async () => {
    const entries = [entry('C1', 'passed'), entry('C2', 'open'), entry('C3', 'failed', false)];
    page = await Page.open('/SKR/defects/SKR-D2', server({ passed: 1, of: 2, entries }));
    await page.see('passed on 1 of 2', section);
    await page.see('not walked with the fix yet', section);
    expect(page.text(section)).not.toContain('C3');
    expect(document.querySelector<HTMLAnchorElement>(`${section} a`)?.getAttribute('href')).toBe(
      '/SKR/entries/C1?attempt=a-C1',
    );
    await page.see('open for 3 days');
  });

  it('asks whether it is gone where that is not proven by itself', async () => {
    const entries = [entry('C1', 'passed', false), entry('C2', 'unproven', false)];
    page = await Page.open('/SKR/defects/SKR-D2', server({ passed: 1, of: 2, proposed: true, entries }));
    await page.see('All of them were walked, and none failed: is it gone?', section);
    await page.see('it proves nothing', section);
  });

  it('shows nothing while nothing was walked', async () => {
    page = await Page.open('/SKR/defects/SKR-D2', server({ entries: [entry('C1', 'open', false)] }));
    await page.see('open for 3 days');
    expect(document.querySelector(section)).toBeNull();
  });
});
