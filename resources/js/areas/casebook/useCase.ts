import { computed, ref, type Ref } from 'vue';
import { Problem, type Api } from '@/api/client';
import { createCase, mergeCase, readCase, saveCase } from '@/areas/casebook/queries';
import { toRows, toSteps, type Row } from './steps';
import { useLocalForm } from '@/offline/useLocalForm';

/** A case as it stands on the page. */
export interface Form {
  title: string;
  objective: string;
  preconditions: string;
  postconditions: string;
  rows: Row[];
  table: string | null;
  files: Api['FileRef'][];
  folder_id: string | null;
  type: string;
  priority: string;
  estimate: string;
  automated: boolean;
  is_template: boolean;
  owner_id: string | null;
  labels: string[];
  requirements: string[];
  custom: Record<string, string>;
}
/** What a case on the page began from. */
export interface Began {
  revision: number;
  version: number;
}

export function formOf(d: Api['CaseDetail'], estimate: (seconds: number) => string): Form {
  return {
    title: d.case.title,
    objective: d.objective,
    preconditions: d.preconditions,
    postconditions: d.postconditions,
    rows: toRows(d.steps),
    table: d.case.table_id,
    files: [...d.files],
    folder_id: d.case.folder_id,
    type: d.case.type,
    priority: d.case.priority,
    estimate: d.case.estimate_seconds ? estimate(d.case.estimate_seconds) : '',
    automated: d.case.automated,
    is_template: d.case.is_template,
    owner_id: d.case.owner?.id ?? null,
    labels: [...d.case.labels],
    requirements: d.requirements.map((r) => r.id),
    custom: { ...(d.case.custom as Record<string, string>) },
  };
}

/** What a form says, without the identities that rows have on the page only. */
export function content(form: Form): string {
  const { rows, ...rest } = form;
  return JSON.stringify({ ...rest, steps: toSteps(rows) });
}

/** The form as the API takes it. */
export function body(form: Form) {
  const { rows, ...rest } = form;
  return { ...rest, steps: toSteps(rows) };
}

/**
 * A case being written: kept on the device at every pause, given back after a reload or a closed tab, saved against the
 * revision it began from.
 *
 * @param key of the case, or `new` in a project
 */
export function useCase(key: Ref<string>, fresh: () => Form) {
  const placeOf = (name: string): string => `draft:case:${name}`;
  const place = computed(() => placeOf(key.value));
  const draft = useLocalForm<Form, Began>(place, content, { revision: 0, version: 0 });
  const { form, began } = draft;
  const merge = ref<Api['CaseMerge'] | null>(null);
  const problem = ref<Problem | null>(null);
  const saving = ref(false);

  /** Saves; when another saved meanwhile, both are brought together to look at instead. Returns the saved case. */
  async function save(): Promise<Api['CaseSaved'] | null> {
    const now = form.value;
    if (!now || saving.value) return null;
    saving.value = true;
    problem.value = null;
    await draft.saveNow();
    try {
      const sent = content(now);
      const saved = await (key.value.startsWith('new:')
        ? createCase(key.value.slice(4), body(now))
        : saveCase(key.value, { ...body(now), revision: began.value.revision }));
      merge.value = null;
      const from = { revision: saved.case.revision, version: saved.version };
      await draft.saved(sent, from, placeOf(saved.case.key));
      return saved;
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      if (error.status === 412) await bringTogether();
      else problem.value = error;
      return null;
    } finally {
      saving.value = false;
    }
  }
  async function bringTogether(): Promise<void> {
    if (!form.value) return;
    merge.value = await mergeCase(key.value, { ...body(form.value), version: began.value.version });
  }
  /** Goes on from what was decided in the three-way view. */
  async function decide(text: Partial<Form>): Promise<void> {
    if (!form.value || !merge.value) return;
    const at = merge.value.revision;
    const detail = await readCase(key.value);
    began.value = { revision: at, version: detail.version };
    form.value = { ...form.value, ...text };
    merge.value = null;
    await draft.saveNow();
  }
  const startNew = (): Promise<void> => draft.begin(fresh(), { revision: 0, version: 0 });
  return { ...draft, merge, problem, saving, startNew, save, bringTogether, decide };
}
