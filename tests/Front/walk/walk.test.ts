import { describe, expect, it } from 'vitest';
import type { Api } from '@/api/client';
import { applyCommands, settleCommand } from '@/areas/walk/commands';
import { countedRounds, rollUp } from '@/areas/walk/rollUp';
import { isCarried, type WalkStep } from '@/areas/walk/useWalk';
import { requestOf, type Command, type QueuedCommand } from '@/offline/commands';
import { checkFile, sizeInHead } from '@/offline/files';

const step = (position: number): Api['StepRecord'] => ({
  position,
  verdict: 'not_run',
  note: '',
  happened: '',
  reason: '',
  waits_on: '',
  active_ms: 0,
  tries: 0,
  tries_failed: 0,
  judged_at: null,
});
const detail = (rounds: number, steps: number): Api['AttemptDetail'] =>
  ({
    attempt: { id: 'a', state: 'open', roll_up: 'not_run', verdict: null, active_ms: 0, remark: '' },
    steps: Array.from({ length: steps }, (_, i) => ({ position: i + 1, action: `Do ${i + 1}` })),
    rounds: Array.from({ length: rounds }, (_, r) => ({
      position: r + 1,
      roll_up: 'not_run',
      skipped: null,
      repeats: null,
      values: [],
      texts: [],
      steps: Array.from({ length: steps }, (_, s) => step(s + 1)),
    })),
    evidence: [],
    defects: [],
  }) as unknown as Api['AttemptDetail'];
let counter = 0;
const act = (command: Command, more: Partial<QueuedCommand> = {}): QueuedCommand => ({
  counter: ++counter,
  key: `k${counter}`,
  attempt: 'a',
  user: 'u',
  command,
  at: '2026-11-24T10:00:00.000Z',
  ...more,
});
const judge = (round: number, at: number, verdict: Api['StepRecord']['verdict']): Command => ({
  kind: 'verdict',
  round,
  step: at,
  verdict,
  active_ms: 10,
});

describe('what waits is laid over what the server knows', () => {
  it('rolls up as the server does, a round walked once more in place of the one before', () => {
    const base = detail(2, 2);
    const fail = [act(judge(1, 1, 'pass')), act(judge(1, 2, 'fail'))];
    expect(applyCommands(base, fail).attempt.roll_up).toBe('fail');
    const again = [
      ...fail,
      act({ kind: 'round', round: 1, act: 'repeat', reason: '' }),
      act(judge(3, 1, 'pass')),
      act(judge(3, 2, 'pass')),
    ];
    expect(applyCommands(base, again).attempt.roll_up).toBe('in_progress');
    const out = applyCommands(base, [
      ...again,
      act({ kind: 'round', round: 2, act: 'skip', reason: 'Nobody there' }),
    ]);
    expect(out.attempt.roll_up).toBe('pass');
    expect(countedRounds(out.rounds).map((r) => r.position)).toEqual([2, 3]);
    expect(out.rounds[1]).toMatchObject({ skipped: 'Nobody there', roll_up: 'not_applicable' });
  });

  it('never changes what it is given, and laying the same acts again gives the same', () => {
    const verdicts = ['pass', 'fail', 'blocked', 'not_applicable', 'not_run'] as const;
    let seed = 7;
    const random = (n: number): number => {
      seed = (seed * 1103515245 + 12345) % 2147483648;
      return seed % n;
    };
    for (let n = 0; n < 60; n += 1) {
      const base = detail(1 + random(3), 1 + random(4));
      const before = JSON.stringify(base);
      const acts = Array.from({ length: random(12) }, () => {
        const round = 1 + random(base.rounds.length);
        const at = 1 + random(base.steps.length);
        return act(
          random(4) === 0
            ? { kind: 'try', round, step: at, failed: random(2) === 0 }
            : judge(round, at, verdicts[random(5)]!),
        );
      });
      const once = applyCommands(base, acts);
      expect(JSON.stringify(base)).toBe(before);
      expect(applyCommands(base, acts)).toEqual(once);
      expect(once.attempt.roll_up).toBe(rollUp(once.rounds.flatMap((r) => r.steps.map((s) => s.verdict))));
    }
  });

  it('shows no refused verdict, and a refused or held file with why', () => {
    const file = new Blob(['x'], { type: 'image/png' });
    const evidence: Command = {
      kind: 'evidence',
      id: 'e',
      round: 1,
      step: 1,
      name: 'a.png',
      source: 'capture',
      file,
    };
    const view = applyCommands(detail(1, 1), [
      act(judge(1, 1, 'pass'), { refused: 'Too late.' }),
      act(evidence, { refused: 'Too large.' }),
      act({ ...evidence, id: 'f' }, { held: true }),
    ]);
    expect(view.rounds[0]?.steps[0]?.verdict).toBe('not_run');
    expect(view.evidence.map((e) => [e.refused, e.held])).toEqual([
      ['Too large.', undefined],
      [undefined, true],
    ]);
  });

  it('begins an attempt under the id that was made here', () => {
    const { path, init } = requestOf(act({ kind: 'start', entry: 'e1', version: 'v1' }));
    expect(path).toBe('/api/v1/entries/e1/device-attempts');
    expect(JSON.parse(String(init.body))).toMatchObject({ id: 'a', case_version_id: 'v1' });
  });
});

