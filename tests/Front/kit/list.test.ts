// @vitest-environment happy-dom
import { mount, type VueWrapper } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import { nextTick } from 'vue';
import { createMemoryHistory, createRouter } from 'vue-router';
import type { Column } from '@/kit/list';
import ListTable from '@/kit/ListTable.vue';
import { useListState } from '@/kit/useListState';
import { useSelection } from '@/kit/useSelection';

interface Row {
  id: string;
  name: string;
  of: string;
}
const rows: Row[] = Array.from({ length: 12 }, (_, n) => ({
  id: `r${n}`,
  name: `Row ${n}`,
  of: n < 5 ? 'first' : 'second',
}));
const columns: Column<Row>[] = [
  { name: 'name', word: 'Name', width: '1fr', sorted: true, text: (r) => r.name },
  { name: 'of', word: 'Of', width: '80px', text: (r) => r.of },
];
let table: VueWrapper;
afterEach(() => table?.unmount());
const show = (props: object = {}): VueWrapper =>
  (table = mount(ListTable as never, {
    props: { what: 'row', label: 'Rows', rows, columns, nameOf: (r: Row) => r.name, ...props } as never,
    attachTo: document.body,
  }));
const press = async (key: string, altKey = false): Promise<void> => {
  window.dispatchEvent(new KeyboardEvent('keydown', { key, altKey, cancelable: true, bubbles: true }));
  await nextTick();
};
const current = (): string => (table.emitted('update:current')?.at(-1) as [string] | undefined)?.[0] ?? '';

describe('a list', () => {
  it('shows its rows with their cells, and how many there are in all', () => {
    show({ total: 500 });
    expect(table.findAll('.line')).toHaveLength(12);
    expect(table.find('.line').text()).toBe('Row 0first');
    expect(table.find('[role=table]').attributes('aria-rowcount')).toBe('500');
  });

  it('goes along the rows, stays at both ends, and opens the one it is on', async () => {
    show();
    for (const key of ['k', 'j', 'ArrowDown', 'ArrowDown', 'k']) await press(key);
    expect(current()).toBe('r2');
    await press('Enter');
    expect(table.emitted('open')).toEqual([[rows[2]]]);
    for (let n = 0; n < 20; n++) await press('j');
    expect(current()).toBe('r11');
  });

  it('chooses by key and box where rows can be chosen, and nowhere else', async () => {
    show();
    await press('j');
    await press('x');
    expect(table.emitted('select')).toBeUndefined();
    expect(table.find('input').exists()).toBe(false);
    table.unmount();
    show({ selected: new Set(['r3']) });
    await press('j');
    await press('x');
    await table.find('[aria-label="Choose Row 4"]').trigger('click', { shiftKey: true });
    expect(table.emitted('select')).toEqual([
      ['r0', false],
      ['r4', true],
    ]);
    await table.find('[aria-label="Choose all that are shown"]').setValue(true);
    expect(table.emitted('all')).toEqual([[true]]);
  });

  it('says how it is ordered, and asks for another order', async () => {
    show({ sort: '-name' });
    expect(table.find('[aria-sort]').attributes('aria-sort')).toBe('descending');
    await table.find('.head button').trigger('click');
    expect(table.emitted('sort')).toEqual([['name']]);
    expect(table.findAll('.head button')).toHaveLength(1);
  });

  it('moves one row, or all chosen ones together, and not past what it has not read', async () => {
    show({ movable: true, current: 'r2' });
    await press('ArrowUp', true);
    await press('ArrowDown', true);
    expect(table.emitted('move')).toEqual([
      [['r2'], 'r1'],
      [['r2'], 'r4'],
    ]);
    table.unmount();
    show({ movable: true, current: 'r2', selected: new Set(['r2', 'r0']) });
    await press('ArrowDown', true);
    expect(table.emitted('move')).toEqual([[['r0', 'r2'], 'r3']]);
    table.unmount();
    show({ movable: true, current: 'r11' });
    await press('ArrowDown', true);
    expect(table.emitted('move')).toBeUndefined();
    table.unmount();
    show({ movable: true, current: 'r10', total: 40 });
    await press('ArrowDown', true);
    expect(table.emitted('move')).toBeUndefined();
    table.unmount();
    show({ current: 'r2' });
    await press('ArrowUp', true);
    expect(table.emitted('move')).toBeUndefined();
  });

  it('drops dragged rows before another, never on themselves', async () => {
    show({ movable: true });
    const [first, , third] = table.findAll('.line');
    await first!.trigger('dragstart');
    await first!.trigger('drop');
    await first!.trigger('dragstart');
    await third!.trigger('drop');
    expect(table.emitted('move')).toEqual([[['r0'], 'r2']]);
  });

  it('puts a line before each group, with how many it holds', () => {
    show({ groupOf: (r: Row) => r.of, groupLabel: (key: string) => ({ label: key, count: 7 }) });
    expect(table.findAll('.group').map((g) => g.text().replace(/\s+/g, ' '))).toEqual([
      'first 7',
      'second 7',
    ]);
    expect(table.findAll('.line')).toHaveLength(12);
  });

  it('asks for more as soon as its end is near', () => {
    show();
    expect(table.emitted('more')).toBeDefined();
  });
});

describe('what a list is narrowed to', () => {
  const open = async (path: string) => {
    const router = createRouter({
      history: createMemoryHistory(),
      routes: [{ path: '/list', component: { template: '<p />' } }],
    });
    await router.push(path);
    let state: ReturnType<typeof useListState> | null = null;
    table = mount(
      { setup: () => ((state = useListState(['group'])), () => null) },
      { global: { plugins: [router] } },
    );
    return { router, state: state! as ReturnType<typeof useListState> };
  };

  it('stands in the address, apart from how it is shown', async () => {
    const { state } = await open('/list?q=tide&state=open&sort=-title&group=type&empty=');
    expect(state.filter.value).toEqual({ q: 'tide', state: 'open' });
    expect(state.sort.value).toBe('-title');
    expect(state.narrowed.value).toBe(true);
  });

  it('is cleared without losing how it is shown', async () => {
    const { router, state } = await open('/list?q=tide&sort=title&group=type');
    state.clear();
    await router.isReady();
    await new Promise((r) => setTimeout(r));
    expect(router.currentRoute.value.query).toEqual({ sort: 'title', group: 'type' });
    for (const expected of ['-title', undefined, 'title']) {
      state.sortBy('title');
      await new Promise((r) => setTimeout(r));
      expect(router.currentRoute.value.query.sort).toBe(expected);
    }
    state.set('q', 'a');
    await new Promise((r) => setTimeout(r));
    expect(state.filter.value).toEqual({ q: 'a' });
  });
});

describe('a selection', () => {
  it('takes rows one by one, in ranges, all and none', () => {
    const ids = rows.map((r) => r.id);
    const { selected, select, all, clear, chosen } = useSelection(() => ids);
    select('r2', false);
    select('r5', true);
    expect(chosen.value).toEqual(['r2', 'r3', 'r4', 'r5']);
    select('r3', false);
    select('r1', true);
    expect([...selected.value].sort()).toEqual(['r1', 'r2', 'r3', 'r4', 'r5'].sort());
    all();
    expect(chosen.value).toEqual(ids);
    all();
    expect(chosen.value).toEqual([]);
    select('r0', false);
    clear();
    expect(chosen.value).toEqual([]);
  });
});
