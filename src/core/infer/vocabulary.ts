import type { Kind } from '../extract/words';

/**
 * What the words in variables' names usually mean, as archives abbreviate them, in English with the commonest German,
 * French and Spanish ones. A word says little by itself; it is one piece of evidence among others.
 */
const NAMES: Readonly<Record<'count' | 'continuous' | 'nominal' | 'ordinal', string>> = {
  count: `count counts cnt num nb anz anzahl nombre qty quantity kids children nchild nkids childs adults pregnancies visits trips absences rooms bedrooms bathrooms beds siblings
    persons people members passengers cigs cigarettes drinks cars vehicles employees workers staff births deaths cases events times calls clicks views orders items pets animals cows
    trees plants eggs larvae injuries accidents failures hhsize famsize hhsz household_size goals matches pupils students seats stops books friends contacts units
    absent tools zimmer kinder personen enfants pieces hijos personas votes voters ballots casualties arrivals departures marriages households inhabitants fires thefts
    crimes offences strikes absentees fatalities patients beds nights guests sheep cattle pigs hens fish tickets parcels letters hits errors`,
  continuous: `age alter edad income inc wage wages salary earnings earn hours hrs stunden heures minutes mins seconds secs days tage jours weeks years yrs duration los cost costs price fare rent
    spend spent expense expenses expenditure amount amt revenue sales turnover balance profit tax debt loan savings distance dist km miles cm mm metres meters height weight width length depth area sqm sqft
    volume temp temperature humidity pressure speed rate ratio pct percent percentage prop share bmi sbp dbp bp pulse heartrate glucose chol cholesterol insulin lat latitude lon lng longitude elevation
    altitude population pop density yield gdp mpg hp horsepower kwh kg grams rain rainfall wind score points marks preis kosten einkommen prix revenu ingreso precio gewicht groesse yob birthyear
    min minute hour day sum total receipts transfers transfer disbursements contributions contribution donations donation loans refund refunds payments payment paid fees fee grants grant legacies cash funds premium
    rent wealth assets experience intensity mag magnitude gap angle azimuth lbs inches feet acres hectares litres gallons celsius fahrenheit`,
  nominal: `sex gender geschlecht sexe sexo marital marstat civil region state province county district city town country nation land race ethnic ethnicity relig religion language lang
    type kind category cat status mode method reason cause occ occupation job industry sector isco isic nace sic brand make model colour color dept department school ward site station plot block zone
    postcode zip plz party vote treatment arm team teacher interviewer intvr dwelling tenure fuel species breed channel currency own has is ever employed empstat activity relation relationship role
    division unit branch location place origin destination carrier supplier manufacturer variety strain batch lab hospital clinic diagnosis icd direction dir beruf land bundesland pays departement
    vehicle bus tram train boat ship precinct parish municipality commune gemeinde canton seat constituency line route net network operator owner source position`,
  ordinal: `month grade level lvl niveau stufe stage class klasse rating stars band bracket ageband agegroup agegrp quintile quartile decile severity satisfaction satis satisfied agree freq frequency health
    educ education edu schooling condition quality importance trust likert scale attitude happy happiness lifesat worry confidence priority risk tier pain urgency difficulty likelihood intensity
    mark quarter note zufriedenheit satisfaccion confiance vertrauen rank ranking grading dose tercile cohort decile percentile prio phase step`,
};
const WORDS = new Map<string, Kind>(
  Object.entries(NAMES).flatMap(([kind, words]) =>
    words.split(/\s+/).map((word) => [word, kind as Kind] as const),
  ),
);
/** "nchild", "numcars", "n_rooms": a number of something. */
const NUMBER_OF =
  /^(n|nb|num|no|anz)(child|kid|adult|person|people|room|car|visit|mem|sib|job|trip|dep|pers)/;

/** Long words that archives glue others to: "bmonth", "statefip". */
const LEAST_GLUED = 5;
function gluedIn(word: string): { kind: Kind; word: string } | undefined {
  for (let length = word.length - 1; length >= LEAST_GLUED; length--) {
    // The end of a name says what it is; its beginning, of what.
    for (const part of [word.slice(-length), word.slice(0, length)]) {
      const kind = WORDS.get(part);
      if (kind) return { kind, word: part };
    }
  }
  return undefined;
}

/** The words of a name: "yrsHeating_2b" → yrs, heating, b. */
export function wordsOf(name: string): string[] {
  return name
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .split(/[^\p{L}]+/u)
    .filter((word) => word !== '');
}

/** Kinds that words of a name speak for, with the word; the last word of a name says most. */
export function kindsByName(name: string): { kind: Kind; word: string; last: boolean }[] {
  const words = wordsOf(name);
  const found = words.flatMap((word, i) => {
    const kind =
      WORDS.get(word) ?? WORDS.get(word.replace(/s$/, '')) ?? (NUMBER_OF.test(word) ? 'count' : undefined);
    if (kind) return [{ kind, word, last: i === words.length - 1 }];
    const glued = gluedIn(word);
    return glued ? [{ ...glued, last: false }] : [];
  });
  if ((words[0] === 'n' || words[0] === 'num' || words[0] === 'number') && words.length > 1)
    return [
      { kind: 'count', word: `${words[0]} ${words[1]}`, last: true },
      ...found.filter(({ kind }) => kind !== 'nominal'),
    ];
  return found;
}

/** Words that end like "id" and "no" and are neither. */
const NO_IDENTIFIER =
  /(paid|said|aid|kid|bid|rapid|solid|valid|humid|acid|covid|grid|liquid|void|maid|raid|laid|hybrid|lipid|mid|avoid|fluid)$/i;

/** "rowno", "caseno", "acctnum": a number glued to what it numbers. */
const NUMBERED =
  /(row|case|ser|resp|rec|line|seq|hh|pers|house|card|file|firm|plot|ticket|obs|acc|acct|account|order|invoice|cust|client|visit|loan|lot|chip|tag|roll|batch|block|school|unit|site)_?(no|num)$/i;

/** Whether a name is that of something's identifier: `teacher_id`, `caseNo`, `hhid`, `key`. */
export function namesIdentifier(name: string): boolean {
  const parted = name.replace(/([a-z])([A-Z])/g, '$1_$2');
  if (/(^|[_\W\d])(id|key|code|nr|no|number|num|ref|serial|ident\w*)$/i.test(parted))
    return !/(^|[_\W])(n|num|no)$/i.test(parted) || /[a-z\d][_\W](num|no)$/i.test(parted);
  return NUMBERED.test(name) || (/[a-z](id|key|nr)$/i.test(name) && !NO_IDENTIFIER.test(name));
}
