import type { Api } from '@/api/client';
import { durationText } from '@/kit/duration';
import type { Column } from '@/kit/list';
import { ago, exact } from '@/kit/words';
import { stateWord } from './filter';

type Line = Api['CaseLine'];
interface Naming {
  fields: Api['CustomFieldLine'][];
  nameOf: (kind: 'type' | 'priority', value: string) => string;
  pathOf: (folder: string | null) => string;
}

/** The columns that cases can be listed with: those of every project and its own fields. */
export function caseColumns(chosen: string[], { fields, nameOf, pathOf }: Naming): Column<Line>[] {
  const known: Record<string, Omit<Column<Line>, 'name'>> = {
    state: { word: 'State', width: '84px', sorted: true, text: (c) => stateWord(c.state) },
    priority: {
      word: 'Priority',
      width: '76px',
      sorted: true,
      text: (c) => nameOf('priority', c.priority),
    },
    type: { word: 'Type', width: '96px', sorted: true, soft: true, text: (c) => nameOf('type', c.type) },
    estimate: {
      word: 'Estimate',
      width: '72px',
      sorted: true,
      soft: true,
      text: (c) => (c.estimate_seconds ? durationText(c.estimate_seconds * 1000) : ''),
    },
    owner: {
      word: 'Owner',
      width: '120px',
      sorted: true,
      soft: true,
      text: (c) => c.owner?.name ?? '',
    },
    labels: { word: 'Labels', width: '150px', soft: true, text: (c) => c.labels.join(', ') },
    walked: {
      word: 'Walked',
      width: '92px',
      sorted: true,
      soft: true,
      text: (c) => (c.last_walked_at ? ago(c.last_walked_at) : 'never'),
      tip: (c) => (c.last_walked_at ? exact(c.last_walked_at) : undefined),
    },
    changed: {
      word: 'Changed',
      width: '96px',
      sorted: true,
      soft: true,
      text: (c) => ago(c.updated_at),
      tip: (c) => exact(c.updated_at),
    },
    folder: { word: 'Folder', width: '150px', soft: true, text: (c) => pathOf(c.folder_id) },
    steps: { word: 'Steps', width: '60px', soft: true, text: (c) => String(c.steps) },
  };
  const own = (name: string): Omit<Column<Line>, 'name'> => ({
    word: fields.find((f) => `field.${f.id}` === name)?.name ?? name,
    width: '110px',
    soft: true,
    text: (c) => (c.custom as Record<string, string>)[name.replace('field.', '')] ?? '',
  });
  return [
    { name: 'key', word: 'Key', width: '84px', sorted: true },
    { name: 'title', word: 'Title', width: 'minmax(200px, 1fr)', sorted: true },
    // In a narrow window the first two that were chosen stay.
    ...chosen.map((name, i) => ({ name, ...(known[name] ?? own(name)), wide: i > 1 })),
  ];
}
