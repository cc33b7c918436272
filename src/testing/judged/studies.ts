import type { Judged } from './judged';
import { survey } from './survey';
import { clinic } from './clinic';
import { registry } from './registry';
import { school } from './school';
import { terse } from './terse';
import { microdata } from './microdata';
import { poll, documented } from './polls';
import { accounts, calendar, landings, returns, tremors } from './registers';
import { choices, food, visits, fields, orders } from './designs';
import { archived } from './archived';
import { diary, firms, kennels } from './panels';

/** Studies whose variables are judged as an expert would, by name. */
export const STUDIES: Readonly<Record<string, readonly Judged[]>> = {
  survey,
  clinic,
  registry,
  school,
  terse,
  microdata,
  poll,
  documented,
  landings,
  accounts,
  returns,
  tremors,
  choices,
  food,
  visits,
  fields,
  orders,
  diary,
  kennels,
  firms,
  archived,
  calendar,
};
