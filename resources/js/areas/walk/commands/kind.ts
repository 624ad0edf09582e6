import type { Api } from '@/api/client';
import type { Command, CommandKind, CommandMap, QueuedCommand } from '@/offline/commands';
import type { WalkEvidence, WalkView } from '../types';

/** A kind of command of the walk: how it is sent, how it shows at once, and what the server's answer adds to that. */
export interface WalkKind<K extends keyof CommandMap> extends CommandKind<K> {
  /** Changes what the walk shows. None: it shows nowhere in the attempt. */
  apply?(view: WalkView, command: Command<K>, queued: QueuedCommand): void;
  /** What only the server knows, once it has taken the command. */
  settle?(view: WalkView, command: Command<K>, answer: Record<string, unknown>): void;
}

/** The address of the attempt that a command is recorded in. */
export const attemptPath = (queued: QueuedCommand): string => `/api/v1/attempts/${queued.attempt}`;

export function stepOf(view: WalkView, at: { round: number; step: number }): Api['StepRecord'] | undefined {
  return view.rounds.find((r) => r.position === at.round)?.steps.find((s) => s.position === at.step);
}

export function changeEvidence(view: WalkView, id: string, fields: Partial<WalkEvidence>): void {
  view.evidence = view.evidence.map((e) => (e.id === id ? { ...e, ...fields } : e));
}
