'use client';

import { useEffect, useState } from 'react';
import Modal from 'react-bootstrap/Modal';
import { isCategorical, isMeasure, KINDS, type Kind } from '../../core/extract/words';
import { counted, figure, whole } from '../../core/handoff/words';
import type { KindEffect } from '../../core/inspect/questions';
import { askOrSay } from '../../store/asking';
import { useAnswer } from '../asking/useAnswer';
import { decide } from '../../store/decisions';
import { useSession } from '../../store/session';

const MEANS: Record<Kind, string> = {
  identifier: 'tells rows apart; never counted or averaged',
  nominal: 'categories without an order',
  ordinal: 'categories in an order; median, no mean',
  count: 'how many: whole numbers from zero',
  continuous: 'a measured quantity; mean and histogram',
  date: 'days or times; earliest, latest, gaps',
  text: 'free text; lengths only',
  empty: 'holds nothing',
};
const KEYS: Record<Kind, string> = {
  identifier: 'i',
  nominal: 'n',
  ordinal: 'o',
  count: 'q',
  continuous: 'c',
  date: 'd',
  text: 't',
  empty: 'e',
};
const NAMED = 8;

/** What one variable would show, were it of the kind at hand. */
function effectText({ kind, valid, distinct, statistics: s }: KindEffect): string {
  if (isMeasure(kind) && s.mean !== null)
    return `mean ${figure(s.mean, 4)}, median ${figure(s.median, 4)}, from ${figure(s.min, 5)} to ${figure(s.max, 5)}`;
  if (kind === 'date' && s.min !== null) return `from ${s.min} to ${s.max}`;
  if (isCategorical(kind))
    return `${counted(distinct, 'category', 'categories')} in ${counted(valid, 'valid row')}${kind === 'ordinal' && s.median !== null ? `, median ${figure(s.median, 4)}` : ''}`;
  if (kind === 'identifier')
    return distinct === valid ? 'every value stands once' : `${whole(valid - distinct)} rows repeat a value`;
  return `${counted(distinct, 'distinct value')} in ${counted(valid, 'valid row')}`;
}

/** Says the kind of one variable or of all chosen: by its key, or by choosing. What it cannot be is refused, with the ways on. */
export function KindDialog({ shown, names, close }: { shown: boolean; names: string[]; close: () => void }) {
  const summaries = useSession((session) => session.summaries);
  const only = names.length === 1 ? summaries.find(({ name }) => name === names[0]) : undefined;
  const [over, setOver] = useState<Kind | null>(null);
  const [refused, setRefused] = useState<{ kind: Kind; effects: KindEffect[] } | null>(null);
  useEffect(() => {
    if (shown) setRefused(null);
  }, [shown]);
  const { value: effects } = useAnswer('effects', shown && only && over ? [[only.name], over] : null);
  const effect = effects?.[0] ?? null;

  const confirm = async (kind: Kind): Promise<void> => {
    close();
    await decide({ type: 'confirm-kind', kinds: names.map((variable) => ({ variable, kind })) });
  };
  const say = async (kind: Kind): Promise<void> => {
    if (isMeasure(kind) || kind === 'date') {
      const all = await askOrSay('effects', names, kind);
      if (!all) return;
      const effects = all.filter(({ name, unreadable, storage }) => {
        const before = summaries.find((summary) => summary.name === name)?.counts.unreadable ?? 0;
        return unreadable > before || storage === 'text' || storage === 'empty';
      });
      if (effects.length) {
        setRefused({ kind, effects });
        return;
      }
    }
    await confirm(kind);
  };
  const declareForms = async (): Promise<void> => {
    if (!refused) return;
    close();
    for (const { name, forms } of refused.effects)
      if (forms.length)
        await decide({
          type: 'declare-missing',
          variables: [name],
          codes: forms.map(({ text }) => ({ code: text, reason: 'other' })),
          rule: null,
        });
    await decide({
      type: 'confirm-kind',
      kinds: names.map((variable) => ({ variable, kind: refused.kind })),
    });
  };

  return (
    <Modal
      show={shown}
      onHide={close}
      aria-labelledby="kind-title"
      onKeyDown={(event: React.KeyboardEvent) => {
        const kind = refused ? undefined : KINDS.find((candidate) => KEYS[candidate] === event.key);
        if (kind && !event.ctrlKey && !event.metaKey && !event.altKey) {
          event.preventDefault();
          void say(kind);
        }
      }}
      animation={false}
    >
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="kind-title" className="fs-5">
          {only ? (
            <>
              What is <span className="code">{only.name}</span>?
            </>
          ) : (
            `What are these ${names.length} variables?`
          )}
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        {refused ? (
          <Refused
            {...refused}
            back={() => setRefused(null)}
            anyway={() => void confirm(refused.kind)}
            declare={() => void declareForms()}
            order={() => {
              close();
              void decide({
                type: 'confirm-kind',
                kinds: names.map((variable) => ({ variable, kind: 'ordinal' })),
              }).then(() => useSession.setState({ asking: 'order' }));
            }}
          />
        ) : (
          <>
            {only && (
              <p className="soft">
                Presumed {only.presumed}, {Math.round(only.confidence * 100)} of 100 sure:{' '}
                {only.because.join('; ')}.
              </p>
            )}
            <div className="kindlist">
              {KINDS.map((kind, i) => (
                <button
                  type="button"
                  key={kind}
                  autoFocus={only ? kind === only.kind : i === 0}
                  aria-pressed={only?.kind === kind}
                  onFocus={() => setOver(kind)}
                  onPointerEnter={() => setOver(kind)}
                  onClick={() => void say(kind)}
                >
                  <kbd>{KEYS[kind]}</kbd>
                  <strong>{kind}</strong>
                  <span>{MEANS[kind]}</span>
                </button>
              ))}
            </div>
            {only && (
              <p className="soft mt-2 mb-0 kindeffect" role="status">
                {effect && effect.kind === over
                  ? `As ${over}: ${effectText(effect)}${effect.unreadable ? `; ${counted(effect.unreadable, 'cell')} cannot be read so` : ''}.`
                  : '\u00a0'}
              </p>
            )}
          </>
        )}
      </Modal.Body>
    </Modal>
  );
}

