import type { Api } from '@/api/client';

export type State = Api['DefectStateRequest']['state'];

/** What moving a defect somewhere is called, as one who does it says it. */
export const MOVES: Record<State, string> = {
  new: 'As it was',
  needs_information: 'Ask back',
  accepted: 'Accept it',
  in_work: 'Take it in work',
  fixed: 'Fixed in a build',
  verified: 'It is gone',
  reopened: 'Reopen it',
  closed: 'Close it',
  rejected: 'Reject it',
  duplicate: 'It is a duplicate',
};

/** What one would do next, by where it is: the first of them that one may. */
const NEXT: Record<State, State[]> = {
  new: ['in_work', 'accepted'],
  accepted: ['in_work'],
  in_work: ['fixed'],
  reopened: ['in_work'],
  needs_information: [],
  fixed: ['verified'],
  verified: ['closed'],
  closed: [],
  rejected: [],
  duplicate: [],
};

export interface Move {
  to: State;
  word: string;
}

/** The moves that one may make: what one would do next first, asking back second, the rest in their order. */
export function movesOf(defect: Api['DefectDetail']): { first: Move | null; ask: Move | null; rest: Move[] } {
  const state = defect.defect.state as State;
  const all = (defect.moves as State[]).map((to) => ({
    to,
    word: state === 'needs_information' && to === defect.asked_in ? 'Answered' : MOVES[to],
  }));
  const answer = all.find((m) => m.word === 'Answered');
  const next = NEXT[state].find((to) => all.some((m) => m.to === to));
  const first = answer ?? all.find((m) => m.to === next) ?? null;
  const ask = all.find((m) => m.to === 'needs_information') ?? null;
  return { first, ask, rest: all.filter((m) => m !== first && m !== ask) };
}
