import { computed, type Ref } from 'vue';
import { api, unwrap, type Api } from '@/api/client';
import type { Criterion, Filter } from '@/kit/criteria';
import type { Pages } from '@/kit/list';
import { plainWords, wordOf, type Shown } from '@/kit/words';
import { usePages } from '@/offline/usePages';

/** An entry of a cycle, as its lists show it. */
export type Line = Api['EntryLine'];

/** Entries of a cycle, a window of them. */
export async function readEntries(
  cycle: string,
  query: Record<string, string | number>,
): Promise<Api['EntryPage']> {
  return unwrap(await api.GET('/cycles/{cycle}/entries', { params: { path: { cycle }, query } }));
}

/** What is needed to choose all entries together that a filter finds. */
export async function readChoices(cycle: string, filter: Filter): Promise<Api['EntryChoice'][]> {
  return unwrap(
    await api.GET('/cycles/{cycle}/entry-choices', { params: { path: { cycle }, query: filter } }),
  );
}

/** The entries of a cycle that a filter finds, by windows. */
export function useEntries(cycle: Ref<string>, filter: Ref<Filter>, sort: Ref<string>): Pages<Line> {
  const whole = computed(() => Object.keys(filter.value).length === 0 && sort.value === '');
  return usePages<Line>(
    'entry',
    () => ['entries', cycle.value, filter.value, sort.value],
    (after) => readEntries(cycle.value, { ...filter.value, sort: sort.value, after }),
    () => (whole.value ? `entries:${cycle.value}` : ''),
  );
}

const STATES: Shown[] = [
  'not_run',
  'held',
  'in_progress',
  'pass',
  'fail',
  'blocked',
  'retest',
  'not_applicable',
];
interface Named {
  id: string;
  name: string;
}

/** What the entries of a cycle can be narrowed by. */
export function entryCriteria(people: Named[], configurations: Named[], outdated: number): Criterion[] {
  const options = (all: Named[]) => all.map((n) => ({ value: n.id, label: n.name }));
  return [
    {
      name: 'shows',
      label: 'Shows',
      many: false,
      choices: STATES.map((s) => ({ value: s, label: wordOf(s) })),
    },
    {
      name: 'who',
      label: 'Assigned to',
      many: false,
      choices: [{ value: 'nobody', label: 'Nobody' }, ...options(people)],
    },
    ...(configurations.length > 1
      ? [{ name: 'on', label: 'Configuration', many: false, choices: options(configurations) }]
      : []),
    ...(outdated > 0
      ? [
          {
            name: 'outdated',
            label: 'Case changed',
            many: false,
            choices: [{ value: 'yes', label: `Since it was planned (${outdated})` }],
          },
        ]
      : []),
    {
      name: 'joined',
      label: 'Conditions',
      many: false,
      choices: [{ value: 'yes', label: 'Joined with others' }],
    },
  ];
}

/** A cycle as its board shows it. */
export const readCycle = async (cycle: string): Promise<Api['CycleBoard']> =>
  unwrap(await api.GET('/cycles/{cycle}', { params: { path: { cycle } } }));

/** Change a cycle. */
export const saveCycle = async (
  cycle: string,
  body: Api['CycleChangeRequest'],
): Promise<Api['CycleDetail']> =>
  unwrap(await api.PATCH('/cycles/{cycle}', { params: { path: { cycle } }, body }));

/** Preview who would be assigned which entries. */
export const previewAssignment = async (
  cycle: string,
  body: Api['AssignRequest'],
): Promise<Api['AssignmentPlan']> =>
  unwrap(await api.POST('/cycles/{cycle}/assignment-previews', { params: { path: { cycle } }, body }));

/** Hand out what is unassigned. */
export const assignEntries = async (
  cycle: string,
  body: Api['AssignRequest'],
): Promise<Api['PlanActResult']> =>
  unwrap(await api.POST('/cycles/{cycle}/assignments', { params: { path: { cycle } }, body }));

/** Preview a clone of a cycle: old and new dates. */
export const previewCycleClone = async (
  cycle: string,
  body: Api['CloneRequest'],
): Promise<Api['ClonePreview']> =>
  unwrap(await api.POST('/cycles/{cycle}/clone-previews', { params: { path: { cycle } }, body }));

