'use client';

import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { whole } from '../../core/handoff/words';
import type { Recodable } from '../../core/inspect/recoding';
import { withMerged, withSplit, type Range } from '../../core/recode/edges';
import { askOrSay } from '../../store/asking';
import { dropRecode, madeRecode } from '../../store/recodes';
import { useSession, useParts } from '../../store/session';
import { useAnswer } from '../asking/useAnswer';
import { Quiet } from '../frame/Quiet';
import { CodePicker } from '../rulings/CodePicker';
import { BandTable } from './BandTable';
import { BeforeAfter } from './BeforeAfter';
import { Drawn } from './Drawn';
import { formOf, rangesOf, recodeIn, typedOf, WAYS, waysOf, type RecodeForm } from './recodeForm';
import { Ticks } from './Ticks';

/** Making or changing a trial recode; no data are touched by it. */
export function RecodeDialog() {
  const { asking, recoding } = useParts('asking', 'recoding');
  const shown = asking === 'recode';
  const { value: about, problem } = useAnswer('recodable', shown ? [recoding.of] : null);
  const close = (): void => {
    useSession.setState({ asking: null });
    document
      .querySelector<HTMLElement>('.work .crossroom, .work .ledger, .work .flaglist, .work .recordtable')
      ?.focus();
  };
  return (
    <Modal
      show={shown}
      onHide={close}
      size="xl"
      aria-labelledby="recode-title"
      scrollable
      animation={false}
      className="recodemodal"
    >
      {about ? (
        <Maker key={`${recoding.of} ${recoding.name}`} about={about} close={close} />
      ) : (
        <Modal.Body>{problem ? problem.says : 'Reading…'}</Modal.Body>
      )}
    </Modal>
  );
}

function Maker({ about, close }: { about: Recodable; close: () => void }) {
  const { recoding, summaries, state } = useParts('recoding', 'summaries', 'state');
  const before = recoding.name === null ? null : (state.recodes.get(recoding.name) ?? null);
  const [form, setForm] = useState<RecodeForm>(() =>
    formOf(about, before, new Set(summaries.map(({ name }) => name))),
  );
  const change = (part: Partial<RecodeForm>): void => setForm((now) => ({ ...now, ...part }));
  const made = recodeIn(form, about);
  const recode = 'recode' in made ? made.recode : null;
  const { value: preview } = useAnswer('recodePreview', recode && [recode, recoding.name], 60);
  const wrong = 'says' in made ? made.says : (preview?.misfit ?? null);
  const ways = waysOf(about);
  useEffect(() => {
    setTimeout(() => document.querySelector<HTMLElement>('.recodedrawn svg, .ticklist')?.focus());
  }, [form.way]);
  const save = (): void => {
    if (!recode || wrong !== null) return;
    close();
    void madeRecode(recode, recoding.name);
  };
  return (
    <>
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="recode-title" className="fs-5">
          {before ? 'Change the trial recode' : 'A trial recode'} of{' '}
          <span className="code">{about.name}</span> <span className="soft fs-6">{about.label}</span>
        </Modal.Title>
      </Modal.Header>
      <Modal.Body
        onKeyDown={(event) => {
          if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) save();
        }}
      >
        <div className="recodehead">
          <Form.Group controlId="recode-name">
            <Form.Label className="mb-0">Name</Form.Label>
            <Form.Control
              size="sm"
              className="code"
              autoComplete="off"
              spellCheck={false}
              value={form.name}
              onChange={(event) => change({ name: event.target.value })}
            />
          </Form.Group>
          <Form.Group controlId="recode-label" className="wide">
            <Form.Label className="mb-0">Label</Form.Label>
            <Form.Control
              size="sm"
              value={form.label}
              onChange={(event) => change({ label: event.target.value })}
            />
          </Form.Group>
          <span className="btn-group" role="group" aria-label="How it is made">
            {ways.map((way) => (
              <button
                key={way}
                type="button"
                className={`btn btn-sm ${form.way === way ? 'btn-primary' : 'btn-quiet'}`}
                aria-pressed={form.way === way}
                onClick={() => change({ way })}
              >
                {WAYS[way]}
              </button>
            ))}
          </span>
        </div>
        <Asked about={about} form={form} change={change} preview={preview} />
        {form.way !== 'bins' && (
          <p className="doings mb-1">
            A row in none{' '}
            {(['blank', 'same'] as const).map((rest) => (
              <label key={rest} className="me-2">
                <input
                  type="radio"
                  name="recode-rest"
                  checked={form.rest === rest}
                  onChange={() => change({ rest })}
                />{' '}
                {rest === 'blank' ? 'becomes blank' : 'keeps its code'}
              </label>
            ))}
          </p>
        )}
        {preview && !preview.misfit && <BeforeAfter about={about} preview={preview} />}
      </Modal.Body>
      <Modal.Footer className="justify-content-start">
        <Button onClick={save} disabled={!recode || wrong !== null}>
          {before ? 'Change it' : 'Make it'} <kbd>Ctrl Enter</kbd>
        </Button>
        {before && (
          <Quiet
            does={() => {
              close();
              void dropRecode(before.name);
            }}
          >
            Remove it
          </Quiet>
        )}
        <span className={wrong === null ? 'soft' : 'warn'} role="status">
          {wrong ?? `No data are touched. ${preview ? `${whole(preview.codes.length)} codes.` : ''}`}
        </span>
      </Modal.Footer>
    </>
  );
}

