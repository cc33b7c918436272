import type { Judged } from './judged';
import { pick, int, normal, whole, skewed, poisson, day, prose } from './makers';

/** A clinical file. */
export const clinic: Judged[] = [
  {
    name: 'patient',
    kind: 'identifier',
    role: 'identifier',
    cell: (_, row) => `P-${String(row + 1).padStart(4, '0')}`,
  },
  { name: 'visit', kind: ['ordinal', 'nominal', 'count'], cell: int(1, 4) },
  { name: 'dob', kind: 'date', cell: day(-12000, 16000) },
  { name: 'gender', kind: 'nominal', cell: pick(['M', 'F']) },
  { name: 'height_cm', kind: 'continuous', cell: normal(171, 9, 1) },
  { name: 'weight_kg', kind: 'continuous', role: 'analysis', cell: normal(76, 13, 1) },
  { name: 'bmi', kind: 'continuous', cell: normal(26, 4, 2) },
  { name: 'sbp', kind: 'continuous', label: 'Systolic blood pressure (mmHg)', cell: whole(128, 16, 80, 220) },
  { name: 'dbp', kind: 'continuous', cell: whole(80, 10, 40, 130) },
  { name: 'pulse', kind: 'continuous', cell: whole(72, 11, 40, 140) },
  { name: 'temp', kind: 'continuous', cell: normal(36.8, 0.4, 1) },
  { name: 'glucose', kind: 'continuous', cell: whole(105, 28, 55, 320) },
  {
    name: 'diagnosis',
    kind: 'nominal',
    cell: pick(['I10', 'E11.9', 'J45.0', 'M54.5', 'F32.1', 'I25.1', 'K21.0', 'N18.3']),
  },
  { name: 'severity', kind: 'ordinal', cell: pick(['mild', 'moderate', 'severe']) },
  { name: 'smoker', kind: 'nominal', cell: pick(['Y', 'N']) },
  { name: 'pregnancies', kind: 'count', cell: poisson(2) },
  { name: 'pain', kind: 'ordinal', label: 'Pain score (0 to 10)', cell: whole(4, 2.5, 0, 10) },
  {
    name: 'admitted',
    kind: 'date',
    storage: 'datetime',
    cell: (c) =>
      `${day(19000, 300)(c)} ${String(c.whole(0, 23)).padStart(2, '0')}:${String(c.whole(0, 59)).padStart(2, '0')}`,
  },
  { name: 'los', kind: ['count', 'continuous'], label: 'Length of stay (days)', cell: poisson(5) },
  { name: 'outcome', kind: 'nominal', cell: pick([0, 1]) },
  { name: 'asa', kind: 'ordinal', label: 'ASA class', cell: pick([1, 2, 3, 4]) },
  { name: 'ward', kind: 'nominal', cell: pick(['A1', 'A2', 'B1', 'C3']) },
  { name: 'phone', kind: 'identifier', cell: (c) => `0${c.whole(100, 999)} ${c.whole(1000000, 9999999)}` },
  { name: 'notes', kind: 'text', cell: prose(6, 20) },
  { name: 'crp', kind: 'continuous', cell: skewed(6, 1.1, 1) },
  { name: 'gfr_stage', kind: 'ordinal', cell: pick(['G1', 'G2', 'G3a', 'G3b', 'G4']) },
];
