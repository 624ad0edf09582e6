import { onBeforeUnmount, ref, watch, type Ref } from 'vue';
import type { Api } from '@/api/client';
import { checkCase, readRoutine } from '@/areas/casebook/queries';
import { toSteps } from './steps';
import type { Form } from './useCase';

/** What the server refused of the steps, by field (steps.0.action), as lines beside them. */
export function refusedSteps(errors: Record<string, string[]>): Api['ProblemLine'][] {
  return Object.entries(errors).flatMap(([path, messages]) => {
    const at = path.match(/^steps\.(\d+)\.(\w+)/);
    if (!at) return [];
    const [, step, field = ''] = at;
    const message = messages[0] ?? '';
    return [{ step: Number(step) + 1, field, severity: 'error', message, name: null, nearest: null }];
  });
}

/**
 * What would go wrong in the walk of a case, told while one writes, with the case as the tester will see it; and the
 * routines that its steps use.
 */
export function useCheck(
  project: Ref<string>,
  form: Ref<Form | null>,
  detail: Ref<Api['CaseDetail'] | null | undefined>,
) {
  const check = ref<Api['CaseCheck'] | null>(null);
  const row = ref(1);
  const routines = ref<Api['RoutineText'][]>([]);
  let asked = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;

  async function look(): Promise<void> {
    const now = form.value;
    if (!now) return;
    const turn = ++asked;
    try {
      const seen = await checkCase(project.value, {
        title: now.title,
        steps: toSteps(now.rows),
        table: now.table,
        row: row.value,
      });
      if (turn === asked) check.value = seen;
    } catch {
      // Without the server there is no check; writing goes on.
    }
  }
  watch(
    () => [form.value?.table, JSON.stringify(toSteps(form.value?.rows ?? [])), row.value],
    () => {
      clearTimeout(timer);
      timer = setTimeout(() => void look(), 400);
    },
  );
  onBeforeUnmount(() => clearTimeout(timer));
  watch(
    [detail, () => form.value?.rows.map((r) => r.routine).join()],
    async () => {
      const have = new Map([...routines.value, ...(detail.value?.routines ?? [])].map((r) => [r.id, r]));
      for (const id of new Set((form.value?.rows ?? []).map((r) => r.routine))) {
        if (!id || have.has(id)) continue;
        const d = await readRoutine(id);
        have.set(id, { id, name: d.routine.name, parameters: d.routine.parameters, steps: d.steps });
      }
      routines.value = [...have.values()];
    },
    { immediate: true },
  );
  return { check, row, routines };
}
