import { computed, ref, watch, type Ref } from 'vue';
import { api, Problem, take, type Api } from '@/api/client';
import { forget, keep, kept } from '@/walk/device';
import { toRows, toSteps, type Row } from './steps';

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
/** What is kept on the device while one writes: the form and what it began from. */
interface Draft {
  form: Form;
  revision: number;
  version: number;
  at: string;
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
  const form = ref<Form | null>(null) as Ref<Form | null>;
  const began = ref({ revision: 0, version: 0 });
  const clean = ref('');
  const returned = ref<string | null>(null);
  const merge = ref<Api['CaseMerge'] | null>(null);
  const problem = ref<Problem | null>(null);
  const saving = ref(false);
  const place = computed(() => `draft:case:${key.value}`);
  const dirty = computed(() => form.value !== null && content(form.value) !== clean.value);
  let timer: ReturnType<typeof setTimeout> | undefined;

  /** Shows what the server has, or the draft of this device when there is one. */
  async function begin(server: Form, revision: number, version: number): Promise<void> {
    const draft = await kept<Draft>(place.value);
    clean.value = content(server);
    began.value = { revision, version };
    returned.value = null;
    if (draft && content(draft.form) !== clean.value) {
      form.value = draft.form;
      began.value = { revision: draft.revision, version: draft.version };
      returned.value = draft.at;
    } else {
      form.value = server;
      if (draft) await forget(place.value);
    }
  }
  async function keepNow(): Promise<void> {
    clearTimeout(timer);
    if (!form.value) return;
    if (dirty.value)
      await keep(place.value, {
        form: JSON.parse(JSON.stringify(form.value)) as Form,
        ...began.value,
        at: new Date().toISOString(),
      } satisfies Draft);
    else await forget(place.value);
  }
  watch(
    form,
    () => {
      clearTimeout(timer);
      timer = setTimeout(() => void keepNow(), 250);
    },
    { deep: true },
  );
  async function discard(): Promise<void> {
    clearTimeout(timer);
    await forget(place.value);
    returned.value = null;
  }

  /** Saves; when another saved meanwhile, both are brought together to look at instead. Returns the saved case. */
  async function save(): Promise<Api['CaseSaved'] | null> {
    const now = form.value;
    if (!now || saving.value) return null;
    saving.value = true;
    problem.value = null;
    await keepNow();
    try {
      const sent = content(now);
      const saved = await (
        key.value.startsWith('new:')
          ? api.POST('/projects/{project}/cases', {
              params: { path: { project: key.value.slice(4) } },
              body: body(now),
            })
          : api.PUT('/cases/{case}', {
              params: { path: { case: key.value } },
              body: { ...body(now), revision: began.value.revision },
            })
      ).then(take);
      clean.value = sent;
      began.value = { revision: saved.case.revision, version: saved.version };
      returned.value = null;
      merge.value = null;
      if (content(now) === sent) await discard();
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
    merge.value = take(
      await api.POST('/cases/{case}/merges', {
        params: { path: { case: key.value } },
        body: { ...body(form.value), version: began.value.version },
      }),
    );
  }
  /** Goes on from what was decided in the three-way view. */
  async function decide(text: Partial<Form>): Promise<void> {
    if (!form.value || !merge.value) return;
    const at = merge.value.revision;
    const detail = take(await api.GET('/cases/{case}', { params: { path: { case: key.value } } }));
    began.value = { revision: at, version: detail.version };
    form.value = { ...form.value, ...text };
    merge.value = null;
    await keepNow();
  }
  const startNew = (): Promise<void> => begin(fresh(), 0, 0);
  return {
    form,
    began,
    dirty,
    returned,
    merge,
    problem,
    saving,
    begin,
    startNew,
    keepNow,
    discard,
    save,
    bringTogether,
    decide,
  };
}