/** Clone a cycle, with new dates. */
export const cloneCycle = async (cycle: string, body: Api['CloneRequest']): Promise<Api['CycleDetail']> =>
  unwrap(await api.POST('/cycles/{cycle}/clones', { params: { path: { cycle } }, body }));

/** A cycle beside an earlier one. */
export const compareCycles = async (cycle: string, query: { with: string }): Promise<Api['Comparison']> =>
  unwrap(await api.GET('/cycles/{cycle}/comparison', { params: { path: { cycle }, query } }));

/** What was found on a build beside what was found on another, the earlier first. */
export const compareBuilds = async (
  project: string,
  query: { one: string; other: string },
): Promise<Api['Comparison']> =>
  unwrap(await api.GET('/projects/{project}/build-comparison', { params: { path: { project }, query } }));

/** Add entries to a cycle. */
export const addEntries = async (
  cycle: string,
  body: Api['EntrySelectionRequest'],
): Promise<Api['AdditionState']> =>
  unwrap(await api.POST('/cycles/{cycle}/entries', { params: { path: { cycle } }, body }));

/** Assign, order, condition or remove entries of a cycle. */
export const changeEntries = async (
  cycle: string,
  body: Api['BulkEditEntriesRequest'],
): Promise<Api['PlanActResult']> =>
  unwrap(await api.POST('/cycles/{cycle}/entry-acts', { params: { path: { cycle } }, body }));

/** What was done to a cycle, the newest first. */
export const readLog = async (cycle: string): Promise<Api['LogEntry'][]> =>
  unwrap(await api.GET('/cycles/{cycle}/log', { params: { path: { cycle } } }));

/** Take the words out with which something was done to a cycle. */
export const removeLogWords = async (
  cycle: string,
  line: number,
  reason: string,
): Promise<Api['LogEntry'][]> =>
  unwrap(
    await api.POST('/cycles/{cycle}/log/{line}/removals', {
      params: { path: { cycle, line: String(line) } },
      body: { reason },
    }),
  );

/** Release, close, reopen … a cycle. */
export const moveCycle = async (cycle: string, body: Api['CycleStateRequest']): Promise<Api['CycleDetail']> =>
  unwrap(await api.POST('/cycles/{cycle}/moves', { params: { path: { cycle } }, body }));

/** A cycle as its planner sees it. */
export const readPlan = async (cycle: string): Promise<Api['CyclePlan']> =>
  unwrap(await api.GET('/cycles/{cycle}/plan', { params: { path: { cycle } } }));

/** Sign a cycle off, with what is knowingly left unwalked. */
export const signOff = async (cycle: string, body: Api['ReasonRequest']): Promise<Api['CycleDetail']> =>
  unwrap(await api.POST('/cycles/{cycle}/sign-offs', { params: { path: { cycle } }, body }));

/** How far adding entries is. */
export const readAddition = async (addition: string): Promise<Api['AdditionState']> =>
  unwrap(await api.GET('/entry-additions/{addition}', { params: { path: { addition } } }));

/** Stop adding entries; none of them stays. */
export const cancelAddition = async (addition: string): Promise<Api['AdditionState']> =>
  unwrap(await api.POST('/entry-additions/{addition}/cancel', { params: { path: { addition } }, body: {} }));

/** Change a milestone. */
export const saveMilestone = async (
  milestone: string,
  body: Api['MilestoneRequest'],
): Promise<Api['MilestoneLine']> =>
  unwrap(await api.PATCH('/milestones/{milestone}', { params: { path: { milestone } }, body }));

/** Take a milestone out. */
export async function removeMilestone(milestone: string): Promise<void> {
  await api.DELETE('/milestones/{milestone}', { params: { path: { milestone } } });
}

/** Preview a clone of a milestone: old and new dates. */
export const previewMilestoneClone = async (
  milestone: string,
  body: Api['CloneRequest'],
): Promise<Api['ClonePreview']> =>
  unwrap(await api.POST('/milestones/{milestone}/clone-previews', { params: { path: { milestone } }, body }));

/** Clone a milestone with its cycles, all dates moved together. */
export const cloneMilestone = async (
  milestone: string,
  body: Api['CloneRequest'],
): Promise<Api['ClonePreview']> =>
  unwrap(await api.POST('/milestones/{milestone}/clones', { params: { path: { milestone } }, body }));

