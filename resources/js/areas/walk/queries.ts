import { api, unwrap, type Api } from '@/api/client';

const entryPath = (entry: string) => ({ params: { path: { entry } } });
const attemptPath = (attempt: string) => ({ params: { path: { attempt } } });
/** Two clocks of the device, by which the server knows how far it is off. */
const clocks = () => ({ device_time: new Date().toISOString(), sent_at: new Date().toISOString() });

export const readEntry = async (entry: string): Promise<Api['EntryDetail']> =>
  unwrap(await api.GET('/entries/{entry}', entryPath(entry)));

export const readAttempt = async (attempt: string): Promise<Api['AttemptDetail']> =>
  unwrap(await api.GET('/attempts/{attempt}', attemptPath(attempt)));

/** The ended attempts of the same entry, the newest first. */
export const readEarlier = async (attempt: string): Promise<Api['EarlierAttempt'][]> =>
  unwrap(await api.GET('/attempts/{attempt}/earlier', attemptPath(attempt)));

/** Whether what the record says fits together. */
export const verifyAttempt = async (attempt: string): Promise<Api['RecordCheck']> =>
  unwrap(await api.GET('/attempts/{attempt}/verification', attemptPath(attempt)));

/** The events of an attempt. */
export const readRecord = async (attempt: string): Promise<Api['AttemptRecord']> =>
  unwrap(await api.GET('/attempts/{attempt}/record', attemptPath(attempt)));

/** The entries of a cycle as marks; with an entry, as that one's walk shows them. */
export const readTrail = async (cycle: string, entry?: string): Promise<Api['EntryLine'][]> =>
  unwrap(
    await api.GET('/cycles/{cycle}/trail', { params: { path: { cycle }, query: entry ? { entry } : {} } }),
  );

/** Everything that is needed to walk without the server. */
export const readPack = async (project: string): Promise<Api['WalkPack']> =>
  unwrap(await api.GET('/projects/{project}/walk-pack', { params: { path: { project } } }));

/** What waits for a lead. */
export const readQueue = async (project: string): Promise<Api['LeadQueue']> =>
  unwrap(await api.GET('/projects/{project}/queue', { params: { path: { project } } }));

/** The builds and configurations of a project. */
export const readSurroundings = async (project: string): Promise<Api['PlanningSetup']> =>
  unwrap(await api.GET('/projects/{project}/planning-setup', { params: { path: { project } } }));

/**
 * Begins an attempt, or goes on with the open one.
 *
 * @param again begins a new one beside an ended one
 * @param word  why, where a condition warns
 */
export const startAttempt = async (
  entry: string,
  again: boolean,
  word: string | null,
): Promise<Api['AttemptDetail']> =>
  unwrap(
    await api.POST('/entries/{entry}/attempts', {
      ...entryPath(entry),
      body: { again, word, ...clocks() },
    }),
  );

export const takeOver = async (attempt: string, word = ''): Promise<Api['AttemptDetail']> =>
  unwrap(
    await api.POST('/attempts/{attempt}/take-over', {
      ...attemptPath(attempt),
      body: word === '' ? {} : { word },
    }),
  );

/** @param time as people write it, such as 1h 20m */
export const correctTime = async (attempt: string, time: string): Promise<Api['AttemptDetail']> =>
  unwrap(await api.POST('/attempts/{attempt}/time', { ...attemptPath(attempt), body: { time } }));

/** A lead has seen a corrected time. */
export async function acceptTime(attempt: string): Promise<void> {
  await api.POST('/attempts/{attempt}/time-seen', { ...attemptPath(attempt), body: {} });
}

/** Takes a text out of the record, for good. */
export async function removeText(attempt: string, sequence: number, reason: string): Promise<void> {
  await api.POST('/attempts/{attempt}/removals', { ...attemptPath(attempt), body: { reason, sequence } });
}

export const askRetest = async (entry: string, reason: string): Promise<Api['EntryDetail']> =>
  unwrap(await api.POST('/entries/{entry}/retests', { ...entryPath(entry), body: { reason } }));

/** Takes the words out with which an entry was handed on. */
export const removeEntryWords = async (entry: string, reason: string): Promise<Api['EntryDetail']> =>
  unwrap(await api.POST('/entries/{entry}/removals', { ...entryPath(entry), body: { reason } }));

/** Asks a lead to look at an entry. */
export const askLook = async (entry: string, note: string): Promise<Api['EntryDetail']> =>
  unwrap(await api.POST('/entries/{entry}/looks', { ...entryPath(entry), body: { note } }));

export const markLooked = async (entry: string): Promise<Api['EntryDetail']> =>
  unwrap(await api.POST('/entries/{entry}/looked', { ...entryPath(entry), body: {} }));

/** How the case differs from the version that the entry walks. */
export const readNewVersion = async (entry: string): Promise<Api['NewVersionPreview']> =>
  unwrap(await api.GET('/entries/{entry}/new-version', entryPath(entry)));

export const takeNewVersion = async (entry: string): Promise<Api['EntryDetail']> =>
  unwrap(await api.POST('/entries/{entry}/versions', { ...entryPath(entry), body: {} }));

/** What an entry stops, and what it would; `failing` as if it failed just now. */
export const readStops = async (entry: string, failing = false): Promise<Api['BlockPreview']> =>
  unwrap(
    await api.GET('/entries/{entry}/stops', {
      params: { path: { entry }, query: failing ? { as: 'fail' } : {} },
    }),
  );

/** What some entries of a cycle would stop if they failed now. */
export const readStopsOf = async (cycle: string, ids: string[]): Promise<Api['BlockPreview']> =>
  unwrap(
    await api.GET('/cycles/{cycle}/stops', { params: { path: { cycle }, query: { ids: ids.join(',') } } }),
  );

export const blockDependents = async (entry: string): Promise<Api['BlockPreview']> =>
  unwrap(await api.POST('/entries/{entry}/stops', { ...entryPath(entry), body: {} }));

export const releaseDependents = async (entry: string): Promise<Api['BlockPreview']> =>
  unwrap(await api.DELETE('/entries/{entry}/stops', { ...entryPath(entry), body: {} }));

export const recordFromList = async (
  cycle: string,
  verdicts: Omit<Api['ListVerdictRequest'], 'device_time' | 'sent_at'>,
): Promise<Api['ListVerdictResult']> =>
  unwrap(
    await api.POST('/cycles/{cycle}/list-verdicts', {
      params: { path: { cycle } },
      body: { ...verdicts, ...clocks() },
    }),
  );

/** Accepts or sets aside what arrived too late, with all of the same person for the same attempt. */
export const judgeLate = async (lateCommand: string, accept: boolean): Promise<Api['LateDecisionResult']> =>
  unwrap(
    await api.POST('/late-commands/{lateCommand}/judgements', {
      params: { path: { lateCommand } },
      body: { accept, all: true },
    }),
  );
