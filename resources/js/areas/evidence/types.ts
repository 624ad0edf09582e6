/** Where a piece of evidence came from. */
export type Source =
  'paste' | 'drop' | 'file' | 'capture' | 'camera' | 'recording' | 'log' | 'link' | 'filmstrip' | 'handset';

/** A step of a walk, in a round; null for the attempt as a whole, and in a session. */
export interface EvidencePlace {
  step: number | null;
  round?: number;
}

/** What evidence is brought to: an attempt with its steps, or a session with its timeline. */
export interface EvidenceTarget {
  id: string;
  /** Where it goes to, such as "the step". */
  word: string;
  /** Where it goes to unless somebody says otherwise. */
  here: () => EvidencePlace;
  /** Where else it can go to; none where there is one place only. */
  places: () => { word: string; place: EvidencePlace }[];
  /** What is tested, and where: a handset opens there. */
  tested: () => { configuration?: string; environment?: string; build?: string };
  /** @throws Problem when it cannot be kept */
  attach: (what: Blob | string, name: string, source: Source, place?: EvidencePlace) => Promise<unknown>;
}

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
