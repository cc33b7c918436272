import type { Judged } from './judged';
import { pick, int, normal, whole, poisson } from './makers';

/** School and science. */
export const school: Judged[] = [
  { name: 'student_no', kind: 'identifier', cell: (_, row) => 20230000 + row },
  { name: 'grade', kind: ['ordinal', 'nominal', 'count'], cell: int(5, 10) },
  { name: 'mark', kind: 'ordinal', cell: pick(['A', 'B', 'C', 'D', 'E', 'F']) },
  { name: 'score_math', kind: 'continuous', cell: whole(61, 17, 0, 100) },
  { name: 'absences', kind: 'count', cell: poisson(4) },
  { name: 'gpa', kind: 'continuous', cell: normal(2.9, 0.5, 2) },
  {
    name: 'school',
    kind: 'nominal',
    cell: pick(['Tarn High', 'Fenwater College', 'Old Forge School', 'Pellsey Comprehensive']),
  },
  { name: 'passed', kind: 'nominal', cell: pick(['pass', 'fail']) },
  { name: 'teacher_id', kind: 'nominal', cell: (c) => c.whole(301, 330) },
  { name: 'mother_educ', kind: 'ordinal', cell: pick(['none', 'primary', 'secondary', 'university']) },
  {
    name: 'study_time',
    kind: 'ordinal',
    cell: pick(['under 2 hours', '2 to 5 hours', '5 to 10 hours', 'over 10 hours']),
  },
  { name: 'ageband', kind: 'ordinal', cell: pick(['16-24', '25-34', '35-44', '45-54', '55-64', '65+']) },
  { name: 'sepal', kind: 'continuous', cell: normal(5.8, 0.8, 1) },
  { name: 'species', kind: 'nominal', cell: pick(['oak', 'ash', 'elm']) },
  { name: 'ph', kind: 'continuous', cell: normal(6.4, 0.5, 2) },
  { name: 'count_larvae', kind: 'count', cell: poisson(12) },
  { name: 'plot', kind: 'nominal', cell: int(1, 48) },
  { name: 'treatment', kind: 'nominal', cell: pick(['control', 'low dose', 'high dose']) },
  { name: 'dose', kind: ['continuous', 'ordinal', 'nominal'], cell: pick([0, 5, 10, 20, 50]) },
  { name: 'replicate', kind: ['nominal', 'ordinal'], cell: int(1, 3) },
  { name: 'yield_kg', kind: 'continuous', cell: normal(4200, 700) },
  { name: 'rank', kind: ['ordinal', 'identifier', 'continuous'], cell: int(1, 20) },
  {
    name: 'flag_inc',
    kind: 'nominal',
    role: 'imputation',
    label: 'Imputation flag: income',
    cell: pick([0, 1], [9, 1]),
  },
  { name: 'answered', kind: 'nominal', cell: pick(['Yes', 'No', 'Maybe']) },
  { name: 'how_often', kind: 'ordinal', cell: pick(['never', 'sometimes', 'often', 'always']) },
  { name: 'weekday', kind: 'ordinal', cell: pick(['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']) },
  {
    name: 'likert',
    kind: 'ordinal',
    cell: pick(['stimme gar nicht zu', 'stimme nicht zu', 'teils/teils', 'stimme zu', 'stimme voll zu']),
  },
  {
    name: 'satisfait',
    kind: 'ordinal',
    cell: pick(['pas du tout satisfait', 'peu satisfait', 'satisfait', 'très satisfait']),
  },
  { name: 'frecuencia', kind: 'ordinal', cell: pick(['nunca', 'a veces', 'a menudo', 'siempre']) },
  { name: 'e5_3', kind: 'nominal', cell: pick([0, 1, ''], [60, 20, 20]) },
];
