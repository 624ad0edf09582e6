import type { Api } from '@/api/client';

export type StepVerdict = Api['StepRecord']['verdict'];

/** What a person did in a walk, as it waits on the device. */
export type Deed =
  | {
      kind: 'verdict';
      round: number;
      step: number;
      verdict: StepVerdict;
      happened?: string;
      reason?: string;
      waits_on?: string;
      active_ms: number;
    }
  | { kind: 'note'; round: number; step: number; note: string }
  | {
      kind: 'evidence';
      id: string;
      round: number | null;
      step: number | null;
      name: string;
      source: 'paste' | 'drop' | 'file';
      file: Blob;
    }
  | { kind: 'caption'; id: string; caption: string }
  | { kind: 'remove'; id: string }
  | {
      kind: 'defect';
      id: string;
      project: string;
      round: number | null;
      step: number | null;
      title: string;
      body: string;
      expected: string;
      actual: string;
      severity: Api['DefectLine']['severity'];
    }
  | { kind: 'link'; defect: string; key: string; title: string; round: number | null; step: number | null }
  | {
      kind: 'finish';
      verdict: 'pass' | 'fail' | 'blocked' | 'not_applicable' | null;
      note: string;
      active_ms: number;
      time: string | null;
    };

export interface Act {
  /** The device's own counter. */
  counter: number;
  /** The Idempotency-Key, a UUIDv7. */
  key: string;
  attempt: string;
  /** Whose act it is. */
  user: string;
  deed: Deed;
  at: string;
  /** Set when the server refused it: what it said. It is kept, and not sent again by itself. */
  refused?: string;
}

/** An attempt as the walk shows it: what the server knows and what waits here on top. */
export interface WalkView extends Omit<Api['AttemptDetail'], 'evidence'> {
  evidence: WalkEvidence[];
  /** Ids of evidence, and "round.step" of verdicts, that are not yet saved. */
  waiting: Set<string>;
}
/** A piece of evidence, with the picture itself until it is saved. */
export type WalkEvidence = Api['EvidenceItem'] & { local?: Blob; refused?: string };

/**
 * Rolls verdicts up, for showing at once what the server will say: fail, blocked, not run, in progress,
 * not applicable, pass, the first that fits.
 */
export function rollUp(verdicts: Api['RoundRecord']['roll_up'][]): Api['RoundRecord']['roll_up'] {
  const has = (v: Api['RoundRecord']['roll_up']): boolean => verdicts.includes(v);
  const all = (v: Api['RoundRecord']['roll_up']): boolean => verdicts.every((x) => x === v);
  if (has('fail')) return 'fail';
  if (has('blocked')) return 'blocked';
  if (all('not_run')) return 'not_run';
  if (has('not_run') || has('in_progress')) return 'in_progress';
  return all('not_applicable') ? 'not_applicable' : 'pass';
}

/** Lays the acts that wait over what the server knows. Pure: the detail is left as it is. */
export function applyActs(detail: Api['AttemptDetail'], acts: readonly Act[]): WalkView {
  const view: WalkView = {
    ...detail,
    attempt: { ...detail.attempt },
    rounds: detail.rounds.map((r) => ({ ...r, steps: r.steps.map((s) => ({ ...s })) })),
    evidence: [...detail.evidence],
    defects: [...detail.defects],
    waiting: new Set(),
  };
  for (const act of acts) applyOne(view, act);
  return view;
}

