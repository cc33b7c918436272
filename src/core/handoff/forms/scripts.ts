import type { DateForm } from '../../infer/dates';
import { isNumericStorage } from '../../extract/words';
import type { Leaving, LeavingVariable } from '../leaving';
import { textFile, type FileOut } from './file';

/** What a script has to know of a variable. */
interface Column {
  name: string;
  label: string | null;
  /** `number`, `date`, or `text`. */
  as: 'integer' | 'number' | 'date' | 'text';
  decimal: string;
  thousands: string;
  order: 'ymd' | 'dmy' | 'mdy';
  /** Labels by code, and reasons by the codes that stand for no answer. */
  labels: [string, string][];
  missing: [string, string][];
  missingTexts: string[];
  factor: boolean;
  ordered: boolean;
}

const ORDERS: Partial<Record<DateForm, Column['order']>> = { dmy: 'dmy', mdy: 'mdy' };
/** Forms that are read as year, month, day by their digits. */
const DAYS: readonly DateForm[] = ['ymd', 'dmy', 'mdy', 'compact'];

function columnOf({ name, storage, entry, inspected }: LeavingVariable): Column {
  const { written, kind } = inspected;
  const form = written.dateForm ?? 'ymd';
  const valid = entry.categories.filter(({ missing, label }) => !missing && label !== null);
  const numeric = isNumericStorage(storage);
  return {
    name,
    label: entry.label,
    as: numeric
      ? storage === 'integer'
        ? 'integer'
        : 'number'
      : storage === 'date' && DAYS.includes(form)
        ? 'date'
        : 'text',
    decimal: written.numberForm.decimal,
    thousands: written.numberForm.thousands ?? '',
    order: ORDERS[form] ?? 'ymd',
    labels: entry.categories.flatMap(({ code, label }) =>
      label === null ? [] : [[code, label] as [string, string]],
    ),
    missing: entry.categories.flatMap(({ code, missing, reason }) =>
      missing ? [[code, reason ?? 'other'] as [string, string]] : [],
    ),
    missingTexts: entry.missingTexts,
    factor: valid.length > 0 && (kind === 'nominal' || kind === 'ordinal' || kind === 'text'),
    ordered: kind === 'ordinal',
  };
}

export const scriptFiles = (leaving: Leaving): FileOut[] => [
  textFile(`${leaving.name}.R`, () => rScript(leaving)),
  textFile(`${leaving.name}.py`, () => pythonScript(leaving)),
];

/** A text of R: everything beyond ASCII as an escape, so that no locale reads it otherwise. */
const r = (text: string): string =>
  `"${[...text]
    .map((sign) => {
      const code = sign.codePointAt(0) ?? 0;
      if (sign === '"' || sign === '\\') return `\\${sign}`;
      return code >= 32 && code < 127 ? sign : `\\U{${code.toString(16)}}`;
    })
    .join('')}"`;
const rNamed = (pairs: readonly (readonly [string, string])[]): string =>
  pairs.length
    ? `setNames(c(${pairs.map(([, value]) => r(value)).join(', ')}), c(${pairs.map(([key]) => r(key)).join(', ')}))`
    : 'setNames(character(0), character(0))';
const rTexts = (texts: readonly string[]): string =>
  texts.length ? `c(${texts.map(r).join(', ')})` : 'character(0)';

