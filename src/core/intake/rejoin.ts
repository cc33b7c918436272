import { ColumnBuilder } from '../extract/column';
import type { Extract, FileSource, Variable } from '../extract/extract';
import { differencesOf } from './differences';
import { metNotices, namesMet } from './meet';
import { fileStarts } from '../extract/files';
import { nameWaves } from './waves';
import { extractName } from './receive';

/** One file's rows within an extract that was read before. */
interface Segment {
  extract: Extract;
  file: FileSource;
  /** What its columns are called there, by what they are called here. */
  calledThere: ReadonlyMap<string, string>;
  from: number;
  to: number;
}

const sameNames = ({ names }: FileSource): Map<string, string> => new Map(names.map((name) => [name, name]));

const segmentsOf = (extract: Extract): Segment[] => {
  const starts = fileStarts(extract.files);
  return extract.files.map((file, i) => ({
    extract,
    file,
    calledThere: sameNames(file),
    from: starts[i],
    to: starts[i + 1],
  }));
};

/** Another extract whose files follow those of the first, matched by name. Codebooks are to be linked anew. */
export function withFiles(extract: Extract, more: Extract): Extract {
  const known = new Set(extract.files.flatMap(({ names }) => names));
  const met = segmentsOf(more).map((segment): Segment => {
    const { file } = segment;
    const names = namesMet(file.names, known);
    for (const name of names) known.add(name);
    return {
      ...segment,
      file: { ...file, names, notices: [...metNotices(file.names, names), ...file.notices] },
      calledThere: new Map(names.map((name, i) => [name, file.names[i]])),
    };
  });
  return rejoin(extract, [...segmentsOf(extract), ...met]);
}

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
    for (const { extract, calledThere, from, to } of segments) {
      const there = calledThere.get(name);
      const found = extract.variables.find((variable) => variable.name === there);
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
