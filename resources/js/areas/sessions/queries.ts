import { api, unwrap, type Api } from '@/api/client';

/** What runs, what waits and what was explored. */
export const readCharters = async (project: string): Promise<Api['CharterLine'][]> =>
  unwrap(await api.GET('/projects/{project}/charters', { params: { path: { project } } }));

/** A charter with its sessions. */
export const readCharter = async (charter: string): Promise<Api['CharterDetail']> =>
  unwrap(await api.GET('/charters/{charter}', { params: { path: { charter } } }));

export const writeCharter = async (
  project: string,
  body: Api['CharterRequest'],
): Promise<Api['CharterDetail']> =>
  unwrap(await api.POST('/projects/{project}/charters', { params: { path: { project } }, body }));

/** Says that nobody is to run it any more. */
export const dropCharter = async (charter: string): Promise<Api['CharterDetail']> =>
  unwrap(await api.DELETE('/charters/{charter}', { params: { path: { charter } }, body: {} }));

export const restoreCharter = async (charter: string): Promise<Api['CharterDetail']> =>
  unwrap(await api.POST('/charters/{charter}/restorations', { params: { path: { charter } }, body: {} }));

/** A session with everything about it but its timeline. */
export const readTestSession = async (testSession: string): Promise<Api['SessionDetail']> =>
  unwrap(await api.GET('/test-sessions/{testSession}', { params: { path: { testSession } } }));

/** A whole timeline, window by window. */
export async function readTimeline(testSession: string): Promise<Api['TimelineLine'][]> {
  const lines: Api['TimelineLine'][] = [];
  let after = '';
  do {
    const page: Api['TimelinePage'] = unwrap(
      await api.GET('/test-sessions/{testSession}/lines', {
        params: { path: { testSession }, query: after ? { after } : {} },
      }),
    );
    lines.push(...page.items);
    after = page.next ?? '';
  } while (after);
  return lines;
}

/** What arrived after a line, by its number. */
export async function readNewLines(testSession: string, since: number): Promise<Api['TimelineLine'][]> {
  const page: Api['TimelinePage'] = unwrap(
    await api.GET('/test-sessions/{testSession}/lines', {
      params: { path: { testSession }, query: { since: String(since) } },
    }),
  );
  return page.items;
}

/** What the session listens to. */
export const readObserver = async (testSession: string): Promise<Api['ObserverDetail']> =>
  unwrap(await api.GET('/test-sessions/{testSession}/observer', { params: { path: { testSession } } }));

/** Makes the code with which a page reports into the session. */
export const pairObserver = async (testSession: string): Promise<Api['ObserverDetail']> =>
  unwrap(
    await api.POST('/test-sessions/{testSession}/observer', { params: { path: { testSession } }, body: {} }),
  );

export const partObserver = async (testSession: string): Promise<Api['ObserverDetail']> =>
  unwrap(
    await api.DELETE('/test-sessions/{testSession}/observer', {
      params: { path: { testSession } },
      body: {},
    }),
  );

/** What led to a line, and what of that is proposed to stay. */
export const readStretch = async (
  sessionLine: string,
  from: string,
  before: number,
): Promise<Api['StretchDetail']> =>
  unwrap(
    await api.GET('/session-lines/{sessionLine}/stretch', {
      params: {
        path: { sessionLine },
        query: { ...(from ? { from } : {}), ...(before ? { before: String(before) } : {}) },
      },
    }),
  );

export const saveRepro = async (
  sessionLine: string,
  body: Api['ReproRequest'],
): Promise<Api['ReproDetail']> =>
  unwrap(await api.PUT('/session-lines/{sessionLine}/repro', { params: { path: { sessionLine } }, body }));

/** Says whether the fault showed when it was walked again. */
export const tryRepro = async (sessionLine: string, shown: boolean): Promise<Api['ReproDetail']> =>
  unwrap(
    await api.POST('/session-lines/{sessionLine}/repro/tries', {
      params: { path: { sessionLine } },
      body: { shown },
    }),
  );

/** Makes a case, a draft, of what leads there. */
export const makeCaseOf = async (sessionLine: string): Promise<Api['ReproDetail']> =>
  unwrap(
    await api.POST('/session-lines/{sessionLine}/repro/cases', {
      params: { path: { sessionLine } },
      body: {},
    }),
  );

/** A session on one sheet. */
export const readSheet = async (testSession: string): Promise<Api['SessionSheet']> =>
  unwrap(await api.GET('/test-sessions/{testSession}/sheet', { params: { path: { testSession } } }));

/** Whether the record of a session is whole. */
export const verifySession = async (testSession: string): Promise<Api['RecordCheck']> =>
  unwrap(await api.GET('/test-sessions/{testSession}/verification', { params: { path: { testSession } } }));

/** Says something of a session; whoever is asked to read it is told. */
export const sayOfSession = async (
  testSession: string,
  text: string,
  to: string | null,
): Promise<Api['SessionDetail']> =>
  unwrap(
    await api.POST('/test-sessions/{testSession}/comments', {
      params: { path: { testSession } },
      body: { text, to_id: to },
    }),
  );

export const removeSessionComment = async (
  sessionComment: string,
  reason: string,
): Promise<Api['SessionDetail']> =>
  unwrap(
    await api.POST('/session-comments/{sessionComment}/removals', {
      params: { path: { sessionComment } },
      body: { reason },
    }),
  );

/** What sessions come to, by what and between which days (empty: all of them). */
export const readFigures = async (
  project: string,
  by: string,
  from: string,
  until: string,
): Promise<Api['SessionFigures']> =>
  unwrap(
    await api.GET('/projects/{project}/session-figures', {
      params: {
        path: { project },
        query: { by, ...(from ? { from } : {}), ...(until ? { until } : {}) },
      },
    }),
  );

/** What nobody explored on the newest build. */
export const readUnexplored = async (project: string): Promise<Api['Unexplored'][]> =>
  unwrap(await api.GET('/projects/{project}/unexplored', { params: { path: { project } } }));

/** Says what was covered. */
export const writeDebrief = async (
  testSession: string,
  body: Api['DebriefRequest'],
): Promise<Api['SessionDetail']> =>
  unwrap(await api.PUT('/test-sessions/{testSession}/debrief', { params: { path: { testSession } }, body }));

/** Moves time from one share to another. */
export const moveTime = async (
  testSession: string,
  body: Api['TimeMoveRequest'],
): Promise<Api['SessionDetail']> =>
  unwrap(
    await api.POST('/test-sessions/{testSession}/time-moves', { params: { path: { testSession } }, body }),
  );

/** Says that it was read: its record is sealed. */
export const signOff = async (testSession: string, note: string): Promise<Api['SessionDetail']> =>
  unwrap(
    await api.POST('/test-sessions/{testSession}/sign-offs', {
      params: { path: { testSession } },
      body: { note },
    }),
  );

/** Takes words and file of a line out. */
export const removeLine = async (sessionLine: string, reason: string): Promise<Api['TimelineLine']> =>
  unwrap(
    await api.POST('/session-lines/{sessionLine}/removals', {
      params: { path: { sessionLine } },
      body: { reason },
    }),
  );