describe('a verdict that was given to an older version of the case', () => {
  it('is carried until the step is judged anew', () => {
    const of = (verdict: Api['StepRecord']['verdict'], judged: string | null, carried: string | null) =>
      isCarried({
        ...({ position: 1, carried_at: carried } as unknown as WalkStep),
        record: { ...step(1), verdict, judged_at: judged },
      });
    expect(of('pass', '2026-11-29T10:00:00.000Z', '2026-11-29T10:00:00.500Z')).toBe(true);
    expect(of('pass', '2026-11-29T10:00:01.000Z', '2026-11-29T10:00:00.500Z')).toBe(false);
    expect(of('not_run', '2026-11-29T10:00:00.000Z', '2026-11-29T10:00:00.500Z')).toBe(false);
    expect(of('pass', '2026-11-29T10:00:00.000Z', null)).toBe(false);
  });
});

describe('files are looked over before they are kept', () => {
  const png = (width: number, height: number): Uint8Array<ArrayBuffer> => {
    const bytes = new Uint8Array(40);
    bytes.set([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13, 0x49, 0x48, 0x44, 0x52]);
    new DataView(bytes.buffer).setUint32(16, width);
    new DataView(bytes.buffer).setUint32(20, height);
    return bytes;
  };
  it('reads the size in the head', () => {
    expect(sizeInHead(new DataView(png(1280, 800).buffer))).toEqual({ width: 1280, height: 800 });
    const jpeg = new Uint8Array([
      0xff, 0xd8, 0xff, 0xe0, 0, 4, 0, 0, 0xff, 0xc0, 0, 11, 8, 3, 32, 5, 0, 3, 0, 0,
    ]);
    expect(sizeInHead(new DataView(jpeg.buffer))).toEqual({ width: 1280, height: 800 });
    expect(sizeInHead(new DataView(new TextEncoder().encode('12:00 fine').buffer))).toBeNull();
  });
  it('refuses what the server would, in words', async () => {
    const picture = (w: number, h: number): Blob => new Blob([png(w, h)], { type: 'image/png' });
    await expect(checkFile(picture(20_000, 1000), 'wide.png')).rejects.toThrow('20000 × 1000 pixels');
    await expect(checkFile(picture(16_000, 16_000), 'bomb.png')).rejects.toThrow('megapixels');
    await expect(checkFile(new Blob([]), 'none.log')).rejects.toThrow('empty');
    const clip = { size: 300 * 1024 * 1024, type: 'video/webm' } as Blob;
    await expect(checkFile(clip, 'long.webm')).rejects.toThrow('300.0 MB; at most 100 MB');
    await expect(checkFile(picture(1280, 800), 'fine.png')).resolves.toBeUndefined();
  });
});

describe('what the server has taken', () => {
  const base = detail(1, 2);
  const at = { round: 1, step: 1 };
  const file = new Blob(['x'], { type: 'image/png' });
  const taken = (command: Command, answer: Record<string, unknown> = {}, before = base) =>
    settleCommand(before, act(command), answer);
  const added: Command = { kind: 'evidence', id: 'e', ...at, name: 'a.png', source: 'paste', file };

  it('is the server’s own piece of evidence, without what only the device had', () => {
    const saved = { id: 'e', name: 'a.png', url: '/file', sha256: 'abc' };
    expect(taken(added, { evidence: saved }).evidence).toEqual([saved]);
    expect(taken(added).evidence[0]).not.toHaveProperty('local');
  });

  it('has the key of the defect that was filed', () => {
    const filed = taken(
      {
        kind: 'defect',
        id: 'd',
        project: 'SKR',
        ...at,
        title: 'T',
        body: '',
        expected: '',
        actual: '',
        severity: 'major',
      },
      { defect: { id: 'd', key: 'SKR-D9', state: 'new' } },
    );
    expect(filed.defects).toMatchObject([{ id: 'd', key: 'SKR-D9' }]);
  });

  it('shows a picture anew once something is drawn on it or hidden in it', () => {
    const shown = { ...base, evidence: [{ id: 'e', url: '/old', markup: null, marked_url: null }] } as never;
    const markup = { shapes: [{ kind: 'box' as const, x: 1, y: 1 }], width: 4, height: 4 };
    const drawn = taken({ kind: 'markup', id: 'e', markup, file }, {}, shown).evidence[0];
    expect(drawn?.marked_url).toContain('/api/v1/evidence/e/marked?v=');
    const hidden = taken({ kind: 'redact', id: 'e', file }, {}, shown).evidence[0];
    expect(hidden).toMatchObject({ marked_url: null, markup: null });
    expect(hidden?.url).toContain('/api/v1/evidence/e/file?v=');
  });

  it('is the attempt that the server answers when it was begun on the device', () => {
    const answer = { ...detail(1, 1), attempt: { id: 'a', number: 4 } };
    expect(taken({ kind: 'start', entry: 'e', version: 'v' }, answer)).toEqual(answer);
    expect(taken({ kind: 'start', entry: 'e', version: 'v' })).toBe(base);
  });

  it('leaves what was known before as it is', () => {
    const frozen = structuredClone(base);
    taken(judge(1, 1, 'fail'));
    taken({ kind: 'round', round: 1, act: 'repeat', reason: '' });
    expect(base).toEqual(frozen);
  });
});
