// @vitest-environment happy-dom
import { mount, type VueWrapper } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import { nextTick, ref } from 'vue';
import { Problem } from '@/api/client';
import DocumentPage from '@/kit/DocumentPage.vue';
import SelectField from '@/kit/SelectField.vue';

let mounted: VueWrapper | null = null;
afterEach(() => mounted?.unmount());
const open = <T>(part: T, options: object): VueWrapper =>
  (mounted = mount(part as never, { attachTo: document.body, ...options }) as VueWrapper);

describe('a choice out of a list', () => {
  const options = [
    { value: 'a', label: 'Anchor' },
    { value: 'b', label: 'Buoy' },
  ];
  const shown = (): string =>
    (mounted?.find('select').element as HTMLSelectElement).selectedOptions[0]?.textContent?.trim() ??
    'nothing';

  it('says what is chosen, whatever the form calls nothing', () => {
    for (const [modelValue, none, says] of [
      ['a', undefined, 'Anchor'],
      ['b', 'Nobody', 'Buoy'],
      [null, 'Nobody', 'Nobody'],
      [undefined, 'Nobody', 'Nobody'],
      ['', 'Nobody', 'Nobody'],
      ['gone', 'Nobody', 'gone'],
    ] as const) {
      open(SelectField, { props: { modelValue, none, label: 'What', options } });
      expect(shown(), `${modelValue}`).toBe(says);
      mounted?.unmount();
    }
  });

  it('lets an empty text be a choice of its own', () => {
    const props = { modelValue: '', label: 'What', options: [{ value: '', label: 'All of it' }, ...options] };
    open(SelectField, { props });
    expect(shown()).toBe('All of it');
  });

  it('hands on what is chosen, and nothing as null', async () => {
    const chosen: unknown[] = [];
    open(SelectField, {
      props: {
        modelValue: 'a',
        none: 'Nobody',
        label: 'What',
        options,
        'onUpdate:modelValue': (now: unknown) => chosen.push(now),
      },
    });
    await mounted?.find('select').setValue('b');
    await mounted?.findAll('option')[0]?.setValue();
    expect(chosen).toEqual(['b', null]);
  });
});

describe('a page about one thing', () => {
  const name = ref<string | undefined>('Tides');
  const page = (props: object = {}): VueWrapper =>
    open(DocumentPage, {
      props: {
        name: name.value,
        'onUpdate:name': (now: string) => (name.value = now),
        crumb: { to: '/SKR/casebook', word: 'Casebook' },
        what: 'routine',
        mayWrite: true,
        loading: false,
        error: null,
        beside: 'Where it is used',
        ...props,
      },
      slots: { default: 'Its text', beside: 'Its uses', actions: '<a href="#history">History</a>' },
      global: { stubs: { RouterLink: { props: ['to'], template: '<a :href="to"><slot /></a>' } } },
    });
  const buttons = (): string[] => mounted?.findAll('button').map((b) => b.text()) ?? [];

  it('says how it stands between here and the server', () => {
    page({ dirty: false });
    expect(mounted?.find('[role=status]').text()).toBe('Saved');
    expect(buttons()).toEqual(['Bin', 'Save']);
    mounted?.unmount();
    page({ dirty: true });
    expect(mounted?.find('[role=status]').text()).toBe('Not saved yet, kept on this device');
    expect(buttons()).toEqual(['Bin', 'Drop my changes', 'Save']);
    mounted?.unmount();
    page({ isNew: true });
    expect(mounted?.find('[role=status]').text()).toBe('');
    expect(buttons()).toEqual(['Save']);
  });

  it('is saved only where something was written, and not twice', () => {
    const saves = (props: object): boolean => {
      page(props);
      const able = mounted?.findAll('button').at(-1)?.attributes('disabled') === undefined;
      mounted?.unmount();
      return able;
    };
    expect(saves({ dirty: false })).toBe(false);
    expect(saves({ dirty: true })).toBe(true);
    expect(saves({ dirty: true, saving: true })).toBe(false);
  });

  it('is saved by Ctrl S, where there is something to save', () => {
    const press = (): boolean =>
      window.dispatchEvent(new KeyboardEvent('keydown', { key: 's', ctrlKey: true, cancelable: true }));
    for (const [props, saves] of [
      [{ dirty: true }, 1],
      [{ dirty: false }, 0],
      [{ dirty: true, saving: true }, 0],
      [{ dirty: true, mayWrite: false }, 0],
    ] as const) {
      page(props);
      expect(press(), 'the browser does not save the page').toBe(false);
      expect(mounted?.emitted('save') ?? []).toHaveLength(saves);
      mounted?.unmount();
    }
    expect(press(), 'nobody listens any more').toBe(true);
  });

  it('offers nothing to change to who may not write, and reads the same', () => {
    page({ mayWrite: false, code: 'SKR-C1' });
    expect(mounted?.find('h1').classes()).toContain('long');
    expect(mounted?.text()).toContain('SKR-C1');
    expect(mounted?.text()).toContain('History');
    expect(buttons()).toEqual([]);
    expect(mounted?.find('textarea').exists()).toBe(false);
  });

  it('keeps its name on one line, and goes on at Enter', async () => {
    page();
    await mounted?.find('textarea').setValue('Low\n  water, \r\n high water');
    expect(name.value).toBe('Low water, high water');
    await mounted?.find('textarea').trigger('keydown.enter');
    expect(mounted?.emitted('enter')).toHaveLength(1);
  });

  it('says what was refused once: at its field, or at the top', async () => {
    const errors = { name: ['Give it a name.'], 'row 3': ['Too long.'], 'parameters.0.name': ['Twice.'] };
    page({
      problem: new Problem(422, 'invalid', 'Not valid.', errors),
      shown: (field: string) => field.startsWith('parameters'),
    });
    await nextTick();
    const said = mounted?.findAll('[role=alert] p').map((p) => p.text());
    expect(said).toEqual(['Give it a name.', 'Row 3: Too long.']);
    mounted?.unmount();
    page({ problem: new Problem(409, 'stale', 'Somebody else saved it meanwhile.') });
    expect(mounted?.find('[role=alert]').text()).toBe('Somebody else saved it meanwhile.');
  });

  it('waits for what is not there yet', () => {
    page({ name: undefined, loading: true });
    expect(mounted?.find('h1').exists()).toBe(false);
    expect(mounted?.text()).not.toContain('Its text');
  });
});
