/** Saves text as a file, through the browser's own download. */
export function download(name: string, type: string, text: string | Blob): void {
  saveBlob(name, new Blob([text], { type: `${type};charset=utf-8` }));
}

export function saveBlob(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
