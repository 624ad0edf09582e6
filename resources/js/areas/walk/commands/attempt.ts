import type { Api } from '@/api/client';
import type { FinalVerdict } from '../types';
import { attemptPath, type WalkKind } from './kind';

declare module '@/offline/commands' {
  interface CommandMap {
    /** Begun on the device, while the server was away. */
    start: { entry: string; version: string };
    away: { away_ms: number; counted_ms: number };
    surroundings: {
      build: Api['Named'] | null;
      configuration: Api['Named'] | null;
      /** None in what a device kept from before there were environments. */
      named_environment?: Api['Named'] | null;
      environment: string;
    };
    finish: { verdict: FinalVerdict | null; note: string; active_ms: number; time: string | null };
    message: {
      case: string;
      what: 'question' | 'suggestion';
      step: number | null;
      body: string;
      proposal: { action: string; data: string; expected: string } | null;
    };
    /** One outage on many entries at once. */
    outage: { cycle: string; ids: string[]; note: string; reason: string; waits_on: string };
    stops: { entry: string };
  }
}

export const start: WalkKind<'start'> = {
  label: 'The start of an attempt',
  creates: 'attempt',
  request: (command, queued) => ({
    method: 'POST',
    path: `/api/v1/entries/${command.entry}/device-attempts`,
    body: { id: queued.attempt, case_version_id: command.version },
  }),
};

export const idleTime: WalkKind<'away'> = {
  label: 'A time away',
  request: ({ kind: _, ...body }, queued) => ({ method: 'POST', path: `${attemptPath(queued)}/away`, body }),
  apply(view, command) {
    view.attempt.active_ms += Math.min(command.counted_ms, command.away_ms);
  },
};

export const environment: WalkKind<'surroundings'> = {
  label: 'What it was walked on',
  request: (command, queued) => ({
    method: 'POST',
    path: `${attemptPath(queued)}/surroundings`,
    body: {
      build_id: command.build?.id ?? null,
      configuration_id: command.configuration?.id ?? null,
      ...(command.named_environment !== undefined
        ? { environment_id: command.named_environment?.id ?? null }
        : {}),
      environment: command.environment,
    },
  }),
  apply(view, command) {
    view.attempt.build = command.build;
    view.attempt.configuration = command.configuration;
    if (command.named_environment !== undefined) view.attempt.named_environment = command.named_environment;
    view.attempt.environment = command.environment;
  },
};

export const finish: WalkKind<'finish'> = {
  label: 'The end of an attempt',
  request: ({ kind: _, ...body }, queued) => ({
    method: 'POST',
    path: `${attemptPath(queued)}/finish`,
    body,
  }),
  apply(view, command, queued) {
    const verdict = command.verdict ?? view.attempt.roll_up;
    view.attempt.state = 'finished';
    view.attempt.overruled = verdict !== view.attempt.roll_up;
    view.attempt.verdict = verdict;
    view.attempt.note = command.note;
    view.attempt.finished_at = queued.at;
    view.attempt.active_ms += command.active_ms;
  },
};

export const message: WalkKind<'message'> = {
  label: 'A question',
  request: (command) => ({
    method: 'POST',
    path: `/api/v1/cases/${command.case}/messages`,
    body: {
      kind: command.what,
      step: command.step,
      body: command.body,
      ...(command.proposal ? { proposal: command.proposal } : {}),
    },
  }),
};

export const outage: WalkKind<'outage'> = {
  label: 'An outage',
  request: ({ kind: _, cycle, ...body }) => ({
    method: 'POST',
    path: `/api/v1/cycles/${cycle}/list-verdicts`,
    body: { ...body, verdict: 'blocked' },
  }),
};

export const stops: WalkKind<'stops'> = {
  label: 'What is stopped',
  request: (command) => ({
    method: 'POST',
    path: `/api/v1/entries/${command.entry}/stops`,
    body: { if_any: true },
  }),
};
