import { describe, expect, it } from 'vitest';
import { degreesOf } from './degrees';
import { monotone, orderOfWords } from './ladders';

describe('words of degree', () => {
  it.each([
    [['Very interested', 'Quite interested', 'Hardly interested', 'Not at all interested']],
    [['Not worried at all', 'Not very worried', 'Fairly worried', 'Very worried', 'Extremely worried']],
    [
      [
        'A great deal of confidence',
        'Quite a lot of confidence',
        'Not very much confidence',
        'No confidence at all',
      ],
    ],
    [['Very easy', 'Fairly easy', 'Neither easy nor difficult', 'Fairly difficult', 'Very difficult']],
    [['Sehr stark', 'Ziemlich stark', 'Etwas stark', 'Gar nicht stark']],
    [['Very happy', 'Pretty happy', 'Not too happy']],
    [['Happy', 'Very happy', 'Extremely happy']],
  ])('give %j an order', (labels) => {
    expect(monotone(degreesOf(labels) ?? [])).toBe(true);
    expect(orderOfWords(labels)).not.toBeNull();
  });

  it.each([
    [['Very old house', 'New flat', 'Caravan']],
    [['No car', 'One car', 'Some bicycles']],
    [['Gas', 'Oil', 'Wood', 'None']],
    [['Very cheap', 'Very near', 'Very clean']],
    [['Yes', 'No', "Don't know"]],
  ])('give %j none', (labels) => {
    expect(degreesOf(labels)).toBeNull();
  });
});
