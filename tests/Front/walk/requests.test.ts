import { describe, expect, it } from 'vitest';
import '@/areas/walk/commands';
import { requestOf, type Command, type QueuedCommand } from '@/offline/commands';

const act = (command: Command): QueuedCommand => ({
  counter: 7,
  key: 'k',
  attempt: 'a1',
  user: 'u',
  command,
  at: '2026-11-25T10:00:00.000Z',
});
const picture = new Blob(['x'], { type: 'image/png' });
const sent = (command: Command) => {
  const { path, init } = requestOf(act(command));
  const body =
    init.body instanceof FormData
      ? Object.fromEntries(init.body.entries())
      : (JSON.parse(String(init.body)) as Record<string, unknown>);
  return { path, method: init.method, body };
};

/** Each command, where it goes, and what it says. */
const commands: [Command, string, string, Record<string, unknown>][] = [
  [
    { kind: 'start', entry: 'e1', version: 'v1' },
    'POST',
    '/api/v1/entries/e1/device-attempts',
    { id: 'a1', case_version_id: 'v1' },
  ],
  [
    { kind: 'verdict', round: 2, step: 3, verdict: 'fail', happened: 'It broke.', active_ms: 900 },
    'POST',
    '/api/v1/attempts/a1/verdicts',
    { round: 2, step: 3, verdict: 'fail', happened: 'It broke.', active_ms: 900 },
  ],
  [
    { kind: 'note', round: 1, step: 2, note: 'Slow' },
    'POST',
    '/api/v1/attempts/a1/notes',
    { round: 1, step: 2, note: 'Slow' },
  ],
  [
    { kind: 'note', round: null, step: null, note: 'A slow day' },
    'POST',
    '/api/v1/attempts/a1/notes',
    { round: null, step: null, note: 'A slow day' },
  ],
  [
    { kind: 'try', round: 1, step: 2, failed: true },
    'POST',
    '/api/v1/attempts/a1/tries',
    { round: 1, step: 2, failed: true },
  ],
  [
    { kind: 'round', round: 2, act: 'skip', reason: 'Nobody there' },
    'POST',
    '/api/v1/attempts/a1/rounds',
    { round: 2, act: 'skip', reason: 'Nobody there' },
  ],
  [
    { kind: 'away', away_ms: 900_000, counted_ms: 60_000 },
    'POST',
    '/api/v1/attempts/a1/away',
    { away_ms: 900_000, counted_ms: 60_000 },
  ],
  [
    { kind: 'surroundings', build: { id: 'b1', name: '4.2' }, configuration: null, environment: 'Staging' },
    'POST',
    '/api/v1/attempts/a1/surroundings',
    { build_id: 'b1', configuration_id: null, environment: 'Staging' },
  ],
  [
    {
      kind: 'surroundings',
      build: null,
      configuration: null,
      named_environment: { id: 'e1', name: 'Staging' },
      environment: '',
    },
    'POST',
    '/api/v1/attempts/a1/surroundings',
    { build_id: null, configuration_id: null, environment_id: 'e1', environment: '' },
  ],
  [
    {
      kind: 'evidence',
      id: 'x',
      round: 1,
      step: 2,
      name: 'a.png',
      source: 'paste',
      file: null,
      link: 'https://a.test/',
    },
    'POST',
    '/api/v1/attempts/a1/evidence',
    { id: 'x', round: '1', step: '2', name: 'a.png', source: 'paste', link: 'https://a.test/' },
  ],
  [
    { kind: 'caption', id: 'x', caption: 'What I saw' },
    'PATCH',
    '/api/v1/evidence/x',
    { caption: 'What I saw' },
  ],
  [
    { kind: 'move', id: 'x', round: null, step: null },
    'POST',
    '/api/v1/evidence/x/moves',
    { round: null, step: null },
  ],
  [{ kind: 'remove', id: 'x' }, 'DELETE', '/api/v1/evidence/x', {}],
  [
    {
      kind: 'defect',
      id: 'd1',
      project: 'SKR',
      round: 1,
      step: 2,
      title: 'T',
      body: 'B',
      expected: 'E',
      actual: 'A',
      severity: 'major',
    },
    'POST',
    '/api/v1/projects/SKR/defects',
    {
      id: 'd1',
      round: 1,
      step: 2,
      title: 'T',
      body: 'B',
      expected: 'E',
      actual: 'A',
      severity: 'major',
      attempt_id: 'a1',
    },
  ],
  [
    { kind: 'link', defect: 'd1', key: 'SKR-D1', title: 'T', round: 1, step: 2 },
    'POST',
    '/api/v1/defects/SKR-D1/links',
    { attempt_id: 'a1', round: 1, step: 2 },
  ],
  [
    { kind: 'message', case: 'SKR-C1', what: 'question', step: 2, body: 'Why?', proposal: null },
    'POST',
    '/api/v1/cases/SKR-C1/messages',
    { kind: 'question', step: 2, body: 'Why?' },
  ],
  [
    { kind: 'outage', cycle: 'SKR-R2', ids: ['e2'], note: 'Dark', reason: 'Down', waits_on: 'power' },
    'POST',
    '/api/v1/cycles/SKR-R2/list-verdicts',
    { ids: ['e2'], verdict: 'blocked', note: 'Dark', reason: 'Down', waits_on: 'power' },
  ],
  [{ kind: 'stops', entry: 'e1' }, 'POST', '/api/v1/entries/e1/stops', {}],
  [
    { kind: 'finish', verdict: null, note: '', active_ms: 500, time: '1h 20m' },
    'POST',
    '/api/v1/attempts/a1/finish',
    { verdict: null, note: '', active_ms: 500, time: '1h 20m' },
  ],
];

describe('what waits on the device', () => {
  it.each(commands)('%o goes by %s to %s', (command, method, path, body) => {
    const asked = sent(command);
    expect(asked).toMatchObject({ method, path, body });
    // Each says when it was done, by the device’s clock and counter, and when it was sent.
    expect(asked.body.device_time).toBe('2026-11-25T10:00:00.000Z');
    expect(Number(asked.body.counter)).toBe(7);
    expect(Number.isNaN(Date.parse(String(asked.body.sent_at)))).toBe(false);
    // What only the device needs stays here.
    expect(asked.body).not.toHaveProperty('user');
    expect(asked.body).not.toHaveProperty('key');
  });

  it('carries its files as files', () => {
    const evidence: Command = {
      kind: 'evidence',
      id: 'x',
      round: null,
      step: null,
      name: 'a.png',
      source: 'paste',
      file: picture,
    };
    const asked = sent(evidence);
    expect((asked.body.file as File).name).toBe('a.png');
    expect(asked.body).not.toHaveProperty('round');
    expect(asked.body).not.toHaveProperty('link');
    expect((sent({ kind: 'redact', id: 'x', file: picture }).body.file as File).type).toBe('image/png');
    const markup = sent({
      kind: 'markup',
      id: 'x',
      markup: { shapes: [{ kind: 'pin', x: 1, y: 2, number: 1 }], width: 10, height: 20 },
      file: picture,
    });
    expect(markup.path).toBe('/api/v1/evidence/x/markups');
    expect(JSON.parse(String(markup.body.markup))).toEqual({
      shapes: [{ kind: 'pin', x: 1, y: 2, number: 1 }],
      width: 10,
      height: 20,
    });
  });
});
