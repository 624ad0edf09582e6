import { reactive } from 'vue';

/** Something that was done, and how it can be taken back. */
export interface Notice {
  id: number;
  text: string;
  /** Takes it back; what it returns is said next. */
  undo?: () => Promise<string | void>;
}

export const notices = reactive<Notice[]>([]);
let next = 1;
const SHOWN_MS = 12_000;

/** Says politely what was done; with a way back it stays long enough to take it. */
export function toast(text: string, undo?: Notice['undo']): void {
  const notice: Notice = undo ? { id: next++, text, undo } : { id: next++, text };
  notices.splice(0, notices.length, notice);
  setTimeout(() => dismiss(notice.id), undo ? SHOWN_MS : SHOWN_MS / 2);
}

export function dismiss(id: number): void {
  const at = notices.findIndex((n) => n.id === id);
  if (at >= 0) notices.splice(at, 1);
}
