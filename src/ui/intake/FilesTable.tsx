'use client';

import Form from 'react-bootstrap/Form';
import { problemText } from '../../core/extract/problem';
import { counted, whole } from '../../core/handoff/words';
import { compareNames } from '../../core/intake/differences';
import { waveOf } from '../../core/intake/waves';
import type { Found } from '../../engine/protocol';
import { bytesText } from './bytes';
import { codebookText, readAs } from './readAs';
import type { FoundData, WaitingFiles } from './useWaiting';

/** A line for every file, member of an archive, or sheet: what it is, what differs, whether it is read. */
export function FilesTable({
  files,
  found,
  at,
  show,
}: {
  files: WaitingFiles;
  found: Found[];
  at: string | null;
  show: (key: string) => void;
}) {
  const { left } = files.plan;
  const data = found.filter((one): one is FoundData => one.what === 'data');
  const read = data.filter(({ key }) => !left.includes(key));
  const many = data.length > 1;
  return (
    <table className="grounds filestable" aria-label="What came">
      <thead>
        <tr>
          <th scope="col">File</th>
          <th scope="col">What it is</th>
          <th scope="col" className="n">
            Columns
          </th>
          <th scope="col" className="n">
            Rows
          </th>
          {many && (
            <>
              <th scope="col">Wave</th>
              <th scope="col">Against {read[0]?.name ?? 'the first'}</th>
            </>
          )}
          <th scope="col">
            <span className="visually-hidden">What to do</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {found.map((one) => (
          <FileRow
            key={one.key}
            one={one}
            files={files}
            data={data}
            first={read[0]}
            at={one.key === at}
            show={show}
          />
        ))}
      </tbody>
    </table>
  );
}

interface RowProps {
  files: WaitingFiles;
  data: readonly FoundData[];
  /** The first file that is read, against which the others are held. */
  first: FoundData | undefined;
}

/** One file, or a member of an archive: what it is, and what to do with it. */
function FileRow({
  one,
  at,
  show,
  ...rest
}: RowProps & { one: Found; at: boolean; show: (key: string) => void }) {
  const { files, data, first } = rest;
  const many = data.length > 1;
  const out = files.plan.left.includes(one.key);
  const file = (
    <>
      {one.what === 'data' && many ? (
        <button
          type="button"
          className="btn-bare code"
          aria-pressed={at}
          onClick={() => show(one.key)}
          title={`Show how ${one.name} is read`}
        >
          {one.name}
        </button>
      ) : (
        <span className="code">{one.name}</span>
      )}
      <span className="soft">
        {' '}
        {bytesText(one.bytes)}
        {one.archive && `, from ${one.archive}`}
      </span>
    </>
  );
  const span = many ? 5 : 3;
  const doing =
    one.what === 'problem' || one.what === 'passed' ? (
      files.plan.handed.some(({ key }) => key === one.key) && (
        <button
          type="button"
          className="btn-bare"
          onClick={() => files.putAway(one.key)}
          aria-label={`Put away ${one.name}`}
        >
          Put away
        </button>
      )
    ) : (
      <button
        type="button"
        className="btn-bare"
        onClick={() => files.toggle(one.key)}
        aria-label={out ? `Take in ${one.name}` : `Leave out ${one.name}`}
      >
        {out ? 'Take in' : 'Leave out'}
      </button>
    );
  return (
    <tr className={`${out ? 'out' : ''}${at && many ? ' at' : ''}`}>
      <td>{file}</td>
      {one.what === 'problem' && (
        <td colSpan={span}>
          <div className="notice mb-0" role="alert">
            <div>{problemText(one.problem)}</div>
          </div>
        </td>
      )}
      {one.what === 'passed' && (
        <td colSpan={span} className="soft">
          Passed over: {one.says}
        </td>
      )}
      {one.what === 'log' && (
        <td colSpan={span}>
          Dig log of {one.extract}: {counted(one.rulings, 'ruling')}.{' '}
          {one.returned
            ? 'It comes with the data that were handed off under it, and is laid over them.'
            : 'Once the data are read, what of it fits is shown.'}
        </td>
      )}
      {one.what === 'codebook' && (
        <td colSpan={span}>
          {codebookText(one)}. It describes {counted(one.variables, 'variable')}.
        </td>
      )}
      {one.what === 'data' && <DataCells one={one} files={files} data={data} first={first} out={out} />}
      <td>{doing}</td>
    </tr>
  );
}

/** How a data file is read, its size, and how it stands among the others. */
function DataCells({ one, files, data, first, out }: RowProps & { one: FoundData; out: boolean }) {
  const many = data.length > 1;
  return (
    <>
      <td>
        {readAs({ ...one.look.reading })}
        {one.look.packed && ', gzip'}
        {one.layoutFrom && `, places from ${one.layoutFrom}`}
      </td>
      <td className="n">{whole(one.look.names.length)}</td>
      <td className="n">
        {one.look.all !== null ? (
          whole(one.look.all)
        ) : (
          <span className="soft">
            {one.look.about === null
              ? 'not yet counted'
              : `about ${whole(Number(one.look.about.toPrecision(2)))}`}
          </span>
        )}
      </td>
      {many && (
        <>
          <td>
            <Form.Control
              size="sm"
              className="wavename"
              disabled={out}
              aria-label={`Wave of ${one.name}`}
              value={files.plan.waves[one.key] ?? ''}
              placeholder={waveOf(
                one.name,
                data.map(({ name }) => name),
              )}
              onChange={(event) =>
                files.change({ waves: { ...files.plan.waves, [one.key]: event.target.value } })
              }
            />
          </td>
          <td>{out ? <span className="soft">left out</span> : <Differs one={one} first={first} />}</td>
        </>
      )}
    </>
  );
}

/** In what a file's columns differ from the first one's. */
function Differs({ one, first }: { one: FoundData; first: FoundData | undefined }) {
  if (!first || one === first) return <span className="soft">the first</span>;
  const { missing, extra, reordered } = compareNames(first.look.names, one.look.names);
  const types = new Map(first.look.names.map((name, i) => [name, first.cells.columns[i]]));
  const kindOf = (words: string | undefined): string =>
    words?.startsWith('decimals') ? 'whole numbers' : (words ?? '');
  const retyped = one.look.names.filter((name, i) => {
    const before = types.get(name);
    const now = one.cells.columns[i];
    return (
      before !== undefined && before !== 'nothing' && now !== 'nothing' && kindOf(before) !== kindOf(now)
    );
  });
  if (missing.length === one.look.names.length || one.look.names.every((name) => extra.includes(name)))
    return <strong className="differs">no column in common: is it of this extract?</strong>;
  const parts = [
    missing.length > 0 && (
      <>
        lacks <Names names={missing} />
      </>
    ),
    extra.length > 0 && (
      <>
        has also <Names names={extra} />
      </>
    ),
    reordered && <>columns in another order, matched by name</>,
    retyped.length > 0 && (
      <>
        writes <Names names={retyped} /> otherwise in its first rows
      </>
    ),
  ].filter((part) => part !== false);
  if (parts.length === 0) return <span>the same columns</span>;
  return (
    <span className="differs">
      {parts.map((part, i) => (
        <span key={i}>
          {i > 0 && '; '}
          {part}
        </span>
      ))}
    </span>
  );
}

const NAMED = 3;
function Names({ names }: { names: readonly string[] }) {
  return (
    <span title={names.join(', ')}>
      <span className="code">{names.slice(0, NAMED).join(', ')}</span>
      {names.length > NAMED && ` and ${whole(names.length - NAMED)} more`}
    </span>
  );
}
