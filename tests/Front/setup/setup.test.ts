// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

let page: Page;
afterEach(() => page?.close());
type Person = Api['PlanningSetup']['people'][number];
const TYPES = 'section[aria-label="Types"]';
const values = (selector: string): string[] =>
  [...document.querySelectorAll<HTMLInputElement>(`${selector} input:not([type=number])`)].map(
    (i) => i.value,
  );

describe('a list in Setup', () => {
  const lists = (server: DemoServer): Api['ProjectSetup'] => server.recorded('/projects/SKR/lists');

  it('is written as it stands, and then is what the server made of it', async () => {
    const server = new DemoServer('maren');
    const after = lists(server);
    after.types.push({ value: 'weather', name: 'Weather', weight: 1, uses: 0 });
    server.on('PUT /projects/SKR/lists/types', after);
    page = await Page.open('/SKR/setup', server);
    await page.click(`${TYPES} button`, 'Add one');
    await page.type(`${TYPES} input[aria-label="Name of types ${after.types.length}"]`, 'Weather ');
    await page.click(`${TYPES} button`, 'Save');
    await page.see('Types saved.');
    expect(page.sent[0]?.body.items).toHaveLength(after.types.length);
    expect((page.sent[0]?.body.items as { name: string }[]).at(-1)?.name).toBe('Weather ');
    expect(values(TYPES).at(-1), 'trimmed by the server').toBe('Weather');
    expect(page.all(`${TYPES} button`)).not.toContain('Save');
  });

  it('keeps what is typed when its state is read anew, and drops it on request', async () => {
    const server = new DemoServer('maren');
    page = await Page.open('/SKR/setup', server);
    const before = values(TYPES);
    await page.type(`${TYPES} input`, 'Renamed');
    const changed = lists(server);
    changed.types[0]!.uses += 7;
    server.on('GET /projects/SKR/lists', changed);
    window.dispatchEvent(new Event('visibilitychange'));
    await page.settle(6);
    expect(values(TYPES)[0]).toBe('Renamed');
    await page.click(`${TYPES} button`, 'Leave it as it was');
    expect(values(TYPES)).toEqual(before);
    expect(page.sent).toEqual([]);
  });

  it('says what the server refuses, and keeps what was typed', async () => {
    const server = new DemoServer('maren').on('PUT /projects/SKR/lists/types', {
      status: 409,
      type: 'in-use',
      detail: '65 cases are of the type “Functional”.',
      errors: {},
    });
    page = await Page.open('/SKR/setup', server);
    const count = values(TYPES).length;
    await page.click(`${TYPES} button`, 'Take out');
    await page.click(`${TYPES} button`, 'Save');
    await page.see('65 cases are of the type “Functional”.', TYPES);
    expect(values(TYPES)).toHaveLength(count - 1);
  });

  it('is moved by keys as by its buttons', async () => {
    page = await Page.open('/SKR/setup');
    const [first, second] = values(TYPES);
    document
      .querySelectorAll<HTMLInputElement>(`${TYPES} input`)[0]
      ?.dispatchEvent(
        new KeyboardEvent('keydown', { key: 'ArrowDown', altKey: true, bubbles: true, cancelable: true }),
      );
    await page.settle();
    expect(values(TYPES).slice(0, 2)).toEqual([second, first]);
    await page.click(`${TYPES} button`, `Move ${first} up`);
    expect(values(TYPES).slice(0, 2)).toEqual([first, second]);
  });

  it('is shown to a tester, who may not write it', async () => {
    page = await Page.open('/SKR/setup', 'tobias');
    await page.see('Leads and admins change these.');
    expect(page.all(`${TYPES} button`)).toEqual([]);
  });
});

