import type { Api } from '@/api/client';
import type { WalkView } from './types';

type RollUp = Api['RoundRecord']['roll_up'];

/**
 * Rolls verdicts up, for showing at once what the server will say: fail, blocked, not run, in progress,
 * not applicable, pass, the first that fits. The server runs the same examples (tests/shared/roll-ups.json).
 */
export function rollUp(verdicts: RollUp[]): RollUp {
  const has = (v: RollUp): boolean => verdicts.includes(v);
  const all = (v: RollUp): boolean => verdicts.every((x) => x === v);
  if (has('fail')) return 'fail';
  if (has('blocked')) return 'blocked';
  if (all('not_run')) return 'not_run';
  if (has('not_run') || has('in_progress')) return 'in_progress';
  return all('not_applicable') ? 'not_applicable' : 'pass';
}

/** The rounds that count: one walked once more stands for the one before. */
export function countedRounds(rounds: Api['RoundRecord'][]): Api['RoundRecord'][] {
  const repeated = new Set(rounds.map((r) => r.repeats));
  return rounds.filter((r) => !repeated.has(r.position));
}

/** Brings a round and the attempt in line with the verdicts of their steps. */
export function renewRollUp(view: WalkView, round: Api['RoundRecord']): void {
  round.roll_up = round.skipped === null ? rollUp(round.steps.map((s) => s.verdict)) : 'not_applicable';
  view.attempt.roll_up = rollUp(countedRounds(view.rounds).map((r) => r.roll_up));
}

/** Whether a roll-up sets the verdict by itself under the policies; what it does not set it only suggests. */
export function setsVerdict(
  policies: Pick<Api['PolicySet'], 'fail_sets_verdict' | 'pass_sets_verdict'>,
  of: RollUp,
): boolean {
  if (of === 'fail') return policies.fail_sets_verdict;
  if (of === 'pass') return policies.pass_sets_verdict;
  return of === 'blocked' || of === 'not_applicable';
}
