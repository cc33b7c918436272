import { NO_ANSWER, sometimes, step, type Item } from '../item';

const group = 'Household';

export const household: readonly Item[] = [
  { name: 'hhsize', label: 'Number of people in the household', group, draw: ({ adults, children }) => adults + children },
  { name: 'adults', label: 'Number of adults', group, draw: ({ adults }) => adults },
  { name: 'children', label: 'Number of children under 16', group, draw: ({ children }) => children },
  { name: 'age', label: 'Age of respondent at interview (years)', group, units: 'years', interval: 'continuous', codes: [[999, 'Refused', 'missing']], draw: sometimes(0.013, 999, ({ age }) => Math.min(90, age)) },
  { name: 'sex', label: 'Sex of respondent', group, codes: [[1, 'Male'], [2, 'Female'], NO_ANSWER], draw: sometimes(0.004, 9, (_, c) => c.pick([1, 2], [47, 53])) },
  { name: 'tenure', label: 'Tenure of the home', group, question: 'Does your household own this home or rent it?', codes: [[1, 'Owned outright'], [2, 'Owned with a loan'], [3, 'Rented from a landlord'], [4, 'Rented from the county'], [5, 'Rent free'], NO_ANSWER], draw: sometimes(0.008, 9, ({ owner }, c) => (owner ? c.pick([1, 2], [4, 6]) : c.pick([3, 4, 5], [6, 3, 1]))), faults: [{ rule: 'undocumented-code', write: ['7'], rows: [11], waves: [2020, 2021] }] },
  { name: 'dwelling', label: 'Kind of dwelling', group, codes: [[1, 'Detached house'], [2, 'Terraced house'], [3, 'Flat'], [4, 'Farmhouse'], [5, 'Houseboat'], [6, 'Other'], [7, 'Caravan']], draw: ({ dwelling }) => dwelling },
  { name: 'built', label: 'When the home was built', group, codes: [[1, 'Before 1900'], [2, '1900 to 1929'], [3, '1930 to 1959'], [4, '1960 to 1989'], [5, '1990 to 2009'], [6, '2010 or later'], [8, "Don't know", 'missing']], draw: sometimes(0.06, 8, (_, c) => c.pick([1, 2, 3, 4, 5, 6], [10, 12, 18, 30, 20, 10])) },
  { name: 'rooms', label: 'Number of rooms, kitchen included', group, question: 'How many rooms does your household have for its own use?', draw: (h, c) => step(1, 12, 3.4 + 0.6 * (h.adults + h.children) - (h.dwelling === 3 ? 1 : 0), 1.1, c), faults: [{ rule: 'sentinel-code', write: ['99'], rows: [40] }] },
  { name: 'yrs_here', label: 'Years lived in this home', group, units: 'years', draw: (h, c) => Math.max(0, Math.min(h.age - 5, Math.round(Math.abs(14 * c.normal())))), faults: [{ rule: 'mixed-content', write: ['n/k', '2 yrs'], rows: [7, 3] }] },
  // In 2021 the office exchanged two codes and told nobody.
  { name: 'fuel', label: 'Main fuel for heating', group, codes: [[1, 'Gas'], [2, 'Oil'], [3, 'Electricity'], [4, 'Wood or pellets'], [5, 'District heat'], [6, 'None']], draw: ({ year }, c) => c.pick(year >= 2021 ? [1, 4, 3, 2, 5, 6] : [1, 2, 3, 4, 5, 6], [44, 21, 17, 7, 10, 1]) },
  { name: 'incband', label: 'Monthly income, banded (crowns)', group, codes: [[1, 'Under 1,000'], [2, '1,000 to 1,999'], [3, '2,000 to 2,999'], [4, '3,000 to 3,999'], [5, '4,000 or more'], [7, 'Refused', 'missing']], draw: sometimes(0.05, 7, ({ income }) => Math.min(5, 1 + Math.floor(income / 1000))) },
  { name: 'income', label: 'Monthly household income (crowns)', group, units: 'crowns', interval: 'continuous', codes: [[99999, 'Refused', 'missing']], draw: sometimes(0.06, 99999, ({ income }, c) => (c.odds(0.35) ? Math.round(income / 500) * 500 : Math.round(income))) },
  { name: 'savings', label: 'Savings put aside in a usual month (crowns)', group, units: 'crowns', draw: (h, c) => (c.odds(0.3) ? 0 : Math.round(Math.exp(4.4 + 0.35 * Math.log(h.income / 1000 + 1) + 0.7 * c.normal()))), faults: [{ rule: 'sentinel-code', write: ['9998'], rows: [52] }] },
  { name: 'rent', label: 'Paid for the home in a month, rent or loan (crowns)', group, units: 'crowns', interval: 'continuous', codes: [[9999, 'Refused', 'missing']], draw: sometimes(0.04, 9999, (h, c) => Math.round(h.income * (0.18 + 0.05 * c.normal() + (h.owner ? 0 : 0.08)) + 90)) },
  { name: 'educ', label: 'Highest schooling of the respondent', group, codes: [[1, 'None'], [2, 'Elementary school'], [3, 'Secondary school'], [4, 'Apprenticeship'], [5, 'College'], [6, 'University'], NO_ANSWER], draw: sometimes(0.01, 9, (h, c) => step(1, 6, 3.8 + h.income / 9000 - h.age / 120, 1.1, c)) },
];
