import type { RowName } from '../core/extract/row-names';
import type { AsideBy } from '../core/inspect/basis';
import type { Kind } from '../core/extract/words';
import type { Flag } from '../core/flags/rule';
import { baseSays } from '../core/handoff/base';
import { chartFile } from '../core/handoff/chart';
import { inventoryCsv } from '../core/handoff/inventory';
import { reportHtml } from '../core/handoff/report';
import { conditionsOfCell, type CellAt } from '../core/inspect/cell-rows';
import type { CrossDocument } from '../core/inspect/cross-document';
import type { KeptTable } from '../core/cross/kept-table';
import type { Pair } from '../core/cross/ranked';
import {
  middleOf,
  recodableOf,
  recodePreviewOf,
  type Recodable,
  type RecodePreview,
} from '../core/inspect/recoding';
import { skipOf, type Skip } from '../core/inspect/skip';
import { evidenceOf, type Evidence } from '../core/inspect/evidence';
import { Inspector } from '../core/inspect/inspect';
import { documented } from '../core/inspect/inspected';
import { jsonPieces } from '../core/handoff/json-pieces';
import { onlyOf } from '../core/inspect/sets-told';
import type { ListAsk } from '../core/inspect/listing';
import type { WholeListing } from '../core/inspect/whole-listing';
import type { ToldCell } from '../core/inspect/told-rows';
import { previewOf, type Preview } from '../core/inspect/preview';
import { profileOf, type Profile } from '../core/inspect/profile';
import {
  codesOf,
  effectsOf,
  holdingOf,
  likeOf,
  peekOf,
  sievableOf,
  understoodOf,
  type CodeHeld,
  type KindEffect,
  type Like,
  type Peeked,
  type Sievable,
  type UnderstoodLine,
} from '../core/inspect/questions';
import { recordOf, type RecordAt, type RecordCard } from '../core/inspect/record';
import type { InspectedVariable } from '../core/inspect/schema';
import { groupedBy, type Grouped } from '../core/inspect/grouped';
import { batteryOf, type Battery } from '../core/inspect/together';
import type { Entry } from '../core/log/entries';
import { sheetLines, type SheetLine } from '../core/inspect/sheet';
import { belongsTo, type Belongs } from '../core/sets/belongs';
import type { Recode } from '../core/recode/recode';
import type { Condition, Part } from '../core/sieve/condition';
import type { LeavingAsk } from '../core/handoff/leaving';
import { leavingTold, type LeavingTold } from './handing-off';
import { holdingAmong, nextOf, Records, type FoundAt, type ListedRow } from './records';
import { againstSome, crossOf, tableFile, tableTexts } from './tables';

/** What is asked of the open extract: nothing changes by asking. */
export abstract class Questions {
  private readonly records = new Records();

  /** The open extract. @throws InputError where none is open */
  protected abstract get opened(): Inspector;
  /** The log that is laid over it. */
  protected abstract get log(): readonly Entry[];
  /** The listing of all rows that an ask means; `null` where it means none, or one that holds no more. */
  protected abstract wholeOf(ask: Pick<ListAsk, 'whole'>): WholeListing | null;

  /** Zero-based places in such a listing that hold a text in some variables, ascending; `null` where it was not looked for. */
  protected abstract foundIn(ask: ListAsk, text: string, names: string[]): Uint32Array | null;

  /** What a sieve would do to the rows; nothing changes by asking. */
  preview(parts: Part[]): Preview {
    return previewOf(this.opened, parts);
  }

  /** What conditions on a variable are made of. */
  sievable(name: string): Sievable | null {
    return sievableOf(this.opened, name);
  }

  /** A pasted sheet of corrections, checked line by line. */
  sheet(text: string): SheetLine[] {
    return sheetLines(this.opened, text);
  }

  /** How many rows a listing has. */
  listed(ask: ListAsk): number {
    if (ask.which === 'whole') return this.wholeOf(ask)?.rows ?? 0;
    return this.records.listing(this.opened, ask).rows.length;
  }

  /** Some rows of a listing with the cells of some variables. @param from zero-based place in the listing */
  async listedRows(ask: ListAsk, from: number, take: number, names: string[]): Promise<ListedRow[]> {
    if (ask.which === 'whole')
      return ((await this.wholeOf(ask)?.told(from, take, names)) ?? []).map((row) => ({
        ...row,
        aside: false,
        failed: [],
      }));
    return this.records.rows(this.opened, ask, { from, take, names });
  }

  /** A cell of a listing as it is, however long; `null` where there is none. @param place zero-based, in the listing */
  async cellAt(ask: ListAsk, place: number, variable: string): Promise<ToldCell | null> {
    return (await this.listedRows(ask, place, 1, [variable])).at(0)?.cells.at(0) ?? null;
  }

  /** Cells as they are, however long: what is decided of them is not decided of a part. @param row zero-based, of the whole extract */
  wholeCells(cells: { row: number; variable: string }[]): Promise<ToldCell[]> {
    return this.records.cells(this.opened, cells);
  }

  /** Rows of a listing that hold a text in some variables, in number; `null` where it has to be looked for in all rows first. */
  found(ask: ListAsk, text: string, names: string[]): number | null {
    if (ask.which === 'whole') return this.foundIn(ask, text, names)?.length ?? null;
    return this.records.found(this.opened, ask, text, names);
  }

  /** The next such row. @param from zero-based place in the listing behind or before which it is looked for */
  async nextFound(
    ask: ListAsk,
    text: string,
    names: string[],
    from: number,
    back: boolean,
  ): Promise<FoundAt | null> {
    if (ask.which === 'whole') {
      const next = nextOf(this.foundIn(ask, text, names) ?? [], from, back);
      const [row] = next ? await this.listedRows(ask, next.place, 1, names) : [];
      return next && row ? { ...next, variable: holdingAmong(row.cells, text) ?? names[0] } : null;
    }
    return this.records.next(this.opened, ask, { text, names, from, back });
  }

