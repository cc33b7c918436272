import { ColumnBuilder } from '../extract/column';
import type { Extract, FileSource, Variable } from '../extract/extract';
import { differencesOf } from './differences';
import { fileStarts, nameWaves } from './waves';
import { extractName } from './receive';

/** One file's rows within an extract that was read before. */
interface Segment {
  extract: Extract;
  file: FileSource;
  from: number;
  to: number;
}

const segmentsOf = (extract: Extract): Segment[] => {
  const starts = fileStarts(extract.files);
  return extract.files.map((file, i) => ({ extract, file, from: starts[i], to: starts[i + 1] }));
};

/** Another extract whose files follow those of the first, matched by name. Codebooks are to be linked anew. */
export const withFiles = (extract: Extract, more: Extract): Extract =>
  rejoin(extract, [...segmentsOf(extract), ...segmentsOf(more)]);

/** The extract without the file at a zero-based place. Variables that only this file had go with it. */
export const withoutFile = (extract: Extract, index: number): Extract =>
  rejoin(
    extract,
    segmentsOf(extract).filter((_, i) => i !== index),
  );

/** The files called otherwise among the waves. @param waves a name for each file */
export const withWaves = (extract: Extract, waves: readonly string[]): Extract =>
  rejoin(
    extract,
    segmentsOf({ ...extract, files: extract.files.map((file, i) => ({ ...file, wave: waves[i] })) }),
  );

function rejoin(base: Extract, segments: readonly Segment[]): Extract {
  const files = segments.map(({ file }) => file);
  const made = base.wave?.by === 'made' ? base.wave.variable : null;
  const names = [...new Set(files.flatMap((file) => file.names))].filter(
    (name) => name !== made && (!base.part?.names || base.part.names.includes(name)),
  );
  const variables = names.map((name, i): Variable => {
    const builder = new ColumnBuilder();
    let declared: Variable['declared'];
    let known = false;
    for (const { extract, file, from, to } of segments) {
      const found = file.names.includes(name)
        ? extract.variables.find((variable) => variable.name === name)
        : undefined;
      if (!found) {
        builder.pushBlank(to - from);
        continue;
      }
      builder.pushColumn(found.column, from, to);
      declared = known && declared !== found.declared ? undefined : found.declared;
      known = true;
    }
    return {
      name,
      position: i + 1,
      column: builder.finish(),
      entry: null,
      ...(declared ? { declared } : {}),
    };
  });
  const joined: Extract = {
    // A name that a person gave stays.
    ...base,
    name:
      base.name === extractName(base.files.map(({ name }) => name))
        ? extractName(files.map(({ name }) => name))
        : base.name,
    files,
    codebooks: [],
    notices: differencesOf(files),
    linkNotices: [],
    rows: segments.reduce((sum, { from, to }) => sum + to - from, 0),
    variables,
  };
  delete joined.wave;
  return nameWaves(joined, made ? 'file-name' : 'found');
}
