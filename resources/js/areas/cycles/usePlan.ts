import { useQueryClient } from '@tanstack/vue-query';
import type { ComputedRef, Ref } from 'vue';
import type { Api } from '@/api/client';
import { changeEntries, listCycles, listMilestones, readPlan, undoPlan } from '@/areas/cycles/queries';
import { toast } from '@/kit/notices';
import { useRead } from '@/offline/useRead';

export type Plan = Api['CyclePlan'];
export type Picks = Api['EntryPicks'];

/** Takes an act of planning back, and says what came of it. */
export async function undoPlanAct(id: string): Promise<string> {
  const done = await undoPlan(id);
  return `${done.title}.${leftOut(done.refused)}`;
}

/** Those that an act left as they are, with why. */
export function leftOut(refused: Api['RefusedEntry'][]): string {
  if (refused.length === 0) return '';
  const first = refused.slice(0, 3).map((r) => `${r.key} (${r.why})`);
  return ` Left as it is: ${first.join('; ')}${refused.length > 3 ? ` and ${refused.length - 3} more` : ''}`;
}

/** A cycle's plan, kept current, with what can be done to it. */
export function usePlan(key: Ref<string> | ComputedRef<string>) {
  const queries = useQueryClient();
  const read = useRead(
    'entry',
    () => ['plan', key.value],
    () => readPlan(key.value),
  );
  /** Reads the plan again, and the windows of its entries with it. */
  const renew = (): void => void queries.invalidateQueries({ queryKey: ['live', 'entry'] });
  /** Says what was done, with a way back. */
  function tell(done: Api['PlanActResult']): void {
    const id = done.act_id;
    toast(
      `${done.title}.${leftOut(done.refused)}`,
      id
        ? async () => {
            const said = await undoPlanAct(id);
            renew();
            return said;
          }
        : undefined,
    );
    renew();
  }
  async function act(
    what: Api['BulkEditEntriesRequest']['act'],
    ids: string[],
    changes: Record<string, unknown> = {},
  ): Promise<Api['PlanActResult']> {
    const done = await changeEntries(key.value, { act: what, ids, changes });
    tell(done);
    return done;
  }
  return { ...read, act, tell, renew };
}

/** The milestones of a project, the one due first at the top. */
export function useMilestones(project: ComputedRef<string>) {
  return useRead(
    'cycle',
    () => ['milestones', project.value],
    () => listMilestones(project.value),
  );
}

/** The cycles of a project, the newest end first. */
export function useCycles(project: ComputedRef<string>) {
  return useRead(
    'entry',
    () => ['cycles', project.value],
    () => listCycles(project.value),
  );
}

/** What a condition says, in words. */
export const conditionWords = (kind: string, name: string): string =>
  kind === 'after' ? `after ${name}` : `only if ${name} passed`;
