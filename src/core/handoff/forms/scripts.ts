import { isNumericStorage } from '../../extract/words';
import { adornedFor, groupedFor, PLAIN } from '../../read/number';
import type { Leaving, LeavingVariable } from '../leaving';
import { nativesOf, type Native } from '../native';
import { textFile, type FileOut } from './file';
import { posixFormat } from './moment-formats';

/** What a script has to know of a variable. */
interface Column {
  name: string;
  label: string | null;
  as: 'integer' | 'number' | 'boolean' | 'date' | 'instant' | 'text';
  decimal: string;
  /** How whole digits may be grouped, as a regular expression; empty where numbers stand as programs write them. */
  grouped: string;
  /** How days and moments are spelt, as POSIX has it; of truth, what stands for it. */
  format: string;
  /** Labels by code, and reasons by the codes that stand for no answer. */
  labels: [string, string][];
  missing: [string, string][];
  missingTexts: string[];
  factor: boolean;
  ordered: boolean;
  /** Whether some whole number has more digits than a double holds. */
  beyond: boolean;
}

function columnOf({ name, storage, entry, inspected }: LeavingVariable, native: Native): Column {
  const { written, kind } = inspected;
  const valid = entry.categories.filter(({ missing, label }) => !missing && label !== null);
  const form = written.numberForm.implied ? PLAIN : written.numberForm;
  return {
    name,
    label: entry.label,
    ...typeOf(storage, native),
    decimal: form.decimal,
    grouped: native.bare ? '' : groupedFor(form),
    labels: entry.categories.flatMap(({ code, label }) =>
      label === null ? [] : [[code, label] as [string, string]],
    ),
    missing: entry.categories.flatMap(({ code, missing, reason }) =>
      missing ? [[code, reason ?? 'other'] as [string, string]] : [],
    ),
    missingTexts: entry.missingTexts,
    factor: valid.length > 0 && (kind === 'nominal' || kind === 'ordinal' || kind === 'text'),
    ordered: kind === 'ordinal',
    beyond: native.beyond,
  };
}

function typeOf(storage: LeavingVariable['storage'], native: Native): Pick<Column, 'as' | 'format'> {
  const { type, spelling, wholeButMissing } = native;
  // Where labels were written no cell is a number any more.
  if (isNumericStorage(storage) && type !== 'text')
    return { as: storage === 'integer' ? 'integer' : 'number', format: '' };
  if (type === 'boolean' && spelling?.as === 'boolean') return { as: 'boolean', format: spelling.true };
  if ((type === 'day' || type === 'instant') && spelling?.as === 'moment' && wholeButMissing) {
    const even = spelling.fraction !== null || !spelling.pattern.includes('ss');
    const zoned = spelling.zone !== null && !/^(Z|UTC|[+-]00(:?00)?)$/.test(spelling.zone);
    if (type === 'day' || (even && !zoned))
      return { as: type === 'day' ? 'date' : 'instant', format: posixFormat(spelling) };
  }
  return { as: 'text', format: '' };
}

const columnsOf = (leaving: Leaving): Column[] => {
  const natives = nativesOf(leaving);
  return leaving.variables.map((variable, i) => columnOf(variable, natives[i]));
};

export const scriptFiles = (leaving: Leaving): FileOut[] => [
  textFile(`${leaving.name}.R`, () => rScript(leaving)),
  textFile(`${leaving.name}.py`, () => pythonScript(leaving)),
];

/** All signs of currencies of the basic plane, which not every language has a class for. */
const currencies = (): string =>
  Array.from({ length: 0xffff }, (_, code) => String.fromCharCode(code))
    .filter((sign) => /\p{Sc}/u.test(sign))
    .join('');

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

