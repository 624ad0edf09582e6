// @vitest-environment happy-dom
import { afterEach, describe, expect, it } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

/** Filing beside the walk, and what a defect says and stands to, field by field. */
let page: Page;
afterEach(() => page?.close());
const kept = (selector: string): string => document.querySelector<HTMLInputElement>(selector)?.value ?? '';
const detail = (key: string): Api['DefectDetail'] =>
  new DemoServer('tobias').recorded<Api['DefectDetail']>(`/defects/${key}`);
const FIELD: Api['CustomFieldLine'] = {
  id: 'f1',
  name: 'Found by',
  kind: 'choice',
  choices: ['us', 'a guest'],
  required: false,
  uses: 0,
};
function server(who: 'tobias' | 'lina' | 'maren' = 'tobias'): DemoServer {
  const choices = new DemoServer('tobias').recorded<Api['DefectChoices']>('/projects/SKR/defect-choices');
  return new DemoServer(who)
    .on('GET /projects/SKR/defect-choices', {
      ...choices,
      components: [{ value: 'boarding', name: 'Boarding', weight: 1, uses: 0 }],
      fields: [FIELD],
    })
    .on('GET /projects/SKR/likely-defects', [])
    .on('GET /defects/SKR-D35', detail('SKR-D35'))
    .on('GET /defects/SKR-D35/reproduction', { reproduction: null });
}

describe('a defect without a walk', () => {
  it('is written with every field, kept through what goes wrong, and filed once', async () => {
    const at = server();
    page = await Page.open('/SKR/defects/new?case=SKR-C3', at);
    await page.see('About SKR-C3.');
    await page.type('#defect-title', 'The gate stays shut');
    await page.type('#defect-actual', 'It stays shut');
    await page.choose('[aria-label="Component"]', 'Boarding');
    await page.choose('[aria-label="Found by"]', 'a guest');
    at.away = true;
    await page.submit('form[aria-label="New defect"]');
    await page.see('What you wrote is kept on this device.', '[role=alert]');
    at.away = false;
    at.on('POST /projects/SKR/defects', { status: 422, errors: { component: ['Choose another.'] } });
    await page.submit('form[aria-label="New defect"]');
    await page.see('Choose another.', '[role=alert]');
    expect(kept('#defect-title')).toBe('The gate stays shut');
    const sent = page.sent.filter((s) => s.path.endsWith('/defects'));
    at.on('POST /projects/SKR/defects', detail('SKR-D35'));
    await page.submit('form[aria-label="New defect"]');
    await page.reach('/SKR/defects/SKR-D35');
    const body = page.sent.at(-1)?.body as Api['FileDefectRequest'];
    expect(body).toMatchObject({
      title: 'The gate stays shut',
      actual: 'It stays shut',
      severity: 'major',
      component: 'boarding',
      custom: { f1: 'a guest' },
      case: 'SKR-C3',
    });
    expect(body).not.toHaveProperty('steps');
    expect((sent[0]?.body as Api['FileDefectRequest']).id).toBe(body.id);
  });

  it('is filled in from an attempt that is read afterwards, or linked where it is known', async () => {
    const draft: Api['DefectDraft'] = {
      title: 'Drafted',
      preconditions: 'Before',
      steps: '1. Go (**fail**)',
      expected: 'E',
      actual: 'A',
      environment: 'Quay',
      body: '',
      markdown: '',
      plain: '',
    };
    const likely: Api['LikelyDefect'] = {
      defect: detail('SKR-D35').defect,
      likeness: 0.5,
      at_this_step: true,
      same_case: true,
      same_component: false,
      words: [],
    };
    const at = server()
      .on('GET /attempts/a1/defect-draft', draft)
      .on('GET /projects/SKR/likely-defects', [likely]);
    page = await Page.open('/SKR/defects/new?attempt=a1&round=1&step=2', at);
    await page.see('From step 2 of what was walked');
    await expect.poll(() => kept('#defect-title')).toBe('Drafted');
    expect(kept('#defect-steps')).toBe('1. Go (**fail**)');
    expect(page.has('select[aria-label="Build"]')).toBe(false);
    await page.see('same step');
    at.on('POST /defects/SKR-D35/links', detail('SKR-D35'));
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'l', altKey: true }));
    await page.reach('/SKR/defects/SKR-D35');
    expect(page.sent.at(-1)?.body).toEqual({ attempt_id: 'a1', round: 1, step: 2 });
  });
});

