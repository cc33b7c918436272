import { steady, type ByteSource } from '../core/read/source';

/** A file of the browser as the core's readers see it. */
export function fileSource(file: File): ByteSource {
  const source: ByteSource = {
    name: file.name,
    bytes: file.size,
    slice: async (from, to) => new Uint8Array(await file.slice(from, to).arrayBuffer()),
    open: async function* () {
      const reader = file.stream().getReader();
      try {
        for (let next = await reader.read(); !next.done; next = await reader.read()) yield next.value;
      } finally {
        await reader.cancel().catch(() => undefined);
      }
    },
  };
  // A browser opens the file anew for each part, and refuses where it is not the one that was chosen.
  return steady(source, () =>
    file
      .slice(0, 1)
      .arrayBuffer()
      .then(
        () => true,
        () => false,
      ),
  );
}
