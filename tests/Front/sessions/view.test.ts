import { describe, expect, it } from 'vitest';
import type { Api } from '@/api/client';
import type { Command, QueuedCommand } from '@/offline/commands';
import '@/areas/sessions/commands';
import { requestOf } from '@/offline/commands';
import clocks from '../../shared/session-clocks.json';
import { clockAt, viewOf } from '@/areas/sessions/view';

/** What waits to be sent lies over what the server knows of a session. */
const T = Date.parse('2026-11-30T10:00:00Z');
const detail = {
  state: 'running' as const,
  runs: [[T, null]] as Api['SessionDetail']['runs'],
  box_ms: 3_600_000,
  focus: 'charter' as const,
  work: 'testing' as const,
};
let counter = 0;
const queued = (command: Command, minutes: number, more: Partial<QueuedCommand> = {}): QueuedCommand => ({
  counter: (counter += 1),
  key: `k${counter}`,
  attempt: 's1',
  user: 'u',
  command,
  at: new Date(T + minutes * 60_000).toISOString(),
  ...more,
});

describe('a session with what waits', () => {
  it('leaves pauses out of its clock, and times what is written by it', () => {
    const view = viewOf(
      detail,
      [],
      [
        queued({ kind: 'session_line', id: 'l1', line: 'note', words: 'One' }, 5),
        queued({ kind: 'session_move', to: 'paused' }, 10),
        queued({ kind: 'session_move', to: 'paused' }, 11),
        queued({ kind: 'session_move', to: 'running' }, 20),
        queued({ kind: 'session_line', id: 'l2', line: 'issue', words: 'Two' }, 25),
        queued({ kind: 'session_move', to: 'stopped' }, 30),
      ],
    );
    expect(view.state).toBe('stopped');
    expect(view.lines.map((l) => [l.kind, l.at_ms, l.waiting])).toEqual([
      ['note', 5 * 60_000, true],
      ['issue', 15 * 60_000, true],
    ]);
    expect(clockAt(view.runs, T + 99 * 60_000)).toBe(20 * 60_000);
  });

  it('tells what is to be looked over from what waits, and what was refused from both', () => {
    const file = new Blob(['made up'], { type: 'image/png' });
    const capture = (id: string): Command => ({
      kind: 'session_capture',
      id,
      file,
      name: `${id}.png`,
      words: '',
    });
    const { lines } = viewOf(
      detail,
      [],
      [
        queued(capture('c1'), 1, { held: true }),
        queued(capture('c2'), 2),
        queued(capture('c3'), 3, { held: true, refused: 'Too large.' }),
      ],
    );
    expect(lines.map((l) => [l.name, l.waiting, l.held, l.refused])).toEqual([
      ['c1.png', true, true, undefined],
      ['c2.png', true, undefined, undefined],
      ['c3.png', true, undefined, 'Too large.'],
    ]);
    expect(lines.every((l) => l.local === file)).toBe(true);
  });

  it.each(clocks)('shows $shows $says', ({ runs, at, shows }) => {
    expect(clockAt(runs as [number, number | null][], at)).toBe(shows);
  });

  it('shows a line once, mended with its former words, and what was refused as such', () => {
    const known = {
      id: 'l1',
      words: 'As it was',
      former: [],
      pinned: false,
    } as unknown as Api['TimelineLine'];
    const view = viewOf(
      detail,
      [known],
      [
        queued({ kind: 'session_line', id: 'l1', line: 'note', words: 'As it was' }, 1),
        queued({ kind: 'session_mend', id: 'l1', words: 'As it is' }, 2),
        queued({ kind: 'session_mend', id: 'l1', pinned: true }, 3),
        queued({ kind: 'session_line', id: 'l2', line: 'risk', words: 'Late' }, 4, {
          refused: 'Signed off.',
        }),
        queued({ kind: 'session_switch', to: 'opportunity' }, 5),
        queued({ kind: 'session_switch', to: 'setting_up' }, 6),
        queued({ kind: 'session_box', minutes: 90 }, 7),
        queued({ kind: 'session_box', minutes: 5 }, 8, { refused: 'No.' }),
      ],
    );
    expect(view.lines.map((l) => [l.id, l.words, l.former, l.pinned, l.refused])).toEqual([
      ['l1', 'As it is', ['As it was'], true, undefined],
      ['l2', 'Late', [], false, 'Signed off.'],
    ]);
    expect([view.focus, view.work, view.box_ms]).toEqual(['opportunity', 'setting_up', 5_400_000]);
  });

  it('is sent by the addresses of the API, with when it was done', () => {
    const of = (command: Command): [string, string, unknown] => {
      const { path, init } = requestOf(queued(command, 1));
      const {
        device_time,
        sent_at: _,
        counter: __,
        ...body
      } = JSON.parse(String(init.body)) as Record<string, unknown>;
      expect(device_time).toBe('2026-11-30T10:01:00.000Z');
      return [String(init.method), path, body];
    };
    expect(
      of({
        kind: 'session_start',
        charter: 'SKR-S1',
        build_id: 'b',
        configuration_id: null,
        environment: '',
      }),
    ).toEqual([
      'POST',
      '/api/v1/charters/SKR-S1/sessions',
      { id: 's1', build_id: 'b', configuration_id: null, environment: '' },
    ]);
    expect(of({ kind: 'session_line', id: 'l', line: 'idea', words: 'x' })).toEqual([
      'POST',
      '/api/v1/test-sessions/s1/lines',
      { id: 'l', kind: 'idea', words: 'x' },
    ]);
    expect(of({ kind: 'session_mend', id: 'l', pinned: false })).toEqual([
      'PATCH',
      '/api/v1/session-lines/l',
      { pinned: false },
    ]);
    expect(of({ kind: 'session_box', minutes: 75 })[1]).toBe('/api/v1/test-sessions/s1/box');
    expect(of({ kind: 'session_switch', to: 'testing' })[1]).toBe('/api/v1/test-sessions/s1/switches');
    expect(of({ kind: 'session_move', to: 'stopped' })[2]).toEqual({ to: 'stopped' });
  });
});
