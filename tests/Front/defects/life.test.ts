import { describe, expect, it } from 'vitest';
import type { Api } from '@/api/client';
import { MOVES, movesOf, type State } from '@/areas/defects/life';

const STATES = Object.keys(MOVES) as State[];
const detail = (state: State, moves: State[], more: Partial<Api['DefectDetail']> = {}): Api['DefectDetail'] =>
  ({ defect: { state }, moves, asked_in: null, ...more }) as Api['DefectDetail'];

describe('the moves of a defect', () => {
  it('are offered once each, whichever are allowed: one as the next, asking back apart, the rest in their order', () => {
    let seed = 7;
    const any = (of: number): number => (seed = (seed * 16_807) % 2_147_483_647) % of;
    for (let turn = 0; turn < 2000; turn++) {
      const state = STATES[any(STATES.length)]!;
      const allowed = STATES.filter((s) => s !== state && any(2) === 0);
      const askedIn = state === 'needs_information' ? (STATES[any(STATES.length)] ?? null) : null;
      const { first, ask, rest } = movesOf(detail(state, allowed, { asked_in: askedIn }));
      const offered = [first, ask, ...rest].flatMap((m) => (m ? [m.to] : []));
      expect([...offered].sort()).toEqual([...allowed].sort());
      expect(ask?.to ?? 'needs_information').toBe('needs_information');
      const order = rest.map((m) => allowed.indexOf(m.to));
      expect(order).toEqual([...order].sort((a, b) => a - b));
      expect(offered.every((to) => MOVES[to] !== undefined)).toBe(true);
    }
  });

  it('begin with what one would do next: an answer where something was asked, taking it in work where it is new', () => {
    const of = (state: State, moves: State[], more = {}): string | undefined =>
      movesOf(detail(state, moves, more)).first?.word;
    expect(of('new', ['accepted', 'in_work', 'fixed'])).toBe('Take it in work');
    expect(of('new', ['accepted', 'fixed'])).toBe('Accept it');
    expect(of('in_work', ['accepted', 'fixed'])).toBe('Fixed in a build');
    expect(of('fixed', ['in_work', 'verified', 'reopened'])).toBe('It is gone');
    expect(of('fixed', ['in_work', 'needs_information'])).toBeUndefined();
    expect(of('needs_information', ['in_work', 'rejected'], { asked_in: 'in_work' })).toBe('Answered');
    expect(of('closed', ['reopened'])).toBeUndefined();
  });
});
