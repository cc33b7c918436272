/** Words that say nothing of what a variable is about, in English, German, French and Spanish; without accents. */
const STOP = new Set(
  `a an the of in on at to for from by with and or not no is are was were be been has have had do does did done this that these those it its as per any all each every other than then
  how what which who whom whose when where why whether if your you yourself his her their our my me i we they he she them him us one ones would could should can will may might must
  much many most more less very too only also just even still yet ever never often usually generally last next past during within over under above below about after before into out up down off
  number numbers total amount code codes value values variable item items question questions respondent respondents answer answers please following mention mentioned first second third
  year years month months week weeks day days hour hours minute minutes time times used using use kind kinds type types part name level main general highest lowest current currently
  per cent percent percentage km kg cm mm mg min max
  yes none some other others etc ie eg nr no id new old good bad get got go going gone make made take taken say said think believe feel
  der die das den dem des ein eine einer eines einem einen und oder nicht kein keine ist sind war waren hat haben hatte im in am an auf aus bei mit nach von vom zu zum zur fur uber unter
  vor durch gegen ohne um als wie was wer wo wann warum welche welcher welches ihr ihre ihrer ihnen ihren sie er es wir ich man sich mein dein sein seine anzahl jahr jahre jahren monat
  monate monaten woche wochen tag tage tagen stunde stunden minuten mal zuletzt letzten letzte letzter letztes hochster hochste allgemein allgemeiner derzeit zurzeit haben nr art
  le la les l un une des du de d et ou ne pas que qui quoi dont ce cet cette ces son sa ses leur leurs votre vos notre nos mon ma mes en dans sur sous par pour avec sans chez au aux est
  sont etait etaient a ont avait combien quel quelle quels quelles plus moins tres nombre annee annees mois semaine semaines jour jours heure heures fois dernier derniere type niveau
  el los las una unos unas y o no que quien cual cuales cuanto cuantos cuanta cuantas como donde cuando su sus mi mis tu tus se lo al del con sin por para entre sobre desde hasta es son
  fue fueron ha han habia hay mas menos muy numero ano anos mes meses semana semanas dia dias hora horas vez veces ultimo ultima ultimos ultimas tipo nivel`
    .split(/\s+/)
    .filter(Boolean),
);

/** A text in lower case without accents: "Âge de l'enquêté" → "age de l'enquete". */
export const plain = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/\p{M}+/gu, '')
    .replace(/ß/g, 'ss')
    .toLowerCase();

/** Words of a text as they stand in it, in order, without numbers. */
export const spoken = (text: string): string[] => text.match(/\p{L}[\p{L}\p{M}]*/gu) ?? [];

/** A word without its ending: "visits", "visited" → "visit"; "families" → "family". Rough, the same for all four languages. */
export function folded(word: string): string {
  const bare = plain(word);
  if (bare.length < 5)
    return bare.length === 4 && bare.endsWith('s') && !bare.endsWith('ss') ? bare.slice(0, 3) : bare;
  for (const [ending, into] of ENDINGS)
    if (bare.endsWith(ending) && bare.length - ending.length + into.length >= 3)
      return bare.slice(0, bare.length - ending.length) + into;
  return bare;
}
const ENDINGS: readonly (readonly [string, string])[] = [
  ['ies', 'y'],
  ['ings', ''],
  ['ing', ''],
  ['ern', ''],
  ['ed', ''],
  ['es', ''],
  ['en', ''],
  ['er', ''],
  ['s', ''],
  ['e', ''],
  ['n', ''],
];

/** Whether a word says nothing of a matter by itself. */
export const saysNothing = (word: string): boolean => {
  const bare = plain(word);
  return bare.length < 2 || STOP.has(bare);
};

/** The words of a text that say what it is about, each once, folded; with the form in which they first stand. */
export function contentWords(text: string): Map<string, string> {
  const words = new Map<string, string>();
  for (const word of spoken(text)) {
    if (saysNothing(word)) continue;
    const key = folded(word);
    if (!words.has(key)) words.set(key, word);
  }
  return words;
}