describe('working days and time', () => {
  const planning = (server: DemoServer): Api['PlanningSetup'] =>
    server.recorded('/projects/SKR/planning-setup');
  const field = (name: string): HTMLInputElement => document.querySelector(`[aria-label="${name}"]`)!;

  it('keeps what is typed of one person while another is saved', async () => {
    const server = new DemoServer('maren');
    const after = planning(server);
    const [one, other] = after.people as [Person, Person];
    one.minutes_per_day = 90;
    server.on(`PUT /projects/SKR/people/${one.id}/capacity`, after);
    page = await Page.open('/SKR/setup/planning', server);
    await page.see('Working days and time');
    const typing = field(`Days off of ${other.name}`);
    typing.value = '2026-12-24';
    typing.dispatchEvent(new Event('input', { bubbles: true }));
    await page.type(`[aria-label="Time a day of ${one.name}"]`, '90m');
    await page.see('Saved.');
    const sent = page.sent.find((s) => s.path.endsWith('/capacity'));
    expect(sent?.body).toMatchObject({ minutes_per_day: 90 });
    expect(field(`Days off of ${other.name}`).value).toBe('2026-12-24');
    await vi.waitFor(() => expect(field(`Time a day of ${one.name}`).value).toBe('1h 30m'));
    expect(field(`Days off of ${other.name}`).value).toBe('2026-12-24');
  });

  it('keeps typed axes while a configuration is renamed', async () => {
    const server = new DemoServer('maren');
    const after = planning(server);
    after.configurations[0]!.name = 'Desk';
    server.on(`PATCH /configurations/${after.configurations[0]!.id}`, after);
    page = await Page.open('/SKR/setup/planning', server);
    await page.see('Axes');
    await page.type('[aria-label="Axes and configurations"] input', 'Thing');
    const name = [...document.querySelectorAll<HTMLInputElement>('input')].find(
      (i) => i.value === planning(server).configurations[0]!.name,
    )!;
    name.value = 'Desk';
    name.dispatchEvent(new Event('input', { bubbles: true }));
    name.dispatchEvent(new Event('change', { bubbles: true }));
    await page.see('Renamed.');
    expect(
      (document.querySelector('[aria-label="Axes and configurations"] input') as HTMLInputElement).value,
    ).toBe('Thing');
  });
});

describe('axes and configurations', () => {
  const made = (server: DemoServer): Api['PlanningSetup'] => {
    const setup = server.recorded<Api['PlanningSetup']>('/projects/SKR/planning-setup');
    setup.configurations.push({ ...setup.configurations[0]!, id: 'new', name: 'Desktop, small', entries: 0 });
    return setup;
  };

  it('shows the configurations that were made as soon as it says so', async () => {
    const server = new DemoServer('maren');
    server.on('POST /projects/SKR/configurations', made(server));
    page = await Page.open('/SKR/setup/planning', server);
    await page.click('button', 'Make those for all pairs');
    await page.see('Configurations made.');
    expect(values('main')).toContain('Desktop, small');
    expect(page.sent.filter((s) => s.path.endsWith('/configurations'))[0]?.body).toEqual({ how: 'pairs' });
  });

  it('asks what typed axes would give before anything is written', async () => {
    const server = new DemoServer('maren').on('POST /projects/SKR/axis-checks', {
      all: 16,
      all_more: false,
      pairs: 12,
      sample: [],
      impossible: [],
      untested: ['Kiosk with wide'],
    });
    page = await Page.open('/SKR/setup/planning', server);
    await page.click('.axis button', 'Add a value');
    await page.type('[aria-label="Value 4 of Device"]', 'Kiosk');
    await page.see('All combinations: 16');
    expect(page.sent.every((s) => s.path.endsWith('/axis-checks'))).toBe(true);
    expect((document.querySelector('[aria-label="Value 4 of Device"]') as HTMLInputElement).value).toBe(
      'Kiosk',
    );
    await page.click('button', 'Leave them as they were');
    expect(page.has('[aria-label="Value 4 of Device"]')).toBe(false);
  });

  it('says what holds a value that was to go', async () => {
    const server = new DemoServer('maren').on('PUT /projects/SKR/axes', {
      status: 409,
      type: 'in-use',
      detail: '“Tablet” is used by Quay tablet.',
    });
    page = await Page.open('/SKR/setup/planning', server);
    await page.type('[aria-label="Value 1 of Device"]', 'Wall');
    await page.click('button', 'Save the axes');
    await page.see('“Tablet” is used by Quay tablet.');
  });
});

describe('how a project walks', () => {
  it('changes one policy at a time and shows what the server has then', async () => {
    const server = new DemoServer('maren');
    const after = server.recorded<Api['WalkSetup']>('/projects/SKR/walk-setup');
    after.policies.skip_wrap_up_on_pass = !after.policies.skip_wrap_up_on_pass;
    server.on('PUT /projects/SKR/policies', after);
    page = await Page.open('/SKR/setup/walking', server);
    const boxes = [...document.querySelectorAll<HTMLInputElement>('main input[type=checkbox]')];
    boxes[0]?.click();
    await page.see('It counts from now on');
    expect(Object.keys(page.sent[0]?.body ?? {})).toHaveLength(1);
    expect(page.sent).toHaveLength(1);
  });

  it('says what is wrong with a limit where it is typed', async () => {
    const server = new DemoServer('maren').on('PUT /projects/SKR/storage', {
      status: 422,
      errors: { retention_days: ['A whole number of days.'] },
    });
    page = await Page.open('/SKR/setup/walking', server);
    if (!page.has('#days, [name=days]')) return;
    await page.type('#days, [name=days]', 'soon');
    await page.submit('form');
    await page.see('A whole number of days.');
  });
});

