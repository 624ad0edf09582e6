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
