import type { Api } from '@/api/client';
import { AFTERS, POLICIES } from '@/areas/setup/policies';

/** A part of the setup: on which page it stands, below the setup's own, and under which title. */
export interface Place {
  page: '' | '/planning' | '/walking' | '/defects' | '/people';
  title: string;
  /** What else it is looked for by. */
  about: string;
}
/** What a part goes by in an address. */
export const anchorOf = (title: string): string => title.toLowerCase().replaceAll(/[^a-z]+/g, '-');

const LISTS: Record<Api['SettingLine']['place'], Place> = {
  types: { page: '', title: 'Types', about: 'kinds of case' },
  priorities: { page: '', title: 'Priorities', about: 'weight of cases' },
  fields: { page: '', title: 'Fields of your own', about: 'custom fields of cases' },
  components: { page: '/defects', title: 'Components', about: 'parts of what is tested, of defects' },
  'defect-fields': { page: '/defects', title: 'Fields of defects', about: 'custom fields' },
  labels: { page: '', title: 'Labels', about: 'tags of cases' },
  axes: { page: '/planning', title: 'Axes', about: 'devices, browsers and other values' },
  configurations: { page: '/planning', title: 'Configurations', about: 'combinations to walk on' },
  releases: { page: '/planning', title: 'Releases and builds', about: 'versions' },
  environments: { page: '/planning', title: 'Environments', about: 'addresses of the application, handset' },
  'milestone-types': { page: '/planning', title: 'Types of milestones', about: '' },
  phases: { page: '/planning', title: 'Phases', about: 'of cycles' },
  'reasons-pass': { page: '/walking', title: 'Reasons behind a pass', about: '' },
  'reasons-fail': { page: '/walking', title: 'Reasons behind a fail', about: '' },
  'reasons-blocked': { page: '/walking', title: 'Reasons behind a block', about: '' },
  'reasons-not-applicable': { page: '/walking', title: 'Reasons behind not applicable', about: '' },
};
/** Every part of the setup, with what it is looked for by. */
export const PLACES: Place[] = [
  ...Object.values(LISTS),
  { page: '/planning', title: 'Pairs that cannot meet', about: 'forbidden combinations' },
  { page: '/planning', title: 'Working days and time', about: 'calendar, holidays, time zone, capacity' },
  { page: '/walking', title: 'After finishing', about: AFTERS.map((a) => a.word).join(', ') },
  { page: '/walking', title: 'Evidence', about: 'storage, how long it is kept, retention' },
  { page: '/defects', title: 'Tracker outside', about: 'connection, token, webhook, states' },
  { page: '/people', title: 'People', about: 'members and their roles' },
  { page: '/people', title: 'Invite', about: 'new people by mail' },
  { page: '/people', title: 'Who may what', about: 'access, rights, second factor' },
];

/** A line of what was found. */
export interface Found {
  name: string;
  of: string;
  /** Below the setup's own address. */
  path: string;
}
const fold = (text: string): string => text.normalize('NFKD').replaceAll(/\p{M}/gu, '').toLowerCase();

/** Parts and policies that have all the words; without words every part. */
export function findPlaces(words: string): Found[] {
  const parts = fold(words).split(/\s+/).filter(Boolean);
  const has = (text: string): boolean => parts.every((p) => fold(text).includes(p));
  return [
    ...PLACES.filter((p) => has(`${p.title} ${p.about}`)).map((p) => ({
      name: p.title,
      of: '',
      path: `${p.page}#${anchorOf(p.title)}`,
    })),
    ...(parts.length === 0 ? [] : POLICIES).flatMap((g) =>
      g.flags
        .filter((f) => has(`${f.word} ${f.does}`))
        .map((f) => ({ name: f.word, of: g.title, path: `/walking#${anchorOf(g.title)}` })),
    ),
  ];
}

/** Where a thing that the server found is set. */
export function foundAt(line: Api['SettingLine']): Found {
  const { page, title } = LISTS[line.place];
  return {
    name: line.name,
    of: [title, line.of].filter(Boolean).join(', '),
    path: `${page}#${anchorOf(title)}`,
  };
}
