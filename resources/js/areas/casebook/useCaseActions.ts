import type { Ref } from 'vue';
import { useRouter } from 'vue-router';
import { errorMessage, type Api } from '@/api/client';
import { toast } from '@/kit/notices';
import { actOn, undoAct } from './frame';

/** What is done with a case as a whole: copied, binned, taken out of the bin. Each can be undone from its notice. */
export function useCaseActions(
  project: Ref<string>,
  key: Ref<string>,
  detail: Ref<Api['CaseDetail'] | null | undefined>,
  refetch: () => Promise<unknown>,
) {
  const router = useRouter();
  const ids = (): string => detail.value?.case.id ?? '';

  async function copy(): Promise<void> {
    if (!detail.value) return;
    try {
      const { act_id: act, keys } = await actOn(project.value, 'copy', { ids: ids() });
      toast(`${keys[0]} is a copy of ${key.value}.`, act ? async () => undoAct(act) : undefined);
      await router.push(`/${project.value}/casebook/${keys[0]}`);
    } catch (e) {
      toast(errorMessage(e));
    }
  }

  async function bin(): Promise<void> {
    if (!detail.value) return;
    try {
      const { act_id: act, refused } = await actOn(project.value, 'bin', { ids: ids() });
      if (!act) {
        toast(refused[0]?.why ?? 'It could not be binned.');
        return;
      }
      toast(`${key.value} is in the bin.`, async () => undoAct(act));
      await router.push(`/${project.value}/casebook`);
    } catch (e) {
      toast(errorMessage(e));
    }
  }

  async function restore(): Promise<void> {
    if (!detail.value) return;
    await actOn(project.value, 'restore', { ids: ids() });
    await refetch();
  }

  return { copy, bin, restore };
}
