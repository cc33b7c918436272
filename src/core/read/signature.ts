/** Files that are surely no text, by their first bytes. Each signature is the one its format's own specification gives. */
const SIGNATURES: readonly (readonly [string, string])[] = [
  ['89504e470d0a1a0a', 'a PNG picture'],
  ['ffd8ff', 'a JPEG picture'],
  ['47494638', 'a GIF picture'],
  ['25504446', 'a PDF document'],
  ['504b0304', 'a zip archive inside another file'],
  ['504b0506', 'an empty zip archive'],
  ['50415231', 'a Parquet file'],
  [
    'd0cf11e0a1b11ae1',
    'an office document of the old binary form; save it as a workbook (.xlsx) or as delimited text',
  ],
  ['53514c69746520666f726d6174', 'an SQLite database'],
  ['7f454c46', 'a program'],
  ['fd377a585a00', 'an xz archive'],
  ['425a68', 'a bzip2 archive'],
  ['28b52ffd', 'a Zstandard archive'],
  ['377abcaf271c', 'a 7z archive'],
  ['52494646', 'a sound, film or picture file'],
];

/** What the bytes are, if not text; `null` if they may well be text. */
export function notText(bytes: Uint8Array): string | null {
  const hex = Array.from(bytes.subarray(0, 16), (byte) => byte.toString(16).padStart(2, '0')).join('');
  const known = SIGNATURES.find(([start]) => hex.startsWith(start));
  if (known) return known[1];
  if (looksUtf16(bytes)) return null;
  // Control characters other than tab, line ends and form feed do not occur in text of any supported encoding.
  let control = 0;
  for (const byte of bytes)
    if (byte < 32 && byte !== 9 && byte !== 10 && byte !== 13 && byte !== 12) control++;
  return control > Math.max(2, bytes.length * 0.02) ? 'a binary file' : null;
}

/** UTF-16 by its byte order mark, or by zero bytes standing at every other place. */
export function looksUtf16(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | null {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  const pairs = Math.min(bytes.length, 4096) >> 1;
  if (pairs < 2) return null;
  const zeros = [0, 0];
  for (let i = 0; i < pairs * 2; i++) if (bytes[i] === 0) zeros[i & 1]++;
  if (zeros[1] > pairs * 0.7 && zeros[0] < pairs * 0.1) return 'utf-16le';
  if (zeros[0] > pairs * 0.7 && zeros[1] < pairs * 0.1) return 'utf-16be';
  return null;
}
