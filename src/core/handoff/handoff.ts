import { InputError } from '../extract/problem';
import { digLog, type Entry } from '../log/entries';
import { entryText } from '../log/entry-text';
import { foldLog, inForce, namesIn } from '../log/fold';
import type { Inspector } from '../inspect/inspect';
import { codebookHtml } from './codebook-html';
import { ddiFile } from './forms/ddi';
import { csvwFile } from './forms/csvw';
import { delimitedFile } from './forms/delimited';
import { bytesOf, textFile, type FileOut } from './forms/file';
import { jsonFile } from './forms/json';
import { parquetFile } from './forms/parquet';
import { scriptFiles } from './forms/scripts';
import { dataPackageFile, json } from './forms/table-schema';
import { workbookFile } from './forms/workbook';
import { writesRows, type HandoffForm } from './handoff-forms';
import { leavingOf, type Leaving, type LeavingAsk } from './leaving';
import type { Manifest } from './manifest';
import { reportHtml } from './report';

/** Everything that goes out, each file once however many forms ask for it. */
export interface Handoff {
  leaving: Leaving;
  files: FileOut[];
  /** @param written all files with their sizes and sums */
  manifest(written: Manifest['files']): Manifest;
}

/** @throws InputError where nothing would go out, rows would that are not held, or two variables under one name */
export function handoffOf(
  inspector: Inspector,
  log: readonly Entry[],
  ask: LeavingAsk,
  forms: readonly HandoffForm[],
  madeAt: Date,
): Handoff {
  const { name: source, rows, pass } = inspector.extract;
  if (pass && forms.some(writesRows))
    throw new InputError({
      file: source,
      says: `only a sample of ${rows} of its ${pass.rows} rows is held, so its data cannot be handed off from here; take the report or the codebook, or read it with all rows held, or use the command line`,
    });
  const leaving = leavingOf(inspector, ask);
  const files = new Map<string, FileOut>();
  const add = (...made: FileOut[]): void => {
    for (const one of made) if (!files.has(one.name)) files.set(one.name, one);
  };
  const { name } = leaving;
  const names = namesIn(foldLog(log));
  for (const form of forms)
    switch (form) {
      case 'delimited':
        add(delimitedFile(leaving));
        break;
      case 'data-package':
        add(delimitedFile(leaving), dataPackageFile(leaving));
        break;
      case 'csvw':
        add(delimitedFile(leaving), csvwFile(leaving));
        break;
      case 'ddi':
        add(delimitedFile(leaving), ddiFile(leaving));
        break;
      case 'workbook':
        add(
          workbookFile(
            leaving,
            inForce(log).map((entry) => ({
              at: entry.at,
              says: entryText(entry, names),
              why: entry.why ?? '',
            })),
          ),
        );
        break;
      case 'parquet':
        add(parquetFile(leaving));
        break;
      case 'json':
        add(jsonFile(leaving));
        break;
      case 'scripts':
        add(delimitedFile(leaving), ...scriptFiles(leaving));
        break;
      case 'report':
        add({
          name: `${name}-report.html`,
          async *pieces() {
            const going = leaving.variables.map(({ inspected }) => inspected.name);
            yield bytesOf(await reportHtml(inspector, log, going, madeAt));
          },
        });
        break;
      case 'codebook':
        add({
          name: `${name}-codebook.html`,
          async *pieces() {
            for await (const part of codebookHtml(inspector, log, leaving, madeAt)) yield bytesOf(part);
          },
        });
        break;
    }
  const saved = digLog(inspector.received, log);
  add(textFile(`${name}-dig-log.json`, () => json(saved)));
  return {
    leaving,
    files: [...files.values()],
    manifest: (written) => ({
      format: 'dig-first-manifest',
      version: 1,
      files: written,
      rows: inspector.rowCounts,
      sieve: inspector.account,
      variables: leaving.variables.map((one) => one.name),
      wentAlong: leaving.wentAlong,
      leftOut: leaving.leftOut,
    }),
  };
}
