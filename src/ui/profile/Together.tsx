'use client';

import Modal from 'react-bootstrap/Modal';
import { isCategorical, isMeasure } from '../../core/extract/words';
import { counted, figure, percent, whole } from '../../core/handoff/words';
import type { InspectedVariable } from '../../core/inspect/schema';
import type { Battery } from '../../core/inspect/together';
import { ProblemText } from '../asking/ProblemText';
import { useAnswer } from '../asking/useAnswer';
import { CopyButton } from '../drawn/CopyButton';
import { useDigits } from './Figures';

/** The chosen variables side by side: a battery as one table, measures with measures, categories with categories. */
export function Together({ names, shown, close }: { names: string[]; shown: boolean; close: () => void }) {
  const { value: battery } = useAnswer('battery', shown ? [names] : null);
  const { value: found, problem } = useAnswer('documented', shown ? [names] : null);
  const variables = found ?? [];
  const measures = variables.filter(({ kind }) => isMeasure(kind));
  const categories = battery ? [] : variables.filter(({ kind }) => isCategorical(kind));
  const rest = variables.filter(({ kind }) => !isMeasure(kind) && !isCategorical(kind));
  return (
    <Modal
      show={shown}
      onHide={close}
      size="xl"
      aria-labelledby="together-title"
      scrollable
      animation={false}
    >
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="together-title" className="fs-5">
          {counted(names.length, 'variable')} side by side
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        {problem && <ProblemText problem={problem} />}
        {battery && <BatteryTable battery={battery} />}
        {measures.length > 0 && <Measures variables={measures} />}
        {categories.length > 0 && <Categories variables={categories} />}
        {rest.length > 0 && (
          <p className="soft mt-3 mb-0">
            Not set side by side, since {rest.length === 1 ? 'its kind has' : 'their kinds have'} no summary
            in common: {rest.map(({ name, kind }) => `${name} (${kind})`).join(', ')}.
          </p>
        )}
      </Modal.Body>
    </Modal>
  );
}

function BatteryTable({ battery: { codes, items } }: { battery: Battery }) {
  const most = Math.max(
    ...items.flatMap(({ counts, valid }) => counts.map((count) => count / Math.max(1, valid))),
  );
  return (
    <section className="mb-3">
      <h3 className="fs-6">
        One list of codes: items down, codes across <span className="soft">shares of valid rows</span>{' '}
        <CopyButton what="the battery" />
      </h3>
      <table className="grounds battery">
        <thead>
          <tr>
            <th scope="col">Item</th>
            {codes.map(({ code, label }) => (
              <th scope="col" className="n" key={code}>
                {code}
                {label && <small>{label}</small>}
              </th>
            ))}
            <th scope="col" className="n">
              Valid
            </th>
            <th scope="col" className="n">
              Mean of codes
            </th>
          </tr>
        </thead>
        <tbody>
          {items.map(({ name, label, counts, valid, mean, odd }) => (
            <tr key={name} className={odd ? 'odd' : undefined}>
              <th scope="row">
                <span className="code">{name}</span> {label}
                {odd && <strong className="differs"> {odd}</strong>}
              </th>
              {counts.map((count, i) => (
                <td
                  key={codes[i].code}
                  className="n share"
                  style={{ '--share': valid ? count / valid / most : 0 } as React.CSSProperties}
                  title={`${whole(count)} rows`}
                >
                  {valid ? percent(count / valid) : '–'}
                </td>
              ))}
              <td className="n">{whole(valid)}</td>
              <td className="n">{mean === null ? '–' : figure(mean, 3)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="soft small mb-0">
        The mean of codes tells at a glance which item goes the other way; it says nothing of distances
        between answers.
      </p>
    </section>
  );
}

function Measures({ variables }: { variables: InspectedVariable[] }) {
  const digits = useDigits();
  const columns = [
    ['Lowest', 'min'],
    ['Quartile', 'q1'],
    ['Median', 'median'],
    ['Quartile', 'q3'],
    ['Highest', 'max'],
    ['Mean', 'mean'],
    ['SD', 'sd'],
    ['Skewness', 'skewness'],
    ['Kurtosis', 'kurtosis'],
  ] as const;
  return (
    <section className="mb-3">
      <h3 className="fs-6">
        Measures <span className="soft">unweighted</span> <CopyButton what="the measures" />
      </h3>
      <table className="grounds">
        <thead>
          <tr>
            <th scope="col">Variable</th>
            <th scope="col" className="n">
              Valid
            </th>
            <th scope="col" className="n">
              of all
            </th>
            {columns.map(([head, key]) => (
              <th scope="col" className="n" key={key}>
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {variables.map(({ name, label, counts, statistics }) => (
            <tr key={name}>
              <th scope="row">
                <span className="code">{name}</span> {label}
              </th>
              <td className="n">{whole(counts.valid)}</td>
              <td className="n">{percent(counts.valid / counts.all)}</td>
              {columns.map(([, key]) => (
                <td className="n" key={key}>
                  {statistics[key] === null ? '–' : figure(statistics[key], digits)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

const MOST_CODES = 12;
function Categories({ variables }: { variables: InspectedVariable[] }) {
  return (
    <section className="mb-3">
      <h3 className="fs-6">
        Categories <span className="soft">shares of valid rows</span> <CopyButton what="the categories" />
      </h3>
      <table className="grounds">
        <thead>
          <tr>
            <th scope="col">Variable</th>
            <th scope="col">Code and label</th>
            <th scope="col" className="n">
              Rows
            </th>
            <th scope="col" className="n">
              of valid
            </th>
          </tr>
        </thead>
        {variables.map(({ name, label, frequencies, counts }) => {
          const valid = frequencies.filter(({ missing }) => !missing);
          return (
            <tbody key={name}>
              {valid.slice(0, MOST_CODES).map((f, i) => (
                <tr key={f.code}>
                  {i === 0 && (
                    <th scope="rowgroup" rowSpan={Math.min(valid.length, MOST_CODES)}>
                      <span className="code">{name}</span> {label}
                      <div className="soft">
                        {whole(counts.valid)} valid
                        {valid.length > MOST_CODES && `; ${valid.length - MOST_CODES} more codes`}
                      </div>
                    </th>
                  )}
                  <td>
                    <span className="code">{f.code}</span> {f.label}
                  </td>
                  <td className="n">{whole(f.count)}</td>
                  <td className="n">{percent(f.shareOfValid)}</td>
                </tr>
              ))}
            </tbody>
          );
        })}
      </table>
    </section>
  );
}
