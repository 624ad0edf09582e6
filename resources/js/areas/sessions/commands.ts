import { registerCommands, type CommandKind, type CommandMap, type QueuedCommand } from '@/offline/commands';
import type { Share, WrittenKind } from './types';

/** What is done in a session: it waits on the device like what is done on a walk, and counts from when it was done. */
declare module '@/offline/commands' {
  interface CommandMap {
    session_start: {
      charter: string;
      build_id: string | null;
      configuration_id: string | null;
      environment: string;
    };
    session_move: { to: 'running' | 'paused' | 'stopped' };
    session_box: { minutes: number };
    session_switch: { to: Share };
    session_line: { id: string; line: WrittenKind; words: string };
    session_capture: { id: string; file: Blob; name: string; words: string };
    session_mend: { id: string; words?: string; pinned?: boolean };
  }
}
export type SessionCommand = Extract<keyof CommandMap, `session_${string}`>;
const at = (queued: QueuedCommand): string => `/api/v1/test-sessions/${queued.attempt}`;

const KINDS: { [K in SessionCommand]: CommandKind<K> } = {
  session_start: {
    label: 'The start of a session',
    creates: 'attempt',
    request: ({ charter, build_id, configuration_id, environment }, queued) => ({
      method: 'POST',
      path: `/api/v1/charters/${charter}/sessions`,
      body: { id: queued.attempt, build_id, configuration_id, environment },
    }),
  },
  session_move: {
    label: 'A pause or an end',
    request: ({ to }, queued) => ({ method: 'POST', path: `${at(queued)}/moves`, body: { to } }),
  },
  session_box: {
    label: 'A time box',
    request: ({ minutes }, queued) => ({ method: 'PUT', path: `${at(queued)}/box`, body: { minutes } }),
  },
  session_switch: {
    label: 'A switch',
    request: ({ to }, queued) => ({ method: 'POST', path: `${at(queued)}/switches`, body: { to } }),
  },
  session_line: {
    label: 'A line',
    request: ({ id, line, words }, queued) => ({
      method: 'POST',
      path: `${at(queued)}/lines`,
      body: { id, kind: line, words },
    }),
    subject: ({ id }) => id,
    creates: 'subject',
  },
  session_capture: {
    label: 'A capture',
    request: ({ id, file, name, words }, queued) => ({
      method: 'POST',
      path: `${at(queued)}/captures`,
      body: { id, name, words },
      form: { file, name },
    }),
    upload: ({ file, name }) => ({ file, name }),
    withFile: (command, file) => ({ ...command, file }),
    subject: ({ id }) => id,
    creates: 'subject',
  },
  session_mend: {
    label: 'A change of a line',
    request: ({ id, words, pinned }) => ({
      method: 'PATCH',
      path: `/api/v1/session-lines/${id}`,
      body: { ...(words === undefined ? {} : { words }), ...(pinned === undefined ? {} : { pinned }) },
    }),
    subject: ({ id }) => id,
  },
};
registerCommands(KINDS);