describe('what a defect says', () => {
  it('is changed field by field, each with what it was', async () => {
    const at = server('lina').on('PATCH /defects/SKR-D35', detail('SKR-D35'));
    page = await Page.open('/SKR/defects/SKR-D35', at);
    await page.choose('[aria-label="Component"]', 'Boarding');
    expect(page.sent.at(-1)?.body).toEqual({ component: 'boarding', was: { component: '' } });
    await page.choose('[aria-label="Found by"]', 'us');
    expect(page.sent.at(-1)?.body).toEqual({ custom: { f1: 'us' }, was: {}, was_custom: { f1: '' } });
    await page.type('aside [list="page-labels"]', 'quay, "deck, car"');
    expect(page.sent.at(-1)?.body).toEqual({ labels: 'quay, "deck, car"', was: { labels: '' } });
    expect(page.has('[aria-label="Tell somebody else"]')).toBe(false);
  });

  it('stands to others from both ends, and what is refused says why', async () => {
    const other = (relation: Api['RelatedDefect']['relation'], key: string): Api['RelatedDefect'] => ({
      relation,
      id: key,
      key,
      title: `Title of ${key}`,
      state: 'in_work',
      closed: false,
    });
    const d = { ...detail('SKR-D35'), relations: [other('under', 'SKR-D1'), other('blocked_by', 'SKR-D3')] };
    const at = server('maren').on('GET /defects/SKR-D35', d);
    page = await Page.open('/SKR/defects/SKR-D35', at);
    const family = '[aria-label="Other defects"]';
    await page.see('It stands under SKR-D1 Title of SKR-D1 in work', family);
    await page.see('It is blocked by SKR-D3', family);
    await page.click(`${family} button`, 'Add');
    await page.choose('[aria-label="How it stands to another"]', 'It causes');
    await page.type('[aria-label="Key of the other defect"]', 'skr-d2');
    at.on('POST /defects/SKR-D35/relations', {
      status: 422,
      errors: { other: ['There is no such defect.'] },
    });
    await page.submit(`${family} form`);
    await page.see('There is no such defect.', `${family} [role=alert]`);
    expect(page.sent.at(-1)?.body).toEqual({ relation: 'causes', other: 'skr-d2' });
    at.on('DELETE /defects/SKR-D35/relations', { ...d, relations: [] });
    await page.click(`${family} li button`, 'It stands under SKR-D1 no more');
    await page.see('It stands by itself.', family);
  });

  it('is watched by oneself, and closing one with open ones below it asks once more', async () => {
    const d = detail('SKR-D35');
    const at = server('maren').on('POST /defects/SKR-D35/watchers', {
      ...d,
      watchers: [new DemoServer('maren').recorded<Api['SessionState']>('/session').user],
    });
    page = await Page.open('/SKR/defects/SKR-D35', at);
    await page.click('aside button', 'Be told of everything');
    await page.see('Be told no more', 'aside');
    await page.click('aside button', 'Close it');
    at.on('POST /defects/SKR-D35/moves', {
      status: 409,
      type: 'open-children',
      detail: 'Below it are still open: SKR-D1. Close it all the same?',
    });
    await page.submit('form.move');
    await page.see('Below it are still open', '[role=alert]');
    await page.see('Close it all the same', 'form.move button');
    expect((page.sent.at(-1)?.body as Api['DefectStateRequest']).anyway).toBe(false);
    at.on('POST /defects/SKR-D35/moves', { ...d, defect: { ...d.defect, state: 'closed' } });
    await page.submit('form.move');
    await page.see('SKR-D35: closed.');
    expect((page.sent.at(-1)?.body as Api['DefectStateRequest']).anyway).toBe(true);
  });
});
