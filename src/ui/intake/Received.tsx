'use client';

import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { counted, whole } from '../../core/handoff/words';
import type { Opened, OpenedFile } from '../../engine/protocol';
import { callWaves, leaveOut } from '../../store/reading';
import { HoldLog } from '../handoff/ReplayDialog';
import { bytesText } from './bytes';
import { codebookText, readAs } from './readAs';

/** What arrived: every file with its rows, first and last row, how it was read, and what was noticed on the way. */
export function Received({ opened, pick }: { opened: Opened; pick: () => void }) {
  const { files, wave, tells } = opened;
  const many = files.length > 1;
  const notices = [
    ...opened.stands.map((says) => ({
      file: '',
      line: undefined,
      says: `a ruling that the handed-off data hold already: ${says}`,
    })),
    ...files.flatMap((file) => file.notices.map((notice) => ({ ...notice, file: file.name }))),
    ...opened.notices.map((notice) => ({ ...notice, file: '' })),
  ];
  return (
    <section aria-labelledby="received" className="received">
      <h2 id="received">
        {opened.name}: {counted(opened.rows, 'row')}, {counted(opened.summaries.length, 'variable')}
      </h2>
      <p className="doings mb-1">
        <HoldLog />
      </p>
      {many && (
        <p className="soft mb-1">
          {wave ? (
            <>
              The wave is told by <span className="code">{wave.variable}</span>
              {wave.by === 'made' && ', made of what the files are called'}.
            </>
          ) : (
            'No variable tells which file a row came from.'
          )}
        </p>
      )}
      <table className="grounds">
        <thead>
          <tr>
            <th scope="col">{opened.database ? 'Table' : 'File'}</th>
            {many && <th scope="col">Wave</th>}
            <th scope="col" className="n">
              Rows
            </th>
            <th scope="col" className="n">
              Columns
            </th>
            <th scope="col">
              {tells ? (
                <>
                  <span className="code">{tells}</span> in its first and last row
                </>
              ) : (
                'First and last row'
              )}
            </th>
            <th scope="col">Read as</th>
            {many && (
              <th scope="col">
                <span className="visually-hidden">What to do</span>
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {files.map((file, i) => (
            <FileRow key={`${i} ${file.name}`} file={file} index={i} opened={opened} />
          ))}
          {opened.codebooks.map((codebook) => (
            <tr key={codebook.name}>
              <td className="code">{codebook.name}</td>
              <td colSpan={many ? 6 : 4}>
                {codebookText(codebook)}; it describes {counted(codebook.variables, 'variable')}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Button variant="quiet" size="sm" className="mt-2" onClick={pick}>
        {opened.database ? 'Add a codebook…' : 'Add files or a codebook…'}
      </Button>
      {notices.length > 0 && (
        <>
          <h3>Noticed while reading</h3>
          <ul className="notices" tabIndex={0} aria-label="Noticed while reading">
            {notices.map(({ file, line, says }, i) => (
              <li key={i}>
                {file && <span className="code">{file}</span>}
                {line !== undefined && `, line ${whole(line)}`}
                {(file || line !== undefined) && ': '}
                {says}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

function FileRow({ file, index, opened }: { file: OpenedFile; index: number; opened: Opened }) {
  const { files } = opened;
  const many = files.length > 1;
  const [name, setName] = useState(file.wave ?? '');
  const [leaving, setLeaving] = useState(false);
  const saveWave = (): void => {
    const wanted = name.trim();
    if (wanted && wanted !== file.wave)
      void callWaves(files.map((other, i) => (i === index ? wanted : (other.wave ?? other.name))));
    else setName(file.wave ?? '');
  };
  return (
    <tr>
      <td>
        <span className="code">{file.name}</span>{' '}
        <span className="soft">
          {file.form === 'table' ? `in ${opened.database?.at ?? ''}` : bytesText(file.bytes)}
        </span>
      </td>
      {many && (
        <td>
          <Form
            onSubmit={(event) => {
              event.preventDefault();
              saveWave();
            }}
          >
            <Form.Control
              size="sm"
              className="wavename"
              aria-label={`Wave of ${file.name}`}
              value={name}
              onChange={(event) => setName(event.target.value)}
              onBlur={saveWave}
              onKeyDown={(event) => event.key === 'Escape' && setName(file.wave ?? '')}
            />
          </Form>
        </td>
      )}
      <td className="n">
        {whole(file.rows)}
        {file.partial && <span className="soft"> first</span>}
      </td>
      <td className="n">{whole(file.columns)}</td>
      <td className="code">
        {opened.pass ? (
          <span className="soft">not held</span>
        ) : file.rows ? (
          <>
            {file.first || '(blank)'} … {file.last || '(blank)'}
          </>
        ) : (
          ''
        )}
      </td>
      <td>{readAs(file)}</td>
      {many && (
        <td>
          {leaving ? (
            <span className="d-inline-flex gap-2 align-items-center flex-wrap">
              Take its {counted(file.rows, 'row')} out?{' '}
              <Button size="sm" autoFocus onClick={() => void leaveOut(index)}>
                Leave out
              </Button>
              <Button size="sm" variant="quiet" onClick={() => setLeaving(false)}>
                Keep
              </Button>
            </span>
          ) : (
            <button
              type="button"
              className="btn-bare"
              onClick={() => setLeaving(true)}
              aria-label={`Leave out ${file.name}`}
            >
              Leave out
            </button>
          )}
        </td>
      )}
    </tr>
  );
}
