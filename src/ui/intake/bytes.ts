/** A size in bytes for people: "1.4 MB". */
export function bytesText(bytes: number): string {
  if (bytes < 1000) return `${bytes} bytes`;
  const power = Math.min(3, Math.floor(Math.log10(bytes) / 3));
  return `${(bytes / 1000 ** power).toFixed(1)} ${['', 'kB', 'MB', 'GB'][power]}`;
}
