import { describe, expect, it } from 'vitest';
import { mkdtempSync, mkdirSync, writeFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { TEMPERATURE, WEIGHTS } from '../src/core/infer/evidence/weights';
import { CUES } from '../src/core/infer/evidence/table';
import { fit, guess, temperatureOf } from './fit';
import { folderSamples } from './folder';
import { shippedSamples, type Sample } from './samples';

const cue = CUES[0];
const sample = (strength: number, truth: Sample['truth'], file = 'a'): Sample => ({
  file,
  condition: '',
  variable: 'x',
  held: [{ cue, strength }],
  possible: ['nominal', 'ordinal', 'count'],
  truth,
});

describe('the table of weights', () => {
  const samples = shippedSamples();

  it('is what the studies that ship teach', () => {
    const found = fit(samples);
    for (const { id, kinds } of CUES)
      for (const kind of kinds)
        expect(
          Math.abs((found[id]?.[kind] ?? 0) - (WEIGHTS[id]?.[kind] ?? 0)),
          `${id}, ${kind}`,
        ).toBeLessThan(0.05);
  }, 60_000);

  it('has certainties of which nine in ten of 0.9 are right', () => {
    const sure = samples
      .map((one) => guess(one, WEIGHTS, TEMPERATURE))
      .filter(({ confidence }) => confidence >= 0.9);
    expect(sure.length).toBeGreaterThan(samples.length / 3);
    expect(sure.filter(({ right }) => right).length / sure.length).toBeGreaterThan(0.9);
  });
});

describe('a fit', () => {
  it('learns what a cue speaks for, and is drawn to nothing where it speaks for nothing', () => {
    const weights = fit(Array.from({ length: 60 }, () => sample(1, ['ordinal'])));
    expect(weights[cue.id].ordinal).toBeGreaterThan(0.5);
    expect(weights[cue.id].nominal).toBeLessThan(0);
    expect(fit(Array.from({ length: 60 }, () => sample(0, ['ordinal'])))).toEqual({});
    // Where both are right neither is preferred.
    const both = fit(Array.from({ length: 60 }, () => sample(1, ['nominal', 'ordinal'])));
    expect(both[cue.id].ordinal).toBeCloseTo(both[cue.id].nominal ?? 0, 2);
  });

  it('is less sure where guesses fail', () => {
    const weights = { [cue.id]: { ordinal: 6 } };
    const right = Array.from({ length: 40 }, () => ({ sample: sample(1, ['ordinal']), weights }));
    const wrong = Array.from({ length: 20 }, () => ({ sample: sample(1, ['nominal']), weights }));
    expect(temperatureOf([...right, ...wrong])).toBeGreaterThan(temperatureOf(right));
  });
});

describe('labelled extracts in a folder', () => {
  it('are read with what their truth says, and refused where it names no data', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'dig-labelled-'));
    try {
      mkdirSync(join(folder, 'data'));
      writeFileSync(
        join(folder, 'data', 'hens.csv'),
        `id,eggs\n${Array.from({ length: 40 }, (_, i) => `${i + 1},${i % 4}`).join('\n')}\n`,
      );
      writeFileSync(
        join(folder, 'truth.json'),
        JSON.stringify({
          files: {
            'hens.csv': {
              variables: { ID: { kind: ['identifier'] }, eggs: { kind: ['count'] }, gone: { kind: null } },
            },
          },
        }),
      );
      const found = await folderSamples(folder);
      expect(found.map(({ file, variable, truth }) => [file, variable, truth])).toEqual([
        ['hens.csv', 'id', ['identifier']],
        ['hens.csv', 'eggs', ['count']],
      ]);
      writeFileSync(join(folder, 'truth.json'), JSON.stringify({ files: { 'cows.csv': { variables: {} } } }));
      await expect(folderSamples(folder)).rejects.toThrow('cows.csv, which is not there');
    } finally {
      rmSync(folder, { recursive: true });
    }
  });
});