/** Undo a change of a plan. */
export const undoPlan = async (planAct: string): Promise<Api['PlanActResult']> =>
  unwrap(await api.POST('/plan-acts/{planAct}/undo', { params: { path: { planAct } }, body: {} }));

/** Extend many cycles, or change their build. */
export const changeCycles = async (
  project: string,
  body: Api['BulkEditCyclesRequest'],
): Promise<Api['PlanActResult']> =>
  unwrap(await api.POST('/projects/{project}/cycle-acts', { params: { path: { project } }, body }));

/** Plan a cycle. */
export const createCycle = async (project: string, body: Api['CycleRequest']): Promise<Api['CycleDetail']> =>
  unwrap(await api.POST('/projects/{project}/cycles', { params: { path: { project } }, body }));

/** The cycles of a project, newest end first. */
export const listCycles = async (project: string): Promise<Api['CycleSummary'][]> =>
  unwrap(await api.GET('/projects/{project}/cycles', { params: { path: { project } } }));

const CYCLE_STATES: Api['CycleSummary']['state'][] = [
  'draft',
  'in_review',
  'released',
  'closed',
  'abandoned',
];
const NONE = 'none';

/** What the cycles of a project can be narrowed by. */
export function cycleCriteria(cycles: Api['CycleSummary'][], milestones: Named[]): Criterion[] {
  const builds = new Map(cycles.flatMap((c) => (c.build ? [[c.build.id, c.build.name]] : [])));
  const folders = [...new Set(cycles.map((c) => c.folder))].filter(Boolean).sort();
  return [
    {
      name: 'state',
      label: 'State',
      many: true,
      choices: CYCLE_STATES.map((s) => ({ value: s, label: plainWords(s) })),
    },
    {
      name: 'milestone',
      label: 'Milestone',
      many: true,
      choices: [
        ...milestones.map((m) => ({ value: m.id, label: m.name })),
        { value: NONE, label: 'Without a milestone' },
      ],
    },
    {
      name: 'build',
      label: 'Build',
      many: true,
      choices: [...builds].map(([value, label]) => ({ value, label })),
    },
    { name: 'folder', label: 'Folder', many: false, choices: folders.map((f) => ({ value: f, label: f })) },
  ];
}

/** Whether a cycle is one of those the list is narrowed to; abandoned ones are shown where one asks for them. */
export function fitsCycle(cycle: Api['CycleSummary'], filter: Filter): boolean {
  const has = (name: string, value: string): boolean =>
    filter[name] === undefined || filter[name].split(',').includes(value);
  return (
    (filter.state === undefined ? cycle.state !== 'abandoned' : has('state', cycle.state)) &&
    has('milestone', cycle.milestone_id ?? NONE) &&
    has('build', cycle.build?.id ?? '') &&
    (filter.folder ?? cycle.folder) === cycle.folder
  );
}

/** Make a milestone. */
export const createMilestone = async (
  project: string,
  body: Api['MilestoneRequest'],
): Promise<Api['MilestoneLine']> =>
  unwrap(await api.POST('/projects/{project}/milestones', { params: { path: { project } }, body }));

/** The milestones of a project, the one due first at the top. */
export const listMilestones = async (project: string): Promise<Api['MilestoneLine'][]> =>
  unwrap(await api.GET('/projects/{project}/milestones', { params: { path: { project } } }));

/** How much is picked, before it is planned. */
export const countSelection = async (
  project: string,
  body: Api['EntrySelectionRequest'],
): Promise<Api['SelectionCount']> =>
  unwrap(await api.POST('/projects/{project}/selection-counts', { params: { path: { project } }, body }));

/** What to walk when time is short. */
export const previewShortPlan = async (
  cycle: string,
  body: Api['ShortTimeRequest'],
): Promise<Api['ShortPlan']> =>
  unwrap(await api.POST('/cycles/{cycle}/short-plan-previews', { params: { path: { cycle } }, body }));

/** Order and assign by what to walk when time is short. */
export const applyShortPlan = async (
  cycle: string,
  body: Api['ShortTimeRequest'],
): Promise<Api['PlanActResult']> =>
  unwrap(await api.POST('/cycles/{cycle}/short-plans', { params: { path: { cycle } }, body }));
