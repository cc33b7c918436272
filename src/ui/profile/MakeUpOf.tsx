import { percent, whole } from '../../core/handoff/words';
import type { InspectedVariable } from '../../core/inspect/schema';
import { useSession } from '../../store/session';
import { MakeUp, PARTS } from '../ledger/Marks';

/** What the rows of a variable hold: valid, not asked, missing, blank, unreadable; and what cannot be read. */
export function MakeUpOf({ variable: v }: { variable: InspectedVariable }) {
  const narrowed = useSession(({ account }) => account.length > 0);
  return (
    <section aria-label="Make-up">
      <h3>
        Make-up{' '}
        <span className="soft">
          of {narrowed ? 'the' : 'all'} {whole(v.counts.all)} rows{narrowed && ' kept'}
        </span>
      </h3>
      <MakeUp counts={v.counts} />
      <ul className="makeuplist">
        {PARTS.filter(([part]) => v.counts[part] > 0).map(([part, name]) => (
          <li key={part}>
            <span className={`swatch part-${part}`} />
            {name} <strong className="n">{whole(v.counts[part])}</strong>{' '}
            <span className="soft">{percent(v.counts[part] / v.counts.all)}</span>
          </li>
        ))}
        <li>
          {v.distinctError !== undefined && 'about '}
          <strong>{whole(v.counts.distinct)}</strong> distinct valid
        </li>
      </ul>
      {v.unreadable.length > 0 && (
        <p className="mb-1">
          <span className="soft">Not {v.storage === 'date' ? 'a date' : 'a number'}:</span>{' '}
          {v.unreadable
            .slice(0, 8)
            .map(({ text, count }) => `“${text}” ${whole(count)}×`)
            .join(', ')}
          {v.unreadable.length > 8 && ` and ${v.unreadable.length - 8} more forms`}
        </p>
      )}
    </section>
  );
}