function rScript({ name, variables }: Leaving): string {
  return `# Reads ${name.replace(/[^\x20-\x7e]/g, '?')}.csv into "extract", with base R alone: numbers, dates, characters, and factors whose
# levels are codes. What was declared missing is NA. Attributes of each variable: label, labels (by code), missing
# (reasons by code).
extract <- read.csv(${r(`${name}.csv`)}, header = TRUE, colClasses = "character", na.strings = character(0),
  check.names = FALSE, fileEncoding = "UTF-8", blank.lines.skip = FALSE, strip.white = FALSE)
.number <- function(x, decimal, thousands) {
  x <- trimws(x)
  if (nzchar(thousands)) x <- gsub(thousands, "", x, fixed = TRUE)
  if (decimal != ".") x <- sub(decimal, ".", x, fixed = TRUE)
  suppressWarnings(as.numeric(x))
}
.day <- function(x, order) {
  x <- trimws(x)
  compact <- grepl("^[0-9]{8}$", x)
  x[compact] <- paste(substr(x[compact], 1, 4), substr(x[compact], 5, 6), substr(x[compact], 7, 8), sep = "-")
  x <- gsub("[^0-9]+", "-", x)
  x[!grepl("^[0-9]+-[0-9]+-[0-9]+$", x)] <- NA
  as.Date(x, format = switch(order, dmy = "%d-%m-%Y", mdy = "%m-%d-%Y", "%Y-%m-%d"))
}
.take <- function(name, as, label, labels, missing, texts, factor, ordered, decimal, thousands, order) {
  x <- extract[[name]]
  x[x == "" | x %in% texts | x %in% names(missing)] <- NA
  if (as == "integer" || as == "number") {
    known <- suppressWarnings(as.numeric(names(missing)))
    values <- .number(x, decimal, thousands)
    x[values %in% known[!is.na(known)]] <- NA
  }
  if (factor) {
    codes <- setdiff(names(labels), names(missing))
    y <- factor(x, levels = union(codes, sort(unique(x[!is.na(x)]))), ordered = ordered)
  } else if (as == "integer" || as == "number") {
    y <- .number(x, decimal, thousands)
  } else if (as == "date") {
    y <- .day(x, order)
  } else {
    y <- x
  }
  attr(y, "label") <- label
  attr(y, "labels") <- labels
  attr(y, "missing") <- missing
  extract[[name]] <<- y
}
${variables
  .map(columnOf)
  .map(
    (one) =>
      `.take(${r(one.name)}, ${r(one.as)}, ${one.label === null ? 'NULL' : r(one.label)}, ${rNamed(one.labels)}, ${rNamed(one.missing)}, ${rTexts(one.missingTexts)}, ${one.factor ? 'TRUE' : 'FALSE'}, ${one.ordered ? 'TRUE' : 'FALSE'}, ${r(one.decimal)}, ${r(one.thousands)}, ${r(one.order)})`,
  )
  .join('\n')}
`;
}

/** A text of Python: JSON's is one. */
const py = (value: unknown): string =>
  JSON.stringify(value).replace(
    /[\u2028\u2029\u0085]/g,
    (sign) => `\\u${sign.charCodeAt(0).toString(16).padStart(4, '0')}`,
  );

function pythonScript({ name, variables }: Leaving): string {
  return `# -*- coding: utf-8 -*-
"""Reads the delimited file beside it with the standard library alone. extract[name] is a list of int, float, date, str or
None (blank, or declared missing), beside label[name], labels[name][code], missing[name][code] (why)."""
import csv
import os
import re
import sys
from datetime import date

csv.field_size_limit(min(sys.maxsize, 2**31 - 1))
_file = os.path.join(os.path.dirname(os.path.abspath(__file__)), ${py(`${name}.csv`)})
_columns = [
${variables
  .map(columnOf)
  .map(
    (one) =>
      `    (${py(one.name)}, ${py(one.as)}, ${one.label === null ? 'None' : py(one.label)}, {${one.labels.map(([code, label]) => `${py(code)}: ${py(label)}`).join(', ')}}, {${one.missing.map(([code, reason]) => `${py(code)}: ${py(reason)}`).join(', ')}}, ${py(one.missingTexts)}, ${py(one.decimal)}, ${py(one.thousands)}, ${py(one.order)}),`,
  )
  .join('\n')}
]


def _number(text, decimal, thousands):
    text = text.strip()
    if thousands:
        text = text.replace(thousands, "")
    if decimal != ".":
        text = text.replace(decimal, ".", 1)
    try:
        return float(text)
    except ValueError:
        return None


def _whole(text, thousands):
    text = text.strip().replace(thousands, "") if thousands else text.strip()
    return int(text) if re.fullmatch(r"[+-]?[0-9]+", text) else None


def _day(text, order):
    text = text.strip()
    parts = [text[:4], text[4:6], text[6:]] if re.fullmatch(r"[0-9]{8}", text) else re.split(r"[^0-9]+", text)
    try:
        a, b, c = (int(part) for part in parts)
        return date(c, b, a) if order == "dmy" else date(c, a, b) if order == "mdy" else date(a, b, c)
    except ValueError:
        return None


def _value(text, kind, gone, numbers, decimal, thousands, order):
    if text == "" or text in gone:
        return None
    if kind in ("integer", "number"):
        value = _number(text, decimal, thousands)
        if value is None or value in numbers:
            return None
        whole = _whole(text, thousands) if kind == "integer" else None
        return value if whole is None else whole
    return _day(text, order) if kind == "date" else text


extract, label, labels, missing = {}, {}, {}, {}
with open(_file, encoding="utf-8", newline="") as _opened:
    _rows = list(csv.reader(_opened))[1:]
for _at, (_name, _kind, _label, _labels, _missing, _texts, _decimal, _thousands, _order) in enumerate(_columns):
    _gone = set(_missing) | set(_texts)
    _numbers = {_number(code, ".", "") for code in _gone} - {None}
    extract[_name] = [
        _value(_row[_at], _kind, _gone, _numbers, _decimal, _thousands, _order) for _row in _rows
    ]
    label[_name], labels[_name], missing[_name] = _label, _labels, _missing
`;
}
