import { computed, type ComputedRef, type Ref } from 'vue';
import { api, unwrap, type Api } from '@/api/client';
import { toast } from '@/kit/notices';
import { useRead } from '@/offline/useRead';

export type Plan = Api['CyclePlan'];
export type Line = Api['PlanLine'];
export type Picks = Record<string, unknown>;

/** Takes an act of planning back, and says what came of it. */
export async function undoPlanAct(id: string): Promise<string> {
  const done = unwrap(
    await api.POST('/plan-acts/{planAct}/undo', { params: { path: { planAct: id } }, body: {} }),
  );
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
  const read = useRead(
    'entry',
    () => ['plan', key.value],
    async () => unwrap(await api.GET('/cycles/{cycle}/plan', { params: { path: { cycle: key.value } } })),
  );
  const byId = computed(() => new Map((read.data.value?.entries ?? []).map((e) => [e.id, e])));
  /** Says what was done, with a way back. */
  function tell(done: Api['PlanActResult']): void {
    const id = done.act_id;
    toast(
      `${done.title}.${leftOut(done.refused)}`,
      id
        ? async () => {
            const said = await undoPlanAct(id);
            void read.refetch();
            return said;
          }
        : undefined,
    );
    void read.refetch();
  }
  async function act(
    what: Api['BulkEditEntriesRequest']['act'],
    ids: string[],
    changes: Record<string, unknown> = {},
  ): Promise<Api['PlanActResult']> {
    const done = unwrap(
      await api.POST('/cycles/{cycle}/entry-acts', {
        params: { path: { cycle: key.value } },
        body: { act: what, ids, changes },
      }),
    );
    tell(done);
    return done;
  }
  return { ...read, byId, act, tell };
}

/** The milestones of a project, the one due first at the top. */
export function useMilestones(project: ComputedRef<string>) {
  return useRead(
    'cycle',
    () => ['milestones', project.value],
    async () =>
      unwrap(
        await api.GET('/projects/{project}/milestones', { params: { path: { project: project.value } } }),
      ),
  );
}

/** The cycles of a project, the newest end first. */
export function useCycles(project: ComputedRef<string>) {
  return useRead(
    'entry',
    () => ['cycles', project.value],
    async () =>
      unwrap(await api.GET('/projects/{project}/cycles', { params: { path: { project: project.value } } })),
  );
}

/** What a condition says, in words. */
export const conditionWords = (kind: string, name: string): string =>
  kind === 'after' ? `after ${name}` : `only if ${name} passed`;