function applyOne(view: WalkView, act: Act): void {
  const { deed } = act;
  if (act.refused !== undefined && deed.kind !== 'evidence') return;
  switch (deed.kind) {
    case 'verdict': {
      const round = view.rounds.find((r) => r.position === deed.round);
      const step = round?.steps.find((s) => s.position === deed.step);
      if (!round || !step) return;
      step.verdict = deed.verdict;
      step.happened = deed.happened ?? '';
      step.reason = deed.reason ?? '';
      step.waits_on = deed.waits_on ?? '';
      step.active_ms += deed.active_ms;
      step.judged_at = deed.verdict === 'not_run' ? null : act.at;
      round.roll_up = rollUp(round.steps.map((s) => s.verdict));
      view.attempt.roll_up = rollUp(view.rounds.map((r) => r.roll_up));
      view.attempt.active_ms += deed.active_ms;
      view.waiting.add(`${deed.round}.${deed.step}`);
      return;
    }
    case 'note': {
      const step = view.rounds
        .find((r) => r.position === deed.round)
        ?.steps.find((s) => s.position === deed.step);
      if (step) step.note = deed.note;
      return;
    }
    case 'evidence':
      if (view.evidence.some((e) => e.id === deed.id)) return;
      view.evidence.push({
        id: deed.id,
        round: deed.round,
        step: deed.step,
        name: deed.name,
        caption: '',
        source: deed.source,
        media_type: deed.file.type,
        bytes: deed.file.size,
        width: null,
        height: null,
        sha256: '',
        url: '',
        thumbnail_url: null,
        added_by_id: act.user,
        created_at: act.at,
        local: deed.file,
        ...(act.refused === undefined ? {} : { refused: act.refused }),
      });
      view.waiting.add(deed.id);
      return;
    case 'caption':
      view.evidence = view.evidence.map((e) => (e.id === deed.id ? { ...e, caption: deed.caption } : e));
      return;
    case 'remove':
      view.evidence = view.evidence.filter((e) => e.id !== deed.id);
      return;
    case 'defect':
      if (!view.defects.some((d) => d.id === deed.id))
        view.defects.push({
          id: deed.id,
          key: 'waiting',
          title: deed.title,
          state: 'new',
          severity: deed.severity,
          round: deed.round,
          step: deed.step,
        });
      return;
    case 'link':
      if (!view.defects.some((d) => d.key === deed.key && d.step === deed.step))
        view.defects.push({
          id: deed.defect,
          key: deed.key,
          title: deed.title,
          state: '',
          severity: '',
          round: deed.round,
          step: deed.step,
        });
      return;
    case 'finish': {
      const verdict = deed.verdict ?? view.attempt.roll_up;
      view.attempt.state = 'finished';
      view.attempt.overruled = verdict !== view.attempt.roll_up;
      view.attempt.verdict = verdict;
      view.attempt.note = deed.note;
      view.attempt.finished_at = act.at;
      view.attempt.active_ms += deed.active_ms;
      return;
    }
  }
}

/** The request that delivers an act. */
export function requestOf(act: Act): { path: string; init: RequestInit } {
  const { deed } = act;
  const stamp = { device_time: act.at, sent_at: new Date().toISOString(), counter: act.counter };
  const attempt = `/api/v1/attempts/${act.attempt}`;
  const json = (method: string, path: string, body: object): { path: string; init: RequestInit } => ({
    path,
    init: {
      method,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ ...body, ...stamp }),
    },
  });
  switch (deed.kind) {
    case 'verdict': {
      const { kind: _, ...body } = deed;
      return json('POST', `${attempt}/verdicts`, body);
    }
    case 'note':
      return json('POST', `${attempt}/notes`, { round: deed.round, step: deed.step, note: deed.note });
    case 'finish':
      return json('POST', `${attempt}/finish`, {
        verdict: deed.verdict,
        note: deed.note,
        active_ms: deed.active_ms,
        time: deed.time,
      });
    case 'caption':
      return json('PATCH', `/api/v1/evidence/${deed.id}`, { caption: deed.caption });
    case 'remove':
      return json('DELETE', `/api/v1/evidence/${deed.id}`, {});
    case 'link':
      return json('POST', `/api/v1/defects/${deed.key}/links`, {
        attempt_id: act.attempt,
        round: deed.round,
        step: deed.step,
      });
    case 'defect': {
      const { kind: _, project, ...body } = deed;
      return json('POST', `/api/v1/projects/${project}/defects`, { ...body, attempt_id: act.attempt });
    }
    case 'evidence': {
      const form = new FormData();
      form.set('file', deed.file, deed.name);
      const fields: Record<string, string | number | null> = {
        id: deed.id,
        name: deed.name,
        round: deed.round,
        step: deed.step,
        source: deed.source,
        ...stamp,
      };
      for (const [name, value] of Object.entries(fields)) if (value !== null) form.set(name, String(value));
      return { path: `${attempt}/evidence`, init: { method: 'POST', body: form } };
    }
  }
}