/** What the way that is chosen asks for. */
function Asked({
  about,
  form,
  change,
  preview,
}: {
  about: Recodable;
  form: RecodeForm;
  change: (part: Partial<RecodeForm>) => void;
  preview: Parameters<typeof BandTable>[0]['preview'];
}) {
  if (form.way === 'groups')
    return (
      <>
        {about.groups.length > 1 && (
          <Starts
            starts={[
              {
                says: 'One for each label',
                does: () =>
                  change({
                    groups: about.groups.map(({ label, codes }, i) => ({
                      code: String(i + 1),
                      label,
                      codes,
                    })),
                  }),
              },
              { says: 'None', does: () => change({ groups: [] }) },
            ]}
          />
        )}
        <Ticks about={about} groups={form.groups} preview={preview} change={(groups) => change({ groups })} />
      </>
    );
  if (form.way === 'only')
    return (
      <CodePicker
        id="recode-only"
        title="Codes that it keeps; all others become blank"
        codes={about.codes}
        picked={form.only}
        pick={(only) => change({ only })}
        autoFocus
      />
    );
  if (form.way === 'bins')
    return (
      <div className="recodehead">
        {(['size', 'start'] as const).map((part) => (
          <Form.Group key={part} controlId={`recode-${part}`}>
            <Form.Label className="mb-0">{part === 'size' ? 'Width' : 'Upwards from'}</Form.Label>
            <Form.Control
              size="sm"
              autoComplete="off"
              value={form[part]}
              onChange={(event) => change({ [part]: event.target.value })}
            />
          </Form.Group>
        ))}
        <span className="soft">
          A bin holds its lower edge and not its upper; the last ends where the data end. What lies below is
          in none.
        </span>
      </div>
    );
  return <ByRange about={about} form={form} change={change} preview={preview} />;
}

function ByRange({
  about,
  form,
  change,
  preview,
}: {
  about: Recodable;
  form: RecodeForm;
  change: (part: Partial<RecodeForm>) => void;
  preview: Parameters<typeof BandTable>[0]['preview'];
}) {
  const ranges = rangesOf(form.bands, about.storage);
  const draw = (bands: readonly Range[]): void =>
    change({ bands: bands.map((band) => typedOf(band, about.storage)) });
  const step = about.scale?.step ?? 1;
  const split = async (place: number): Promise<void> => {
    const band = ranges?.at(place);
    if (!ranges || !band) return;
    const middle = await askOrSay('middle', about.name, band.from, band.to);
    if (middle !== null) draw(withSplit(ranges, middle, step));
  };
  return (
    <>
      <Starts
        starts={[
          ...about.starts.map(({ says, bands }) => ({ says, does: () => draw(bands) })),
          {
            says: 'One band of all',
            does: () =>
              draw([{ from: about.scale?.low ?? null, to: about.scale?.high ?? null, code: '1', label: '' }]),
          },
        ]}
      />
      {ranges ? (
        <Drawn about={about} bands={ranges} change={draw} />
      ) : (
        <p className="soft">The bands are drawn again once their ends are what the variable holds.</p>
      )}
      <BandTable
        bands={form.bands}
        preview={preview}
        valid={about.valid}
        change={(bands) => change({ bands })}
        split={(place) => void split(place)}
        merge={(place) => ranges && draw(withMerged(ranges, place))}
      />
    </>
  );
}

function Starts({ starts }: { starts: { says: string; does: () => void }[] }) {
  return (
    <p className="doings mb-1">
      <span className="soft">Begin with</span>
      {starts.map(({ says, does }) => (
        <Quiet key={says} does={does}>
          {says}
        </Quiet>
      ))}
    </p>
  );
}