/** Why it cannot be so as it stands, and what can be done. */
function Refused({
  kind,
  effects,
  back,
  anyway,
  declare,
  order,
}: {
  kind: Kind;
  effects: KindEffect[];
  back: () => void;
  anyway: () => void;
  declare: () => void;
  order: () => void;
}) {
  const what = kind === 'date' ? 'dates' : 'numbers';
  const none = effects.every(
    ({ cells, unreadable, storage }) => unreadable >= cells || storage === 'text' || storage === 'empty',
  );
  const forms = effects.length === 1 ? effects[0].forms.length : 0;
  return (
    <div role="alert">
      {effects.map(({ name, cells, unreadable, forms: stray, storage }) => (
        <div key={name} className="mb-2">
          <p className="mb-1">
            <span className="code">{name}</span>:{' '}
            {storage === 'text'
              ? `none of its ${whole(cells)} cells can be read as ${what}`
              : `${whole(unreadable)} of ${whole(cells)} cells are not ${what}: these ${stray.length > NAMED ? `${whole(stray.length)} forms, among them` : counted(stray.length, 'form')}`}
          </p>
          {storage !== 'text' && (
            <ul className="mb-1">
              {stray.slice(0, NAMED).map(({ text, count }) => (
                <li key={text}>
                  <span className="code">{text}</span> <span className="soft">{counted(count, 'row')}</span>
                </li>
              ))}
            </ul>
          )}
        </div>
      ))}
      <div className="d-grid gap-2 mt-3">
        {!none && (
          <button type="button" className="btn btn-primary" autoFocus onClick={declare}>
            Declare {forms === 1 ? 'this form' : 'these forms'} missing, and read the rest as {what}
          </button>
        )}
        {!none && (
          <button type="button" className="btn btn-quiet" onClick={anyway}>
            Read the rest as {what}; these stay unreadable, counted and listed
          </button>
        )}
        <button type="button" className="btn btn-quiet" autoFocus={none} onClick={order}>
          They are categories with an order: order them…
        </button>
        <button type="button" className="btn btn-quiet" onClick={back}>
          Choose another kind
        </button>
      </div>
    </div>
  );
}
