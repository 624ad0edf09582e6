// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { Blob as NodeBlob } from 'node:buffer';
import { IDBFactory } from 'fake-indexeddb';
import { beforeEach, describe, expect, it, vi } from 'vitest';

const key = (of: string): string => btoa(of.padEnd(32, '.'));
const TOBIAS = { user: { id: 'tobias' }, device_key: key('tobias') };
const ANOUK = { user: { id: 'anouk' }, device_key: key('anouk') };
const note = (user: string, text: string) => ({
  key: `k-${text}`,
  attempt: 'a',
  user,
  at: '2026-11-29T10:00:00.000Z',
  command: { kind: 'note', round: 1, step: 1, note: text },
});

/** What is not sent yet stays on a device that others use too, and only its person can read it. */
describe('what waits for its person', () => {
  let here: typeof import('@/offline/device');
  const acts = async (): Promise<Record<string, unknown>[]> =>
    (await (await here.device()).getAll('acts')) as never;
  const add = async (act: unknown): Promise<void> =>
    void (await (await here.device()).add('acts', act as never));

  beforeEach(async () => {
    vi.resetModules();
    // One that the made-up database can copy.
    vi.stubGlobal('Blob', NodeBlob);
    globalThis.indexedDB = new IDBFactory();
    here = await import('@/offline/device');
  });

  it('is locked when they leave, and open again when they come back, word for word and byte for byte', async () => {
    await here.saveLocal('session', { session: TOBIAS });
    await add(note('tobias', 'Größer als 你好 — GEHEIM-4711'));
    const bytes = Uint8Array.from({ length: 3000 }, (_, i) => i % 256);
    const file = new Blob([bytes], { type: 'image/png' });
    await add({
      ...note('tobias', 'two'),
      command: { kind: 'evidence', id: 'e', file, more: [{ n: null }] },
    });
    await add(note('anouk', 'of another'));
    const before = await here.queuedOnDevice();
    await here.clearDevice();
    const locked = await acts();
    expect(locked.map((a) => [a.counter, 'sealed' in a])).toEqual([
      [1, true],
      [2, true],
      [3, false],
    ]);
    const all = locked.map((a) => (a.sealed ? new TextDecoder().decode(a.sealed as ArrayBuffer) : '')).join();
    expect(all + JSON.stringify(locked)).not.toContain('GEHEIM');
    expect((await here.queuedOnDevice()).map((q) => q.key)).toEqual(['k-of another']);
    await here.lockUnsent(TOBIAS);
    const after = await here.queuedOnDevice();
    expect(after.map((q) => [q.counter, q.key, q.user])).toEqual(
      before.map((q) => [q.counter, q.key, q.user]),
    );
    expect(after[0]).toEqual(before[0]);
    const { file: again, ...rest } = after[1]?.command as unknown as { file: Blob };
    expect(rest).toEqual({ kind: 'evidence', id: 'e', more: [{ n: null }] });
    expect([again.type, again.size]).toEqual(['image/png', 3000]);
    expect(new Uint8Array(await again.arrayBuffer())).toEqual(bytes);
  });

  it('holds what they were typing too, for them alone, and gives it back where it was', async () => {
    const kept = async (): Promise<string[]> =>
      (await (await here.device()).getAllKeys('kept')).map(String).sort();
    await here.saveLocal('session', { session: TOBIAS });
    await here.saveLocal('draft:case:SKR-C1', { title: 'GEHEIM-4711', steps: [{ action: 'Größe' }] });
    await here.saveLocal('scratch:SKR', 'GEHEIM-4711');
    await here.saveLocal('pack:SKR', 'an answer of the server');
    expect(await here.unsent('tobias')).toEqual({ acts: 0, typed: 1, locks: true });
    await here.clearDevice();
    expect(await kept()).toEqual(['sealed:tobias:draft:case:SKR-C1', 'sealed:tobias:scratch:SKR']);
    const locked = await (await here.device()).getAll('kept');
    const bytes = locked.map((l) => new TextDecoder().decode((l as { sealed: ArrayBuffer }).sealed)).join();
    expect(bytes).not.toContain('GEHEIM');
    here.openDevice();
    await here.lockUnsent(ANOUK);
    expect(await here.loadLocal('draft:case:SKR-C1')).toBeNull();
    // Somebody else came and went: it still waits.
    await here.saveLocal('session', { session: ANOUK });
    await here.saveLocal('draft:case:SKR-C1', 'hers');
    await here.clearDevice();
    await here.lockUnsent(TOBIAS);
    expect(await here.loadLocal('draft:case:SKR-C1')).toEqual({
      title: 'GEHEIM-4711',
      steps: [{ action: 'Größe' }],
    });
    expect(await here.loadLocal('scratch:SKR')).toBe('GEHEIM-4711');
    expect(await kept()).toEqual(['draft:case:SKR-C1', 'scratch:SKR', 'sealed:anouk:draft:case:SKR-C1']);
  });

  it('is opened by nobody else, and stays', async () => {
    await here.saveLocal('session', { session: TOBIAS });
    await add(note('tobias', 'mine'));
    await here.clearAnswers();
    await here.lockUnsent(ANOUK);
    await here.lockUnsent({ ...TOBIAS, device_key: key('guessed') });
    expect(await here.queuedOnDevice()).toEqual([]);
    await here.lockUnsent(TOBIAS);
    expect((await here.queuedOnDevice()).map((q) => q.key)).toEqual(['k-mine']);
  });

  it('is not locked twice, and what nobody has a key for stays as it is', async () => {
    await add(note('tobias', 'of an older session'));
    await here.clearDevice();
    expect(await here.queuedOnDevice()).toHaveLength(1);
    here.openDevice();
    await here.saveLocal('session', { session: TOBIAS });
    await here.clearAnswers();
    const once = await acts();
    await here.saveLocal('session', { session: TOBIAS });
    await here.clearDevice();
    expect(await acts()).toEqual(once);
    await here.lockUnsent(TOBIAS);
    expect(await here.queuedOnDevice()).toHaveLength(1);
  });
});
