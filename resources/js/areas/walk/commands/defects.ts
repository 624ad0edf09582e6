import type { Api } from '@/api/client';
import type { WalkKind } from './kind';

declare module '@/offline/commands' {
  interface CommandMap {
    defect: Omit<Api['FileDefectRequest'], 'attempt_id' | 'device_time' | 'sent_at' | 'counter'> & {
      id: string;
      project: string;
      round: number | null;
      step: number | null;
    };
    link: { defect: string; key: string; title: string; round: number | null; step: number | null };
  }
}

export const defect: WalkKind<'defect'> = {
  label: 'A defect',
  request: ({ kind: _, project, ...body }, queued) => ({
    method: 'POST',
    path: `/api/v1/projects/${project}/defects`,
    body: { ...body, attempt_id: queued.attempt },
  }),
  apply(view, { id, title, severity, round, step }) {
    if (view.defects.some((d) => d.id === id)) return;
    view.defects.push({
      id,
      key: 'waiting',
      title,
      state: 'new',
      severity: severity ?? 'major',
      round,
      step,
    });
  },
  settle(view, _, answer) {
    const filed = answer.defect as Api['DefectLine'] | undefined;
    if (filed)
      view.defects = view.defects.map((d) =>
        d.id === filed.id ? { ...d, key: filed.key, state: filed.state } : d,
      );
  },
};

export const link: WalkKind<'link'> = {
  label: 'A link',
  request: ({ key, round, step }, queued) => ({
    method: 'POST',
    path: `/api/v1/defects/${key}/links`,
    body: { attempt_id: queued.attempt, round, step },
  }),
  apply(view, { defect: id, key, title, round, step }) {
    if (view.defects.some((d) => d.key === key && d.step === step && d.round === round)) return;
    view.defects.push({ id, key, title, state: '', severity: '', round, step });
  },
};
