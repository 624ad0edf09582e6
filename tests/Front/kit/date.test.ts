// @vitest-environment happy-dom
import { mount, type VueWrapper } from '@vue/test-utils';
import PrimeVue from 'primevue/config';
import { afterEach, describe, expect, it } from 'vitest';
import { nextTick } from 'vue';
import DateField from '@/kit/DateField.vue';
import { theme } from '@/kit/theme';

let mounted: VueWrapper | null = null;
let chosen = '';
afterEach(() => mounted?.unmount());
const open = (value: string, time: boolean): void => {
  mounted?.unmount();
  chosen = value;
  mounted = mount(DateField, {
    attachTo: document.body,
    props: {
      modelValue: value,
      label: 'When',
      time,
      'onUpdate:modelValue': async (now: string) => {
        chosen = now;
        await mounted?.setProps({ modelValue: now });
      },
    },
    global: { plugins: [[PrimeVue, { theme: { preset: theme } }]] },
  });
};
const field = (): HTMLInputElement => mounted?.find('input').element as HTMLInputElement;
const write = async (text: string, leave: 'blur' | 'Enter' = 'blur'): Promise<void> => {
  field().value = text;
  field().dispatchEvent(new Event('input', { bubbles: true }));
  await nextTick();
  field().dispatchEvent(
    leave === 'blur' ? new FocusEvent('blur') : new KeyboardEvent('keydown', { key: 'Enter', code: 'Enter' }),
  );
  await nextTick();
  await nextTick();
};
const said = (): string =>
  mounted?.find('[role=alert]').exists() ? mounted.find('[role=alert]').text() : '';

/** Key by key, as a person does, with the page drawn in between. */
const press = async (text: string): Promise<void> => {
  field().focus();
  await nextTick();
  field().value = '';
  for (const key of text) {
    field().value += key;
    field().dispatchEvent(new Event('input', { bubbles: true }));
    await nextTick();
    await nextTick();
  }
};

describe('a date that is typed', () => {
  it('stays as it stands under the keys, whatever was chosen before', async () => {
    for (const time of [false, true])
      for (const before of ['', time ? '2026-12-03T09:15' : '2026-12-03'])
        for (const day of [1, 9, 10, 20, 31]) {
          const text = `2026-12-${day}${time ? ` ${day % 24}:05` : ''}`;
          open(before, time);
          await nextTick();
          await press(text);
          expect(field().value).toBe(text);
          field().dispatchEvent(new FocusEvent('blur'));
          await nextTick();
          expect(said()).toBe('');
          expect(chosen.slice(0, 10)).toBe(`2026-12-${String(day).padStart(2, '0')}`);
        }
  });

  it('is kept whatever zeros are left out, day by day over two years', async () => {
    open('', false);
    for (let n = 0; n < 731; n += 37) {
      const at = new Date(2027, 0, 1 + n);
      const [year, month, day] = [at.getFullYear(), at.getMonth() + 1, at.getDate()];
      const whole = `${year}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
      await write(n % 2 ? `${year}-${month}-${day}` : whole);
      expect(chosen).toBe(whole);
      expect(said()).toBe('');
      expect(field().value).toBe(whole);
    }
  });

  it('is kept with its time, at every hour', async () => {
    open('', true);
    for (let hour = 0; hour < 24; hour += 1) {
      const minute = (hour * 7) % 60;
      const two = (n: number): string => String(n).padStart(2, '0');
      await write(`2027-3-28 ${hour}:${two(minute)}`, hour % 2 ? 'Enter' : 'blur');
      expect(chosen).toBe(`2027-03-28T${two(hour)}:${two(minute)}`);
      expect(said()).toBe('');
    }
  });

  it('is said to be none where it is none, and leaves what was there', async () => {
    for (const [time, texts] of [
      [
        false,
        ['soon', '2027-02-30', '2027-13-01', '2027-00-10', '27-01-05', '2027-01-05 10:00', '05.01.2027'],
      ],
      [true, ['soon', '2027-01-05', '2027-01-05 24:00', '2027-01-05 10:60', '2027-02-29 10:00', '10:00']],
    ] as const) {
      const before = time ? '2027-01-04T09:30' : '2027-01-04';
      for (const text of texts) {
        open(before, time);
        await write(text);
        expect(chosen, text).toBe(before);
        expect(said(), text).toBe(
          `“${text}” is no date. Write it like ${time ? '2026-11-28 14:30' : '2026-11-28'}.`,
        );
      }
    }
  });

  it('does not send its form with what was there before', async () => {
    open('2027-01-04', false);
    field().value = 'soon';
    field().dispatchEvent(new Event('input', { bubbles: true }));
    const enter = (): boolean =>
      field().dispatchEvent(
        new KeyboardEvent('keydown', { key: 'Enter', code: 'Enter', bubbles: true, cancelable: true }),
      );
    expect(enter(), 'the first Enter').toBe(false);
    expect(enter(), 'and again').toBe(false);
    await write('2027-01-06');
    expect(enter(), 'once it is a date').toBe(true);
  });

  it('says so no more once it is one, or is taken out', async () => {
    open('', false);
    await write('soon');
    expect(said()).not.toBe('');
    await write('2027-01-05');
    expect(said()).toBe('');
    await write('');
    expect([chosen, said()]).toEqual(['', '']);
  });
});