  /** Zero-based place in a listing of a row by its one-based number, or by what identifies it. */
  placeIn(ask: ListAsk, sought: string): number | null {
    if (ask.which === 'whole')
      return /^\d+$/.test(sought.trim()) ? (this.wholeOf(ask)?.placeOf(Number(sought)) ?? null) : null;
    return this.records.placeOf(this.opened, ask, sought);
  }

  /** Names of all rows of a flag, also of those that it was not told with. */
  rowsOfFlag(flag: Flag): RowName[] {
    return this.records.namesOf(this.opened, flag);
  }

  /** Rows as a decision names them. @param rows zero-based, of the whole extract */
  nameRows(rows: number[]): RowName[] {
    return this.opened.nameRows(rows);
  }

  /** Entries that set a row aside, each with the other rows that it names. */
  asideBy(rows: readonly number[]): AsideBy[] {
    return this.opened.asideBy(rows, this.log);
  }

  understood(text: string, names: string[]): UnderstoodLine[] {
    return understoodOf(this.opened, text, names);
  }

  effects(names: string[], kind: Kind): KindEffect[] {
    return effectsOf(this.opened, names, kind);
  }

  like(name: string): Like[] {
    return likeOf(this.opened, name);
  }

  peek(name: string): Peeked[] {
    return peekOf(this.opened, name);
  }

  codes(names: string[]): CodeHeld[] {
    return codesOf(this.opened, names);
  }

  holding(texts: string[]): [text: string, variables: string[]][] {
    return [...holdingOf(this.opened, texts)];
  }

  /** Variables that may belong to a set too. @param members names of those that are in it */
  belongs(members: string[]): Belongs[] {
    return belongsTo(this.opened.belonging, members);
  }

  /** All cells of one row, with their labels; `null` where it is of a listing that holds no more. */
  async record(at: RecordAt): Promise<RecordCard | null> {
    if (typeof at === 'number') return recordOf(this.opened, at);
    return (await this.wholeOf(at)?.card(at.place)) ?? null;
  }

  /** What a flag rests on. */
  evidence(flag: Flag): Promise<Evidence | null> {
    return evidenceOf(flag, this.opened);
  }

  /** Variables of one list of codes as one table. */
  battery(names: string[]): Battery | null {
    return batteryOf(names.flatMap((name) => this.opened.named(name) ?? []));
  }

  /** The summary of a variable within the levels of another, or within the files. */
  grouped(name: string, by: string | null): Promise<Grouped | null> {
    return groupedBy(this.opened, name, by);
  }

  /** Variables held against each other. */
  cross(asked: KeptTable): Promise<CrossDocument> {
    return crossOf(this.opened, asked);
  }

  /** A table as a file. */
  tableFile(asked: KeptTable, form: 'csv' | 'svg'): Promise<string> {
    return tableFile(this.opened, asked, form);
  }

  /** A table as rows of texts. */
  tableTexts(asked: KeptTable): Promise<string[][]> {
    return tableTexts(this.opened, asked);
  }

  /** One variable against the first of some others, as many as some milliseconds allow. */
  against(of: string, names: string[]): Promise<{ pairs: Pair[]; done: number }> {
    return againstSome(this.opened, of, names);
  }

  /** What keeps the rows of a cell. */
  conditionsOfCell(asked: KeptTable, at: CellAt): Condition[] {
    return conditionsOfCell(this.opened, asked, at);
  }

  /** Who was asked, as a table of gate against gated. */
  skip(name: string): Skip | null {
    return skipOf(this.opened, name);
  }

  /** What trial recodes of a variable are made on. */
  recodable(name: string): Recodable | null {
    return recodableOf(this.opened, name);
  }

  /** The value in the middle of the rows of a stretch. */
  middle(name: string, from: number | null, to: number | null): number | null {
    return middleOf(this.opened, name, from, to);
  }

  /** What a trial recode would make of the rows. @param replaces the one whose place it would take */
  recodePreview(recode: Recode, replaces: string | null): RecodePreview {
    return recodePreviewOf(this.opened, recode, replaces);
  }

  /** What would go out, as it would be written. */
  leaving(ask: LeavingAsk): LeavingTold {
    return leavingTold(this.opened, ask, 5);
  }

  /** A chart as an SVG file. */
  async chart(name: string, binWidth: number | null, all = false): Promise<string | null> {
    const profile = await this.profile(name, binWidth, all);
    const { label } = profile?.variable ?? {};
    const base = this.opened.sifted ? baseSays(this.opened) : null;
    return profile && chartFile(profile.picture, `${name}${label ? `: ${label}` : ''}`, base);
  }

  /** Several variables as the inspection documents them. */
  documented(names: string[]): InspectedVariable[] {
    return names.flatMap((name) => {
      const found = this.opened.named(name);
      return found ? [documented(found, this.opened.said(name))] : [];
    });
  }

  profile(name: string, binWidth: number | null = null, all = false): Promise<Profile | null> {
    return profileOf(this.opened, name, { binWidth, all });
  }

  /** @param harmless whether cells that a spreadsheet would run are kept from it */
  inventory(names: string[], harmless = false): string {
    return inventoryCsv(this.opened, names, { harmless });
  }

  /** The inspection document, with no other variables and flags than of these. */
  inspection(names: string[]): Blob {
    return new Blob([...jsonPieces(onlyOf(this.opened.document(), names))]);
  }

  report(names: string[], madeAt: string): Promise<string> {
    return reportHtml(this.opened, this.log, names, new Date(madeAt));
  }
}
