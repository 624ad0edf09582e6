import type { Api } from '@/api/client';
import type { Act, Deed, WalkEvidence, WalkView } from './deeds';

export type { Act, Deed, FinalVerdict, Markup, StepVerdict, WalkEvidence, WalkView } from './deeds';

type RollUp = Api['RoundRecord']['roll_up'];

/**
 * Rolls verdicts up, for showing at once what the server will say: fail, blocked, not run, in progress,
 * not applicable, pass, the first that fits.
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

function renew(view: WalkView, round: Api['RoundRecord']): void {
  round.roll_up = round.skipped === null ? rollUp(round.steps.map((s) => s.verdict)) : 'not_applicable';
  view.attempt.roll_up = rollUp(countedRounds(view.rounds).map((r) => r.roll_up));
}

/** Lays the acts that wait over what the server knows. Pure: the detail is left as it is. */
export function applyActs(detail: Api['AttemptDetail'], acts: readonly Act[]): WalkView {
  const view: WalkView = {
    ...detail,
    attempt: { ...detail.attempt },
    rounds: detail.rounds.map((r) => ({ ...r, steps: r.steps.map((s) => ({ ...s })) })),
    evidence: detail.evidence.map((e) => ({ ...e })),
    defects: [...detail.defects],
    waiting: new Set(),
  };
  for (const act of acts) applyOne(view, act);
  return view;
}

function stepOf(view: WalkView, deed: { round: number; step: number }): Api['StepRecord'] | undefined {
  return view.rounds.find((r) => r.position === deed.round)?.steps.find((s) => s.position === deed.step);
}

function added(deed: Extract<Deed, { kind: 'evidence' }>, act: Act): WalkEvidence {
  return {
    id: deed.id,
    round: deed.round,
    step: deed.step,
    name: deed.name,
    caption: '',
    source: deed.source,
    media_type: deed.file?.type ?? null,
    bytes: deed.file?.size ?? 0,
    width: null,
    height: null,
    sha256: null,
    link: deed.link ?? null,
    gone: false,
    markup: null,
    marked_url: null,
    compared: null,
    url: '',
    thumbnail_url: null,
    added_by_id: act.user,
    created_at: act.at,
    ...(deed.file ? { local: deed.file } : {}),
    ...(act.held ? { held: true } : {}),
    ...(act.refused === undefined ? {} : { refused: act.refused }),
  };
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
      view.attempt.active_ms += deed.active_ms;
      view.waiting.add(`${deed.round}.${deed.step}`);
      renew(view, round);
      return;
    }
    case 'note': {
      if (deed.step === null || deed.round === null) view.attempt.remark = deed.note;
      else {
        const step = stepOf(view, { round: deed.round, step: deed.step });
        if (step) step.note = deed.note;
      }
      return;
    }
    case 'try': {
      const step = stepOf(view, deed);
      if (!step) return;
      step.tries += 1;
      step.tries_failed += deed.failed ? 1 : 0;
      return;
    }
    case 'round': {
      const round = view.rounds.find((r) => r.position === deed.round);
      if (!round) return;
      if (deed.act === 'repeat') {
        if (view.rounds.some((r) => r.repeats === round.position)) return;
        view.rounds.push({
          ...round,
          position: view.rounds.length + 1,
          repeats: round.position,
          skipped: null,
          roll_up: 'not_run',
          texts: view.rounds.indexOf(round) === 0 ? [] : round.texts,
          steps: round.steps.map((s) => ({
            ...s,
            verdict: 'not_run',
            note: '',
            happened: '',
            reason: '',
            waits_on: '',
            active_ms: 0,
            tries: 0,
            tries_failed: 0,
            judged_at: null,
          })),
        });
      } else round.skipped = deed.act === 'skip' ? deed.reason : null;
      renew(view, round);
      return;
    }
    case 'away':
      view.attempt.active_ms += Math.min(deed.counted_ms, deed.away_ms);
      return;
    case 'surroundings':
      view.attempt.build = deed.build;
      view.attempt.configuration = deed.configuration;
      view.attempt.environment = deed.environment;
      return;
    case 'evidence':
      if (view.evidence.some((e) => e.id === deed.id)) return;
      view.evidence.push(added(deed, act));
      view.waiting.add(deed.id);
      return;
    case 'caption':
      change(view, deed.id, { caption: deed.caption });
      return;
    case 'move':
      change(view, deed.id, { round: deed.round, step: deed.step });
      return;
    case 'markup':
      change(view, deed.id, {
        markup: deed.markup.shapes.length > 0 || deed.markup.crop ? { ...deed.markup } : null,
        ...(deed.file ? { drawn: deed.file } : {}),
      });
      view.waiting.add(deed.id);
      return;
    case 'redact':
      change(view, deed.id, { local: deed.file, markup: null, marked_url: null });
      view.waiting.add(deed.id);
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
      if (!view.defects.some((d) => d.key === deed.key && d.step === deed.step && d.round === deed.round))
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
    case 'start':
    case 'message':
    case 'outage':
    case 'stops':
  }
}

