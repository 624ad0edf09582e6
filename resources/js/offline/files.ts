import { Problem } from '@/api/client';

const MB = 1024 * 1024;
/** What the server takes at most; it looks again. */
export const LIMITS = { file: 25 * MB, recording: 100 * MB, side: 16_384, pixels: 60_000_000 };

const refuse = (words: string): never => {
  throw new Problem(422, 'file', words, { file: [words] });
};

/** Width and height as the head of a PNG, JPEG or WebP says; null for anything else. */
export function sizeInHead(bytes: DataView): { width: number; height: number } | null {
  const four = (at: number): string =>
    at + 4 <= bytes.byteLength
      ? String.fromCharCode(
          bytes.getUint8(at),
          bytes.getUint8(at + 1),
          bytes.getUint8(at + 2),
          bytes.getUint8(at + 3),
        )
      : '';
  if (bytes.byteLength >= 24 && bytes.getUint32(0) === 0x89504e47)
    return { width: bytes.getUint32(16), height: bytes.getUint32(20) };
  if (bytes.byteLength >= 30 && four(0) === 'RIFF' && four(8) === 'WEBP') {
    if (four(12) === 'VP8X')
      return {
        width: 1 + bytes.getUint16(24, true) + (bytes.getUint8(26) << 16),
        height: 1 + bytes.getUint16(27, true) + (bytes.getUint8(29) << 16),
      };
    return null;
  }
  if (bytes.byteLength >= 4 && bytes.getUint16(0) === 0xffd8) {
    let at = 2;
    while (at + 9 < bytes.byteLength && bytes.getUint8(at) === 0xff) {
      const marker = bytes.getUint8(at + 1);
      const frame = marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker);
      if (frame) return { height: bytes.getUint16(at + 5), width: bytes.getUint16(at + 7) };
      at += 2 + bytes.getUint16(at + 2);
    }
  }
  return null;
}

/**
 * Looks a file over before it is kept on the device: size, and the pixels that its head promises.
 * Throws a Problem that says what is wrong and what to do.
 */
export async function checkFile(file: Blob, name: string): Promise<void> {
  const video = file.type.startsWith('video/');
  const most = video ? LIMITS.recording : LIMITS.file;
  if (file.size === 0) refuse(`${name} is empty.`);
  if (file.size > most)
    refuse(
      `${name} has ${(file.size / MB).toFixed(1)} MB; at most ${most / MB} MB are taken. ` +
        (video ? 'Record a shorter part.' : 'Cut it, or put a link to it instead.'),
    );
  const size = sizeInHead(new DataView(await file.slice(0, 65_536).arrayBuffer()));
  if (size === null) return;
  if (Math.max(size.width, size.height) > LIMITS.side)
    refuse(
      `${name} has ${size.width} × ${size.height} pixels; no side may have more than ${LIMITS.side}. Capture a part of it.`,
    );
  if (size.width * size.height > LIMITS.pixels)
    refuse(
      `${name} has ${size.width} × ${size.height} pixels; at most ${LIMITS.pixels / 1_000_000} megapixels are taken.`,
    );
}
