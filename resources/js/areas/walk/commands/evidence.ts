import type { Api } from '@/api/client';
import type { Markup, Source } from '@/areas/evidence/types';
import { attemptPath, changeEvidence, type WalkKind } from './kind';

declare module '@/offline/commands' {
  interface CommandMap {
    evidence: {
      id: string;
      round: number | null;
      step: number | null;
      name: string;
      source: Source;
      /** None for a link. */
      file: Blob | null;
      link?: string;
    };
    caption: { id: string; caption: string };
    move: { id: string; round: number | null; step: number | null };
    markup: { id: string; markup: Markup; file: Blob | null };
    redact: { id: string; file: Blob };
    remove: { id: string };
  }
}

const path = (id: string): string => `/api/v1/evidence/${id}`;
const subject = (command: { id: string }): string => command.id;

export const evidence: WalkKind<'evidence'> = {
  label: 'A file',
  subject,
  creates: 'subject',
  request: (command, queued) => ({
    method: 'POST',
    path: `${attemptPath(queued)}/evidence`,
    body: {
      id: command.id,
      name: command.name,
      round: command.round,
      step: command.step,
      source: command.source,
      link: command.link ?? null,
    },
    form: { file: command.file, name: command.name },
  }),
  upload: ({ file, name }) => (file ? { file, name } : null),
  withFile: (command, file) => ({ ...command, file }),
  apply(view, command, queued) {
    if (view.evidence.some((e) => e.id === command.id)) return;
    view.evidence.push({
      id: command.id,
      round: command.round,
      step: command.step,
      name: command.name,
      caption: '',
      source: command.source,
      media_type: command.file?.type ?? null,
      bytes: command.file?.size ?? 0,
      width: null,
      height: null,
      sha256: null,
      link: command.link ?? null,
      gone: false,
      markup: null,
      marked_url: null,
      compared: null,
      url: '',
      thumbnail_url: null,
      added_by_id: queued.user,
      created_at: queued.at,
      ...(command.file ? { local: command.file } : {}),
      ...(queued.held ? { held: true } : {}),
      ...(queued.refused === undefined ? {} : { refused: queued.refused }),
    });
    view.waiting.add(command.id);
  },
  settle(view, _, answer) {
    const saved = answer.evidence as Api['EvidenceItem'] | undefined;
    if (saved) view.evidence = view.evidence.map((e) => (e.id === saved.id ? saved : e));
  },
};

export const caption: WalkKind<'caption'> = {
  label: 'A caption',
  subject,
  request: (command) => ({ method: 'PATCH', path: path(command.id), body: { caption: command.caption } }),
  apply: (view, command) => changeEvidence(view, command.id, { caption: command.caption }),
};

export const move: WalkKind<'move'> = {
  label: 'A move',
  subject,
  request: ({ id, round, step }) => ({ method: 'POST', path: `${path(id)}/moves`, body: { round, step } }),
  apply: (view, { id, round, step }) => changeEvidence(view, id, { round, step }),
};

/** Only the server knows where a new picture lies. */
function renewed(id: string): { url: string; thumbnail_url: string; marked_url: string } {
  const stamp = `?v=${Date.now()}`;
  return {
    url: `${path(id)}/file${stamp}`,
    thumbnail_url: `${path(id)}/thumbnail${stamp}`,
    marked_url: `${path(id)}/marked${stamp}`,
  };
}

export const markup: WalkKind<'markup'> = {
  label: 'A drawing',
  subject,
  request: (command) => ({
    method: 'POST',
    path: `${path(command.id)}/markups`,
    body: { markup: JSON.stringify(command.markup) },
    form: { file: command.file, name: 'marked.png' },
  }),
  apply(view, command) {
    const drawn = command.markup.shapes.length > 0 || command.markup.crop;
    changeEvidence(view, command.id, {
      markup: drawn ? { ...command.markup } : null,
      ...(command.file ? { drawn: command.file } : {}),
    });
    view.waiting.add(command.id);
  },
  settle(view, { id }) {
    const now = view.evidence.find((e) => e.id === id);
    const at = renewed(id);
    changeEvidence(view, id, { ...at, marked_url: now?.markup === null ? null : at.marked_url });
  },
};

export const redact: WalkKind<'redact'> = {
  label: 'A hidden part',
  subject,
  request: (command) => ({
    method: 'POST',
    path: `${path(command.id)}/redactions`,
    body: {},
    form: { file: command.file, name: 'redacted.png' },
  }),
  apply(view, command) {
    changeEvidence(view, command.id, { local: command.file, markup: null, marked_url: null });
    view.waiting.add(command.id);
  },
  settle: (view, { id }) => changeEvidence(view, id, { ...renewed(id), marked_url: null }),
};

export const remove: WalkKind<'remove'> = {
  label: 'A removal',
  subject,
  request: (command) => ({ method: 'DELETE', path: path(command.id), body: {} }),
  apply(view, command) {
    view.evidence = view.evidence.filter((e) => e.id !== command.id);
  },
};
