import { nextTick, ref } from 'vue';
import { describe, expect, it, vi } from 'vitest';
import { Problem } from '@/api/client';
import { useSeen } from '@/kit/useSeen';

describe('the state that a form began from', () => {
  it('follows the server while nothing is typed, and stays when something is', async () => {
    const server = ref('a');
    const dirty = ref(false);
    const send = useSeen(() => server.value, dirty);
    const write = vi.fn(async (seen: string) => seen);
    expect(await send(write)).toBe('a');
    server.value = 'b';
    await nextTick();
    expect(await send(write)).toBe('b');
    dirty.value = true;
    await nextTick();
    server.value = 'c';
    await nextTick();
    expect(await send(write)).toBe('b');
    dirty.value = false;
    await nextTick();
    expect(await send(write)).toBe('c');
  });

  it('takes what a refusal tells, so that whoever saves again has been told', async () => {
    const send = useSeen(() => 'a', ref(true));
    const clash = new Problem(
      412,
      'changed-meanwhile',
      'Somebody else changed this list',
      {},
      { seen: 'theirs' },
    );
    await expect(send(() => Promise.reject(clash))).rejects.toBe(clash);
    expect(await send(async (seen) => seen)).toBe('theirs');
    const away = new Problem(0, 'away', 'away');
    await expect(send(() => Promise.reject(away))).rejects.toBe(away);
    expect(await send(async (seen) => seen)).toBe('theirs');
  });
});
