'use client';

import { useState } from 'react';
import { whole } from '../../core/handoff/words';
import type { Picture, Profile } from '../../core/inspect/profile';
import { askCondition } from '../../store/session';
import { conditionOfBar } from '../rows/ends';
import { beyondText } from '../../core/handoff/chart';
import { ChartTools, type Looks } from './ChartTools';
import { RestedChart } from './RestedChart';
import type { Drawing } from './useProfile';

const PLAIN: Looks = { curve: false, byCount: false, pie: false };

/** How the valid rows are distributed, drawn as the person wants it. */
export function Distribution({
  profile,
  drawing,
  draw,
}: {
  profile: Profile;
  drawing: Drawing;
  draw: (part: Partial<Drawing>) => void;
}) {
  const [looks, setLooks] = useState(PLAIN);
  const { variable: v, picture } = profile;
  const shown: Picture =
    looks.byCount && picture.form === 'bars'
      ? { ...picture, bars: [...picture.bars].sort((a, b) => b.count - a.count) }
      : picture;
  const mayBePie = picture.form === 'bars' && picture.bars.length <= MOST_SLICES;
  return (
    <section aria-label="Distribution">
      <h3>
        {picture.form === 'histogram' && picture.lengths ? 'Lengths in characters' : 'Distribution'}{' '}
        <span className="soft">
          {v.sampled === undefined
            ? `of ${whole(v.counts.valid)} valid rows`
            : `of ${whole(v.sampled)} rows of the sample`}
          {profile.weighted && picture.form !== 'none' && `, weighted by ${profile.weighted.weight}`}
        </span>
      </h3>
      {shown.form === 'none' ? (
        <p className="soft">{shown.why}</p>
      ) : (
        <RestedChart
          picture={shown}
          name={v.name}
          weighted={profile.weighted !== null}
          curve={looks.curve ? curveOf(profile) : null}
          pie={looks.pie && mayBePie}
          pick={(bar) => {
            const condition = conditionOfBar(v.name, shown, bar, v.storage === 'integer');
            if (condition) askCondition(v.name, condition);
          }}
        />
      )}
      {picture.form === 'histogram' && picture.beyond && (
        <p className="beyond soft mb-1">{beyondText(picture.beyond)}.</p>
      )}

      {picture.form !== 'none' && (
        <ChartTools
          name={v.name}
          picture={picture}
          mayBePie={mayBePie}
          drawing={drawing}
          draw={draw}
          looks={looks}
          change={(part) => setLooks({ ...looks, ...part })}
        />
      )}
    </section>
  );
}

/** Mean and spread of the normal curve over what is drawn. */
function curveOf({ weighted, variable: { statistics } }: Profile): { mean: number; sd: number } | null {
  const { mean, sd } = weighted?.statistics ?? statistics;
  return mean !== null && sd !== null ? { mean, sd } : null;
}

/** A pie tells nothing of more slices than these. */
const MOST_SLICES = 6;
