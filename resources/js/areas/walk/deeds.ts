import type { Api } from '@/api/client';

export type StepVerdict = Api['StepRecord']['verdict'];
export type FinalVerdict = 'pass' | 'fail' | 'blocked' | 'not_applicable';

/** Where a piece of evidence came from. */
export type Source =
  'paste' | 'drop' | 'file' | 'capture' | 'camera' | 'recording' | 'log' | 'link' | 'filmstrip' | 'handset';

/** Something drawn on a picture, in its pixels. */
export interface Shape {
  kind: 'arrow' | 'box' | 'highlight' | 'pin' | 'text';
  x: number;
  y: number;
  /** The other end of an arrow, or the size of a box or highlight. */
  width?: number;
  height?: number;
  number?: number;
  text?: string;
}
export interface Markup {
  shapes: Shape[];
  width: number;
  height: number;
  crop?: { x: number; y: number; width: number; height: number };
}

/** What a person did in a walk, as it waits on the device. */
export type Deed =
  /** Begun on the device, while the server was away. */
  | { kind: 'start'; entry: string; version: string }
  | {
      kind: 'verdict';
      round: number;
      step: number;
      verdict: StepVerdict;
      happened?: string;
      reason?: string;
      waits_on?: string;
      active_ms: number;
    }
  /** Without a step: of the whole attempt. */
  | { kind: 'note'; round: number | null; step: number | null; note: string }
  | { kind: 'try'; round: number; step: number; failed: boolean }
  | { kind: 'round'; round: number; act: 'skip' | 'take_up' | 'repeat'; reason: string }
  | { kind: 'away'; away_ms: number; counted_ms: number }
  | {
      kind: 'surroundings';
      build: Api['Named'] | null;
      configuration: Api['Named'] | null;
      environment: string;
    }
  | {
      kind: 'evidence';
      id: string;
      round: number | null;
      step: number | null;
      name: string;
      source: Source;
      /** None for a link. */
      file: Blob | null;
      link?: string;
    }
  | { kind: 'caption'; id: string; caption: string }
  | { kind: 'move'; id: string; round: number | null; step: number | null }
  | { kind: 'markup'; id: string; markup: Markup; file: Blob | null }
  | { kind: 'redact'; id: string; file: Blob }
  | { kind: 'remove'; id: string }
  | {
      kind: 'defect';
      id: string;
      project: string;
      round: number | null;
      step: number | null;
      title: string;
      body: string;
      expected: string;
      actual: string;
      severity: Api['DefectLine']['severity'];
    }
  | { kind: 'link'; defect: string; key: string; title: string; round: number | null; step: number | null }
  | {
      kind: 'message';
      case: string;
      what: 'question' | 'suggestion';
      step: number | null;
      body: string;
      proposal: { action: string; data: string; expected: string } | null;
    }
  /** One outage on many entries at once. */
  | { kind: 'outage'; cycle: string; ids: string[]; note: string; reason: string; waits_on: string }
  | { kind: 'stops'; entry: string }
  | {
      kind: 'finish';
      verdict: FinalVerdict | null;
      note: string;
      active_ms: number;
      time: string | null;
    };

export interface Act {
  /** The device's own counter. */
  counter: number;
  /** The Idempotency-Key, a UUIDv7. */
  key: string;
  attempt: string;
  /** The entry that the attempt walks, where the walk knows it. */
  entry?: string;
  /** Whose act it is. */
  user: string;
  deed: Deed;
  at: string;
  /** Set when the server refused it: what it said. It is kept, and not sent again by itself. */
  refused?: string;
  /** Set while it must not leave the device: a picture that is to be looked over first. */
  held?: boolean;
}

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
