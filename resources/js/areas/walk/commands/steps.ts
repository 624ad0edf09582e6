import { renewRollUp } from '../rollUp';
import type { StepVerdict } from '../types';
import { attemptPath, stepOf, type WalkKind } from './kind';

declare module '@/offline/commands' {
  interface CommandMap {
    verdict: {
      round: number;
      step: number;
      verdict: StepVerdict;
      happened?: string;
      reason?: string;
      waits_on?: string;
      active_ms: number;
    };
    /** Without a step: of the whole attempt. */
    note: { round: number | null; step: number | null; note: string };
    try: { round: number; step: number; failed: boolean };
    round: { round: number; act: 'skip' | 'take_up' | 'repeat'; reason: string };
  }
}

export const verdict: WalkKind<'verdict'> = {
  label: 'A verdict',
  request: ({ kind: _, ...body }, queued) => ({
    method: 'POST',
    path: `${attemptPath(queued)}/verdicts`,
    body,
  }),
  apply(view, command, queued) {
    const round = view.rounds.find((r) => r.position === command.round);
    const step = round?.steps.find((s) => s.position === command.step);
    if (!round || !step) return;
    step.verdict = command.verdict;
    step.happened = command.happened ?? '';
    step.reason = command.reason ?? '';
    step.waits_on = command.waits_on ?? '';
    step.active_ms += command.active_ms;
    step.judged_at = command.verdict === 'not_run' ? null : queued.at;
    view.attempt.active_ms += command.active_ms;
    view.waiting.add(`${command.round}.${command.step}`);
    renewRollUp(view, round);
  },
};

export const note: WalkKind<'note'> = {
  label: 'A note',
  request: ({ kind: _, ...body }, queued) => ({ method: 'POST', path: `${attemptPath(queued)}/notes`, body }),
  apply(view, { round, step, note: text }) {
    if (step === null || round === null) {
      view.attempt.remark = text;
      return;
    }
    const record = stepOf(view, { round, step });
    if (record) record.note = text;
  },
};

export const retry: WalkKind<'try'> = {
  label: 'A try',
  request: ({ kind: _, ...body }, queued) => ({ method: 'POST', path: `${attemptPath(queued)}/tries`, body }),
  apply(view, command) {
    const step = stepOf(view, command);
    if (!step) return;
    step.tries += 1;
    step.tries_failed += command.failed ? 1 : 0;
  },
};

const UNTOUCHED = {
  verdict: 'not_run',
  note: '',
  happened: '',
  reason: '',
  waits_on: '',
  active_ms: 0,
  tries: 0,
  tries_failed: 0,
  judged_at: null,
} as const;

export const round: WalkKind<'round'> = {
  label: 'A round',
  request: ({ kind: _, ...body }, queued) => ({
    method: 'POST',
    path: `${attemptPath(queued)}/rounds`,
    body,
  }),
  apply(view, command) {
    const of = view.rounds.find((r) => r.position === command.round);
    if (!of) return;
    if (command.act !== 'repeat') of.skipped = command.act === 'skip' ? command.reason : null;
    else if (view.rounds.some((r) => r.repeats === of.position)) return;
    else
      view.rounds.push({
        ...of,
        position: view.rounds.length + 1,
        repeats: of.position,
        skipped: null,
        roll_up: 'not_run',
        texts: view.rounds.indexOf(of) === 0 ? [] : of.texts,
        steps: of.steps.map((s) => ({ ...s, ...UNTOUCHED })),
      });
    renewRollUp(view, of);
  },
};