function change(view: WalkView, id: string, fields: Partial<WalkEvidence>): void {
  view.evidence = view.evidence.map((e) => (e.id === id ? { ...e, ...fields } : e));
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
  const form = (
    path: string,
    fields: Record<string, string | number | null>,
    file: Blob | null,
    name: string,
  ) => {
    const body = new FormData();
    if (file) body.set('file', file, name);
    for (const [key, value] of Object.entries({ ...fields, ...stamp }))
      if (value !== null) body.set(key, String(value));
    return { path, init: { method: 'POST', body } };
  };
  switch (deed.kind) {
    case 'start':
      return json('POST', `/api/v1/entries/${deed.entry}/device-attempts`, {
        id: act.attempt,
        case_version_id: deed.version,
      });
    case 'verdict': {
      const { kind: _, ...body } = deed;
      return json('POST', `${attempt}/verdicts`, body);
    }
    case 'note':
      return json('POST', `${attempt}/notes`, { round: deed.round, step: deed.step, note: deed.note });
    case 'try':
      return json('POST', `${attempt}/tries`, { round: deed.round, step: deed.step, failed: deed.failed });
    case 'round':
      return json('POST', `${attempt}/rounds`, { round: deed.round, act: deed.act, reason: deed.reason });
    case 'away':
      return json('POST', `${attempt}/away`, { away_ms: deed.away_ms, counted_ms: deed.counted_ms });
    case 'surroundings':
      return json('POST', `${attempt}/surroundings`, {
        build_id: deed.build?.id ?? null,
        configuration_id: deed.configuration?.id ?? null,
        environment: deed.environment,
      });
    case 'message':
      return json('POST', `/api/v1/cases/${deed.case}/messages`, {
        kind: deed.what,
        step: deed.step,
        body: deed.body,
        ...(deed.proposal ? { proposal: deed.proposal } : {}),
      });
    case 'outage':
      return json('POST', `/api/v1/cycles/${deed.cycle}/list-verdicts`, {
        ids: deed.ids,
        verdict: 'blocked',
        note: deed.note,
        reason: deed.reason,
        waits_on: deed.waits_on,
      });
    case 'stops':
      return json('POST', `/api/v1/entries/${deed.entry}/stops`, {});
    case 'finish':
      return json('POST', `${attempt}/finish`, {
        verdict: deed.verdict,
        note: deed.note,
        active_ms: deed.active_ms,
        time: deed.time,
      });
    case 'caption':
      return json('PATCH', `/api/v1/evidence/${deed.id}`, { caption: deed.caption });
    case 'move':
      return json('POST', `/api/v1/evidence/${deed.id}/moves`, { round: deed.round, step: deed.step });
    case 'markup':
      return form(
        `/api/v1/evidence/${deed.id}/markups`,
        { markup: JSON.stringify(deed.markup) },
        deed.file,
        'marked.png',
      );
    case 'redact':
      return form(`/api/v1/evidence/${deed.id}/redactions`, {}, deed.file, 'redacted.png');
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
    case 'evidence':
      return form(
        `${attempt}/evidence`,
        {
          id: deed.id,
          name: deed.name,
          round: deed.round,
          step: deed.step,
          source: deed.source,
          link: deed.link ?? null,
        },
        deed.file,
        deed.name,
      );
  }
}