function rScript(leaving: Leaving): string {
  const { name, rows } = leaving;
  return `# Reads ${name.replace(/[^\x20-\x7e]/g, '?')}.csv into "extract", with base R alone: numbers, logicals, dates, moments (UTC), characters, and
# factors whose levels are codes. What was declared missing is NA. Attributes of each variable: label, labels (by code), missing
# (reasons by code). With labels_as_levels <- TRUE before it is sourced, levels of factors are labels.
if (!exists("labels_as_levels")) labels_as_levels <- FALSE
extract <- read.csv(${r(`${name}.csv`)}, header = TRUE, colClasses = "character", na.strings = character(0),
  check.names = FALSE, encoding = "UTF-8", blank.lines.skip = FALSE, strip.white = FALSE, fill = FALSE)
names(extract) <- enc2utf8(names(extract))
Encoding(names(extract)) <- "UTF-8"
if (nrow(extract) != ${rows.count})
  stop("${rows.count} rows were written, and ", nrow(extract), " are read")
.adorned <- ${r(adornedFor(currencies()))}
# Numbers as people write them: a currency or percent beside them, brackets or a minus, groups of thousands.
.number <- function(x, decimal, grouped) {
  if (!nzchar(grouped)) return(suppressWarnings(as.numeric(trimws(x))))
  known <- unique(x[!is.na(x)])
  found <- regmatches(trimws(known), regexec(.adorned, trimws(known), perl = TRUE))
  read <- vapply(found, function(part) {
    if (!length(part) || nzchar(part[2]) != nzchar(part[9])) return(NA_real_)
    signs <- c(part[2], part[3], part[4], part[7])
    signs <- signs[nzchar(signs)]
    if (length(signs) > 1) return(NA_real_)
    digits <- trimws(part[5], whitespace = "[\\\\h\\\\v]")
    at <- max(gregexpr(decimal, digits, fixed = TRUE)[[1]])
    whole <- if (at < 0) digits else substr(digits, 1, at - 1)
    rest <- if (at < 0) "" else substring(digits, at + 1)
    if (!grepl(grouped, whole, perl = TRUE) || !grepl("^[0-9]*$", rest) || !nzchar(paste0(whole, rest))) return(NA_real_)
    value <- as.numeric(paste0(gsub("[^0-9]", "", whole), ".", rest, part[6]))
    if (length(signs) && signs != "+") -value else value
  }, numeric(1))
  read[match(x, known)]
}
.day <- function(x, format) as.Date(trimws(x), format = format)
.instant <- function(x, format) as.POSIXct(strptime(trimws(x), sub("%S.%f", "%OS", format, fixed = TRUE), tz = "UTC"))
.take <- function(name, as, label, labels, missing, texts, factor, ordered, decimal, grouped, format) {
  x <- extract[[name]]
  Encoding(x) <- "UTF-8"
  x[!nzchar(x) | x %in% texts | x %in% names(missing)] <- NA
  numeric <- as == "integer" || as == "number"
  values <- if (numeric) .number(x, decimal, grouped)
  codes <- setdiff(names(labels), names(missing))
  if (numeric) {
    number <- function(code) {
      plain <- .number(code, ".", "")
      ifelse(is.na(plain), .number(code, decimal, grouped), plain)
    }
    gone <- number(names(missing))
    isGone <- values %in% gone[!is.na(gone)]
    x[isGone] <- NA
    values[isGone] <- NA
    # A code is the same however its number is written.
    same <- match(values, number(codes), incomparables = NA)
    x[!is.na(same)] <- codes[same[!is.na(same)]]
  }
  if (factor) {
    levels <- union(codes, sort(unique(x[!is.na(x)])))
    shown <- levels
    if (labels_as_levels) {
      has <- levels %in% names(labels)
      shown[has] <- labels[levels[has]]
      twice <- shown %in% shown[duplicated(shown)]
      shown[twice] <- paste0(shown[twice], " (", levels[twice], ")")
    }
    y <- factor(x, levels = levels, labels = shown, ordered = ordered)
  } else if (numeric) {
    y <- values
  } else if (as == "boolean") {
    y <- x == format
  } else if (as == "date") {
    y <- .day(x, format)
  } else if (as == "instant") {
    y <- .instant(x, format)
  } else {
    y <- x
  }
  attr(y, "label") <- label
  attr(y, "labels") <- labels
  attr(y, "missing") <- missing
  extract[[name]] <<- y
}
${columnsOf(leaving)
  .map(
    (one) =>
      // A double would tell some of them no longer apart.
      `.take(${r(one.name)}, ${r(one.beyond ? 'text' : one.as)}, ${one.label === null ? 'NULL' : r(one.label)}, ${rNamed(one.labels)}, ${rNamed(one.missing)}, ${rTexts(one.missingTexts)}, ${one.factor ? 'TRUE' : 'FALSE'}, ${one.ordered ? 'TRUE' : 'FALSE'}, ${r(one.decimal)}, ${r(one.grouped)}, ${r(one.format)})`,
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

function pythonScript(leaving: Leaving): string {
  const { name, rows } = leaving;
  return `# -*- coding: utf-8 -*-
"""Reads the delimited file beside it with the standard library alone. extract[name] is a list of int, float, bool, date,
datetime (UTC), str or None (blank, or declared missing), beside label[name], labels[name][code], missing[name][code] (why).
frame() makes a data frame of it where pandas is installed; frame(with_labels=True) has categories that are labels."""
import csv
import os
import re
import sys
from datetime import datetime

csv.field_size_limit(min(sys.maxsize, 2**31 - 1))
_file = os.path.join(os.path.dirname(os.path.abspath(__file__)), ${py(`${name}.csv`)})
_columns = [
${columnsOf(leaving)
  .map(
    (one) =>
      `    (${py(one.name)}, ${py(one.as)}, ${one.label === null ? 'None' : py(one.label)}, {${one.labels.map(([code, label]) => `${py(code)}: ${py(label)}`).join(', ')}}, {${one.missing.map(([code, reason]) => `${py(code)}: ${py(reason)}`).join(', ')}}, ${py(one.missingTexts)}, ${one.factor ? (one.ordered ? '"ordered"' : '"factor"') : '""'}, ${py(one.decimal)}, ${py(one.grouped)}, ${py(one.format)}),`,
  )
  .join('\n')}
]
_adorned = re.compile(${py(adornedFor(currencies()))})
_bare = re.compile(r"[+-]?([0-9]+\\.?[0-9]*|\\.[0-9]+)([eE][+-]?[0-9]{1,3})?")


def _plain(text, decimal, grouped):
    """A number as programs write it; None where a text is none. It may have a currency or percent beside it, brackets or
    a minus, groups of thousands."""
    text = text.strip()
    if not grouped:
        return text if _bare.fullmatch(text) else None
    found = _adorned.match(text)
    if not found:
        return None
    opened, sign, inner, digits, power, after, _, closed = found.groups()
    signs = [one for one in (opened, sign, inner, after) if one is not None]
    if (opened is None) != (closed is None) or len(signs) > 1:
        return None
    whole, mark, rest = digits.strip().rpartition(decimal)
    if not mark:
        whole, rest = rest, ""
    if not re.match(grouped, whole) or not re.fullmatch("[0-9]*", rest) or not whole + rest:
        return None
    bare = re.sub("[^0-9]", "", whole) or "0"
    minus = "-" if signs and signs[0] != "+" else ""
    return minus + bare + ("." + rest if rest else "") + (power or "")


def _value(text, kind, decimal, grouped, form):
    if kind in ("integer", "number"):
        plain = _plain(text, decimal, grouped)
        if plain is None:
            return None
        if kind == "integer" and re.fullmatch("[+-]?[0-9]+", plain):
            return int(plain)
        value = float(plain)
        return int(value) if kind == "integer" and value.is_integer() else value
    if kind == "boolean":
        return text == form
    if kind in ("date", "instant"):
        try:
            read = datetime.strptime(text.strip(), form)
        except ValueError:
            return None
        return read.date() if kind == "date" else read
    return text


extract, label, labels, missing = {}, {}, {}, {}
with open(_file, encoding="utf-8", newline="") as _opened:
    _rows = list(csv.reader(_opened))[1:]
if len(_rows) != ${rows.count}:
    raise ValueError("${rows.count} rows were written, and %d are read" % len(_rows))
for _at, (_name, _kind, _label, _labels, _missing, _texts, _factor, _decimal, _grouped, _form) in enumerate(_columns):
    _gone = set(_missing) | set(_texts) | {""}
    _numbers = set()
    if _kind in ("integer", "number"):
        _numbers = {_value(code, _kind, ".", "", "") for code in _gone}
        _numbers |= {_value(code, _kind, _decimal, _grouped, "") for code in _gone}
    _known = {text: None for text in _gone}
    for _row in _rows:
        if _row[_at] not in _known:
            _read = _value(_row[_at], _kind, _decimal, _grouped, _form)
            _known[_row[_at]] = None if _read in _numbers else _read
    extract[_name] = [_known[_row[_at]] for _row in _rows]
    label[_name], labels[_name], missing[_name] = _label, _labels, _missing


def frame(with_labels=False):
    """The extract as a data frame of pandas: labelled codes are categories, in their order; or labels, with with_labels."""
    import pandas

    made = {}
    for name, kind, _, of, gone, _, factor, decimal, grouped, form in _columns:
        values = extract[name]
        if factor:
            codes = {_value(code, kind, decimal, grouped, form): code for code in of if code not in gone}
            rest = sorted({one for one in values if one is not None and one not in codes}, key=str)
            made[name] = pandas.Series(
                pandas.Categorical(values, categories=list(codes) + rest, ordered=factor == "ordered")
            )
            if with_labels:
                shown = [of[codes[one]] if one in codes else str(one) for one in made[name].cat.categories]
                twice = {one for one in shown if shown.count(one) > 1}
                made[name] = made[name].cat.rename_categories(
                    ["%s (%s)" % (text, one) if text in twice else text for text, one in zip(shown, made[name].cat.categories)]
                )
        elif kind in ("date", "instant"):
            made[name] = pandas.Series(pandas.to_datetime(values, errors="coerce"))
        elif kind == "integer" and all(one is None or isinstance(one, int) for one in values):
            # Whole numbers with more digits than 64 bits hold stay what they are.
            fits = all(one is None or -(2**63) <= one < 2**63 for one in values)
            made[name] = pandas.Series(values, dtype="Int64" if fits else "object")
        elif kind in ("integer", "number"):
            made[name] = pandas.Series(values, dtype="float64")
        elif kind == "boolean":
            made[name] = pandas.Series(values, dtype="boolean")
        else:
            made[name] = pandas.Series(values, dtype="object")
    table = pandas.DataFrame(made)
    table.attrs.update(label=label, labels=labels, missing=missing)
    return table
`;
}
