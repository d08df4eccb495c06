/** How a file's bytes were understood as text. */
export interface DecodedText {
  readonly text: string;
  readonly encoding: 'UTF-8' | 'UTF-16' | 'Windows-1252';
  readonly hadMark: boolean;
}

/**
 * Decodes what people really have: a byte-order mark decides; else two-byte text shows by its zero bytes; else valid
 * UTF-8 is that; else Windows-1252, which never fails.
 */
export function decodeText(bytes: Uint8Array): DecodedText {
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf)
    return decoded(bytes.subarray(3), 'utf-8', true);
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return decoded(bytes.subarray(2), 'utf-16le', true);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return decoded(bytes.subarray(2), 'utf-16be', true);
  const zeros = zeroPlaces(bytes.subarray(0, 1000));
  if (zeros) return decoded(bytes, zeros, false);
  try {
    return {
      text: new TextDecoder('utf-8', { fatal: true }).decode(bytes),
      encoding: 'UTF-8',
      hadMark: false
    };
  } catch {
    return decoded(bytes, 'windows-1252', false);
  }
}

function decoded(bytes: Uint8Array, label: string, hadMark: boolean): DecodedText {
  const encoding = label.startsWith('utf-16') ? 'UTF-16' : label === 'utf-8' ? 'UTF-8' : 'Windows-1252';
  return { text: new TextDecoder(label).decode(bytes), encoding, hadMark };
}

/** Mostly-Latin two-byte text has a zero in nearly every second byte. */
function zeroPlaces(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | undefined {
  const half = Math.floor(bytes.length / 2);
  if (half < 4) return undefined;
  let even = 0;
  let odd = 0;
  for (let i = 0; i + 1 < bytes.length; i += 2) {
    if (bytes[i] === 0) even++;
    if (bytes[i + 1] === 0) odd++;
  }
  if (odd > half * 0.7 && even < half * 0.1) return 'utf-16le';
  return even > half * 0.7 && odd < half * 0.1 ? 'utf-16be' : undefined;
}
