// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { beforeEach, describe, expect, it, vi } from 'vitest';

/** The device's own database, as other tabs and older releases of the application leave it. */
describe('the device', () => {
  beforeEach(() => {
    vi.resetModules();
    globalThis.indexedDB = new IDBFactory();
  });

  it('sends what an older release wrote there, in the same order', async () => {
    const { device, queuedOnDevice } = await import('@/offline/device');
    const there = await device();
    const old = (note: string) => ({
      key: `k-${note}`,
      attempt: 'a',
      user: 'u',
      at: '2026-11-24T10:00:00.000Z',
      deed: { kind: 'note', round: 1, step: 1, note },
    });
    for (const note of ['one', 'two']) await there.add('acts', old(note) as never);
    const now = { ...old('three'), command: old('three').deed };
    await there.add('acts', (({ deed: _, ...rest }) => rest)(now) as never);
    const queued = await queuedOnDevice();
    expect(queued.map((q) => q.command)).toEqual(
      ['one', 'two', 'three'].map((note) => ({ kind: 'note', round: 1, step: 1, note })),
    );
    expect(queued.map((q) => q.counter)).toEqual([1, 2, 3]);
    expect(queued.every((q) => !('deed' in q))).toBe(true);
  });

  it('lets a newer page change its database', async () => {
    const { device } = await import('@/offline/device');
    await device();
    const opened = await new Promise<string>((resolve) => {
      const request = indexedDB.open('lucid-step', 2);
      request.onblocked = () => resolve('blocked');
      request.onsuccess = () => resolve('open');
    });
    expect(opened).toBe('open');
  });

  it('keeps what waits when it forgets the rest', async () => {
    const { clearDevice, device, loadLocal, queuedOnDevice, saveLocal } = await import('@/offline/device');
    await saveLocal('session', { user: 'u' });
    await (await device()).add('acts', { key: 'k', command: { kind: 'stops', entry: 'e' } } as never);
    await clearDevice();
    expect(await loadLocal('session')).toBeNull();
    expect(await queuedOnDevice()).toHaveLength(1);
  });
});
