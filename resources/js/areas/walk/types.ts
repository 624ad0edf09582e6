import type { Api } from '@/api/client';

export type StepVerdict = Api['StepRecord']['verdict'];
export type FinalVerdict = 'pass' | 'fail' | 'blocked' | 'not_applicable';

/** An attempt as the walk shows it: what the server knows and what waits here on top. */
export interface WalkView extends Omit<Api['AttemptDetail'], 'evidence'> {
  evidence: WalkEvidence[];
  /** Ids of evidence, and "round.step" of verdicts, that are not yet saved. */
  waiting: Set<string>;
}
/** A piece of evidence, with the picture itself until it is saved. */
export type WalkEvidence = Api['EvidenceItem'] & {
  local?: Blob;
  /** The picture with what was drawn on it, until that is saved. */
  drawn?: Blob;
  refused?: string;
  held?: boolean;
};
