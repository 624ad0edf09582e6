import { computed, type ComputedRef, type Ref } from 'vue';
import type { Api } from '@/api/client';
import { readChoices } from '@/areas/defects/queries';
import { plainWords } from '@/kit/words';
import { useRead } from '@/offline/useRead';

export interface Option {
  value: string;
  label: string;
}
const words = (values: readonly string[]): Option[] =>
  values.map((value) => ({ value, label: plainWords(value) }));
export const SEVERITIES = words(['critical', 'major', 'minor', 'trivial']);
export const PRIORITIES = words(['now', 'soon', 'later']);
/** Things with a name, as they are offered. */
export const asOptions = (named: readonly { id: string; name: string }[]): Option[] =>
  named.map(({ id, name }) => ({ value: id, label: name }));

const NONE: Api['DefectChoices'] = {
  people: [],
  builds: [],
  configurations: [],
  components: [],
  labels: [],
  fields: [],
  filters: [],
};

/** What can be chosen where defects are filed, changed and looked for; kept on the device, so that the walk has it offline. */
export function useDefectChoices(project: Ref<string>): {
  choices: ComputedRef<Api['DefectChoices']>;
  components: ComputedRef<Option[]>;
  renew: () => void;
} {
  const { data, refetch } = useRead(
    'defect',
    () => ['defect-choices', project.value],
    () => readChoices(project.value),
    () => `defect-choices:${project.value}`,
  );
  const choices = computed(() => data.value ?? NONE);
  return {
    choices,
    components: computed(() => choices.value.components.map((c) => ({ value: c.value, label: c.name }))),
    renew: () => void refetch(),
  };
}

/** What a defect says while it is written; what is empty is not said. */
export interface DefectWords {
  title: string;
  actual: string;
  expected: string;
  preconditions: string;
  steps: string;
  environment: string;
  body: string;
  severity: Api['DefectLine']['severity'];
  priority: string | null;
  assignee_id: string | null;
  build_id: string | null;
  configuration_id: string | null;
  component: string;
  labels: string;
  custom: Record<string, string>;
  watchers: string[];
}
export const noWords = (): DefectWords => ({
  title: '',
  actual: '',
  expected: '',
  preconditions: '',
  steps: '',
  environment: '',
  body: '',
  severity: 'major',
  priority: null,
  assignee_id: null,
  build_id: null,
  configuration_id: null,
  component: '',
  labels: '',
  custom: {},
  watchers: [],
});

/** What is sent of it: fields that nothing was said in are left out. */
export function filingOf(words: DefectWords): Omit<Api['FileDefectRequest'], 'id'> {
  const said = Object.entries(words).filter(
    ([, v]) => v !== '' && v !== null && !(typeof v === 'object' && Object.keys(v).length === 0),
  );
  return { ...(Object.fromEntries(said) as Api['FileDefectRequest']), title: words.title.trim() };
}
