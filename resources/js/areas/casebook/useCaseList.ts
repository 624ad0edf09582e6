import { useInfiniteQuery, useQuery } from '@tanstack/vue-query';
import { computed, type Ref } from 'vue';
import { api, unwrap, type Api } from '@/api/client';
import { plural } from '@/kit/words';
import type { Filter } from './filter';

/** The cases that a filter holds, page by page, with how many there are of them and in each group. */
export function useCaseList(
  project: Ref<string>,
  filter: Ref<Filter>,
  sort: Ref<string>,
  group: Ref<string>,
) {
  const { data, error, isPending, refetch, fetchNextPage, hasNextPage, isFetchingNextPage } =
    useInfiniteQuery({
      queryKey: computed(() => [
        'live',
        'case',
        'cases',
        project.value,
        filter.value,
        sort.value,
        group.value,
      ]),
      queryFn: async ({ pageParam }) => {
        const query: Record<string, string> = { ...filter.value, sort: sort.value, group: group.value };
        if (pageParam) query.after = pageParam;
        const params = { path: { project: project.value }, query };
        return unwrap(await api.GET('/projects/{project}/cases', { params })) as Api['CasePage'];
      },
      initialPageParam: '',
      getNextPageParam: (last) => last.next ?? undefined,
      placeholderData: (before) => before,
    });
  const lines = computed(() => data.value?.pages.flatMap((p) => p.items) ?? []);
  // Counted apart: the list need not wait for it.
  const { data: counts } = useQuery({
    queryKey: computed(() => ['live', 'case', 'case-counts', project.value, filter.value, group.value]),
    queryFn: async () => {
      const params = { path: { project: project.value }, query: { ...filter.value, group: group.value } };
      return unwrap(await api.GET('/projects/{project}/cases/counts', { params })) as Api['CaseCounts'];
    },
    placeholderData: (before) => before,
  });
  const total = computed(() => counts.value?.total ?? lines.value.length);
  const countWords = computed(() => {
    if (!counts.value) return '';
    return counts.value.more_than_total
      ? `more than ${total.value.toLocaleString('en')} cases`
      : plural(total.value, 'case');
  });
  function more(): void {
    if (hasNextPage.value && !isFetchingNextPage.value) void fetchNextPage();
  }

  return { data, lines, counts, total, countWords, more, error, isPending, refetch };
}