describe('environments', () => {
  const HERE = 'section[aria-label="Environments"]';
  const setupOf = (server: DemoServer) =>
    server.recorded<Api['PlanningSetup']>('/projects/SKR/planning-setup');

  it('are written with the state that was seen, and keep who they are', async () => {
    const server = new DemoServer('maren');
    const before = setupOf(server);
    const after = structuredClone(before);
    const staging = {
      id: 'e9',
      name: 'Staging',
      address: 'https://staging.example/',
      build: null,
      notes: '',
      observed: false,
    };
    after.environments.push(staging);
    server.on('PUT /projects/SKR/environments', after);
    page = await Page.open('/SKR/setup/planning', server);
    const at = before.environments.length + 1;
    await page.click(`${HERE} button`, 'Add an environment');
    await page.click(`${HERE} button`, 'Add an environment');
    await page.type(`${HERE} input[aria-label="Name of environment ${at + 1}"]`, 'Staging');
    await page.type(
      `${HERE} input[aria-label="Address of environment ${at + 1}"]`,
      'https://staging.example/',
    );
    await page.click(`${HERE} button`, 'Save');
    await page.see('Environments saved.');
    const kept = before.environments.map((e) => ({
      id: e.id,
      name: e.name,
      address: e.address,
      build_id: e.build?.id ?? null,
      notes: e.notes,
      observed: e.observed,
    }));
    const put = page.sent.find((one) => one.path.endsWith('/environments'));
    expect(put?.body, 'without the empty line').toEqual({
      environments: [...kept, { ...staging, id: null, build: undefined, build_id: null }],
      seen: before.seen.environments,
    });
    expect(values(HERE)).toContain('https://staging.example/');
  });

  it('say beside its line what is wrong with one, and keep what was typed', async () => {
    const server = new DemoServer('maren');
    const at = setupOf(server).environments.length;
    server.on('PUT /projects/SKR/environments', {
      status: 422,
      errors: { [`environments.${at}.address`]: ['Write a whole address.'] },
    });
    page = await Page.open('/SKR/setup/planning', server);
    const before = values(HERE);
    await page.click(`${HERE} button`, 'Add an environment');
    await page.type(`${HERE} input[aria-label="Name of environment ${at + 1}"]`, 'Staging');
    await page.type(`${HERE} input[aria-label="Address of environment ${at + 1}"]`, 'staging');
    await page.click(`${HERE} button`, 'Save');
    await page.see('Write a whole address.', HERE);
    expect(values(HERE)).toContain('staging');
    await page.click(`${HERE} button`, 'Leave it as it was');
    expect(values(HERE)).toEqual(before);
  });

  it('say why one that is used stays', async () => {
    const words = '“Rehearsal” stays: it is used by 1 cycle.';
    const server = new DemoServer('maren').on('PUT /projects/SKR/environments', {
      status: 409,
      type: 'urn:lucid-step:problem:in-use',
      detail: words,
    });
    page = await Page.open('/SKR/setup/planning', server);
    await page.click(`${HERE} [role=group] button`, 'Take out');
    await page.click(`${HERE} button`, 'Save');
    await page.see(words, HERE);
  });

  it('are shown to a tester, who may not write them', async () => {
    page = await Page.open('/SKR/setup/planning', new DemoServer('tobias'));
    await page.see('Environments', HERE);
    expect(page.all(`${HERE} button`)).toEqual([]);
    const fields = [...document.querySelectorAll<HTMLInputElement>(`${HERE} input`)];
    expect(fields.length).toBeGreaterThan(0);
    expect(fields.every((i) => i.disabled)).toBe(true);
  });
});

