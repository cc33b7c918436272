import { createHash } from 'node:crypto';
import {
  closeSync,
  existsSync,
  openSync,
  realpathSync,
  renameSync,
  rmSync,
  statSync,
  writeSync,
} from 'node:fs';
import { join } from 'node:path';
import { InputError } from '../core/extract/problem';
import { handoffOf } from '../core/handoff/handoff';
import { HANDOFF_FORMS, writesRows, type HandoffForm } from '../core/handoff/handoff-forms';
import type { Manifest } from '../core/handoff/manifest';
import type { FileOut } from '../core/handoff/forms/file';
import { filesIn, give, makeFolder, say, write } from './files';
import { namedIn } from './named';
import { openedWithLog, type OpenOptions } from './open';

interface HandoffOptions extends Omit<OpenOptions, 'form' | 'missing'> {
  to: string;
  form: string[];
  variables?: string[];
  cells: 'codes' | 'labels';
  missing: 'keep' | 'blank';
  harmless?: true;
  alone?: true;
  replace?: true;
}

/** `dig handoff` */
export async function handoff(paths: string[], options: HandoffOptions): Promise<void> {
  const { to, variables, cells, missing, harmless = false, alone = false, replace = false } = options;
  const forms = formsIn(options.form);
  const { inspector, log } = await openedWithLog(paths, {
    ...options,
    form: undefined,
    missing: [],
    // What is written has to be fetched.
    allRows: forms.some(writesRows),
  });
  const named = namedIn(inspector);
  const made = handoffOf(
    inspector,
    log,
    {
      variables: variables ? variables.map((name) => named.one(name, '--variables')) : null,
      cells,
      missing,
      harmless,
      alone,
    },
    forms,
    new Date(),
  );
  const { wentAlong } = made.leaving;
  if (wentAlong.length)
    say(`went along without being named: ${wentAlong.join(', ')} (--alone leaves them behind)`);
  makeFolder(to);
  const names = [...made.files.map(({ name }) => name), 'manifest.json'];
  const there = names.filter((name) => existsSync(join(to, name)));
  if (there.length && !replace)
    throw new InputError({
      file: join(to, there[0]),
      says: `is there already${there.length > 1 ? `, and ${there.length - 1} more` : ''}; name another folder, or write over them with --replace`,
    });
  const inputs = [
    paths.flatMap(filesIn),
    options.codebook,
    options.rulings,
    options.standingRules,
    options.sieve,
    options.recodes,
  ];
  keepInputs(inputs.flat(), names, to);
  const written = await writeAll(to, made.files);
  const manifest = made.manifest(written);
  write(join(to, 'manifest.json'), `${JSON.stringify(manifest, null, 1)}\n`);
  give(manifest, options.out);
}

/** @throws InputError where what goes out would be written over what it is made of */
function keepInputs(inputs: readonly (string | undefined)[], names: readonly string[], to: string): void {
  const read = new Map(
    inputs.flatMap((path) =>
      path !== undefined && existsSync(path) ? [[realpathSync(path), path] as const] : [],
    ),
  );
  for (const name of names) {
    const place = join(to, name);
    const input = existsSync(place) ? read.get(realpathSync(place)) : undefined;
    if (input !== undefined)
      throw new InputError({
        file: input,
        says: 'is what is read here, and the handoff would be written over it; name another folder with --to',
      });
  }
}

function formsIn(asked: readonly string[]): HandoffForm[] {
  const forms = asked
    .flatMap((one) => one.split(','))
    .map((one) => one.trim())
    .filter(Boolean);
  const strange = forms.find((form) => !(HANDOFF_FORMS as readonly string[]).includes(form));
  if (strange !== undefined || forms.length === 0)
    throw new InputError({
      file: '--form',
      says: `${strange === undefined ? 'no form is named' : `“${strange}” is no form that is known here`}; there are ${HANDOFF_FORMS.join(', ')}`,
    });
  return forms as HandoffForm[];
}

/** All files or none: each is made beside its place, and all are put into it once the last is done. */
async function writeAll(folder: string, files: readonly FileOut[]): Promise<Manifest['files']> {
  const written: Manifest['files'] = [];
  const beside = (name: string): string => join(folder, `.${name}.${process.pid}.part`);
  try {
    for (const file of files) written.push(await writeOne(beside(file.name), file, join(folder, file.name)));
    // What is no file cannot be written over: found before the first is put into its place.
    for (const { name } of files) {
      const place = join(folder, name);
      if (existsSync(place) && !statSync(place).isFile())
        throw new InputError({ file: place, says: 'is there and is no file; name another folder' });
    }
    for (const { name } of files) renameSync(beside(name), join(folder, name));
    return written;
  } catch (cause) {
    for (const { name } of files) rmSync(beside(name), { force: true });
    throw cause;
  }
}

async function writeOne(path: string, file: FileOut, meant: string): Promise<Manifest['files'][number]> {
  const hash = createHash('sha256');
  let bytes = 0;
  const refused = (cause: unknown): InputError =>
    new InputError({
      file: meant,
      says: `cannot be written (${(cause as NodeJS.ErrnoException).code ?? (cause as Error).message}); nothing was changed there`,
    });
  let opened: number;
  try {
    opened = openSync(path, 'w');
  } catch (cause) {
    throw refused(cause);
  }
  try {
    for await (const piece of file.pieces()) {
      hash.update(piece);
      try {
        for (let at = 0; at < piece.length;) at += writeSync(opened, piece, at);
      } catch (cause) {
        throw refused(cause);
      }
      bytes += piece.length;
    }
  } finally {
    closeSync(opened);
  }
  return { name: file.name, bytes, sha256: hash.digest('hex') };
}
