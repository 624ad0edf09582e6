import type { Api } from '@/api/client';

/** What somebody writes into a timeline. */
export type WrittenKind = 'note' | 'question' | 'idea' | 'risk' | 'issue';
export type Focus = 'charter' | 'opportunity';
export type Work = 'testing' | 'investigating' | 'setting_up';
export type Share = Focus | Work;

/** A line as it is shown, also before the server has it. */
export type ShownLine = Api['TimelineLine'] & {
  /** It waits to be sent. */
  waiting?: boolean;
  /** What the server said when it refused it. */
  refused?: string;
  /** A picture that is only on the device yet. */
  local?: Blob;
  /** It stays on the device until it was looked over. */
  held?: boolean;
};

/** What was observed of the application under test, not written by a person. */
export const isObserved = (line: Pick<ShownLine, 'kind'>): boolean =>
  ['visit', 'press', 'type', 'choose', 'tick', 'submit', 'trouble'].includes(line.kind);

/** The letter that writes each kind, and its word. */
export const KINDS: { kind: WrittenKind; word: string; letter: string }[] = [
  { kind: 'note', word: 'Note', letter: 'N' },
  { kind: 'question', word: 'Question', letter: 'Q' },
  { kind: 'idea', word: 'Idea', letter: 'I' },
  { kind: 'risk', word: 'Risk', letter: 'R' },
  { kind: 'issue', word: 'Issue', letter: '!' },
];
export const FOCUS: { value: Focus; word: string }[] = [
  { value: 'charter', word: 'On charter' },
  { value: 'opportunity', word: 'Off it' },
];
export const WORK: { value: Work; word: string }[] = [
  { value: 'testing', word: 'Testing' },
  { value: 'investigating', word: 'Investigating' },
  { value: 'setting_up', word: 'Setting up' },
];