describe('people’s time', () => {
  it('comes in many lines at once; what means nobody stays, with why', async () => {
    const server = new DemoServer('maren').on('POST /projects/SKR/capacity-imports', [
      { line: 1, text: 'Piet Halloran, 6h', person_id: 'p', problem: null },
      { line: 2, text: 'Nobody, 6h', person_id: null, problem: 'Nobody in this project is called Nobody.' },
    ] satisfies Api['CapacityResult'][]);
    page = await Page.open('/SKR/setup/planning', server);
    await page.type('#capacity-lines', 'Piet Halloran, 6h\nNobody, 6h');
    await page.click('button', 'Take them in');
    await page.see('Took 1 line.');
    await page.see('Line 1: Nobody in this project is called Nobody.', '[role=alert]');
    expect(document.querySelector<HTMLTextAreaElement>('#capacity-lines')?.value).toBe('Nobody, 6h');
    expect(server.sent.at(-1)?.body).toEqual({ text: 'Piet Halloran, 6h\nNobody, 6h' });
  });
});

describe('the log of the setup', () => {
  it('tells by day who changed what, and goes back by windows', async () => {
    const act = (id: number, at: string, lines: string[]): Api['SetupAct'] => ({
      id,
      at,
      by: { id: 'p1', name: 'Maren Voss' } as Api['Person'],
      lines,
      has_words: false,
      removed: null,
      may_undo: id === 9,
    });
    const server = new DemoServer('maren')
      .on('GET /projects/SKR/setup-log', {
        items: [
          act(9, '2026-11-28T10:00:00Z', ['Added build 4.3', 'Policy “A cycle closes itself”: on']),
          act(8, '2026-11-27T23:30:00Z', ['Took out label <b>old</b>']),
        ],
        next: '8',
      })
      .on('GET /projects/SKR/setup-log?after=8', {
        items: [{ ...act(7, '2026-11-20T10:00:00Z', ['The project was made']), by: null }],
        next: null,
      });
    page = await Page.open('/SKR/setup/log', server);
    await page.see('Policy “A cycle closes itself”: on', 'section[aria-label="28 Nov"]');
    // Only what is still as it was left can be undone; what is refused says why where it stands.
    expect(page.all('ol button')).toEqual(['Undo']);
    server.on('POST /projects/SKR/setup-log/9/undo', {
      status: 409,
      detail: 'What this changed was changed again.',
    });
    await page.click('ol button', 'Undo');
    await page.see('What this changed was changed again.', '[role=alert]');
    server.on('POST /projects/SKR/setup-log/9/undo', { items: [], next: null });
    await page.click('ol button', 'Undo');
    await page.see('It is as it was before.');
    await page.see('Took out label <b>old</b>', 'section[aria-label="27 Nov"]');
    await page.click('button', 'Earlier changes');
    await page.see('Lucid Step', 'section[aria-label="20 Nov"]');
    await page.seeNot('Earlier changes');
  });

  it('lets an admin take words out, with why, and says who did', async () => {
    const act = (more: Partial<Api['SetupAct']>): Api['SetupAct'] => ({
      id: 12,
      at: '2026-11-28T10:00:00Z',
      by: { id: 'p1', name: 'Maren Voss' } as Api['Person'],
      lines: ['Staging, notes: “Isla Fenn, 4711” → “Ask the desk”'],
      has_words: true,
      removed: null,
      may_undo: false,
      ...more,
    });
    const asked = 'POST /projects/SKR/setup-log/12/removals';
    const server = new DemoServer('corin')
      .on('GET /projects/SKR/setup-log', { items: [act({})], next: null })
      .on(asked, { status: 409, detail: 'Change it there first.' });
    page = await Page.open('/SKR/setup/log', server);
    await page.click('button', 'Take the words out');
    await page.type('[aria-label^="Why"]', 'A person is named');
    await page.click('button[type=submit]', 'Take the words out');
    await page.see('Change it there first.', '[role=alert]');
    const typed = document.querySelector<HTMLInputElement>('[aria-label^="Why"]')?.value;
    expect(typed).toBe('A person is named');
    const by = { id: 'p2', name: 'Corin Vale' } as Api['Person'];
    const removed = { by, at: '2026-11-28T11:00:00Z', reason: 'A person is named' };
    const gone = { items: [act({ lines: ['Staging, notes'], has_words: false, removed })], next: null };
    server.on('GET /projects/SKR/setup-log', gone).on(asked, gone);
    await page.click('button[type=submit]', 'Take the words out');
    await page.see('Corin Vale took words out');
    await page.seeNot('Isla Fenn');
    await page.seeNot('Take the words out');
  });

  it('is not offered to a tester', async () => {
    page = await Page.open('/SKR/setup/walking', new DemoServer('tobias'));
    await page.see('Who records');
    await page.seeNot('Log', '[aria-label="Setup"]');
  });
});
