import { reasonOfLabel } from '../codebook/missing-words';
import type { CodebookEntry, CodeRange } from '../extract/extract';
import type { Reason } from '../extract/words';
import { PLAIN, readNumber, type NumberForm } from '../read/number';
import { NO_OTHERS, type Level, type Told } from './level-list';

/** A code that stands for no answer, with who says so. */
export interface DeclaredMissing {
  code: string;
  label: string | null;
  reason: Reason;
  declaredBy: 'codebook' | 'ruling';
}

const inside = (value: number, { min, max }: CodeRange): boolean =>
  (min !== null || max !== null) && (min === null || value >= min) && (max === null || value <= max);

/**
 * Finds what a codebook entry and the rulings declare about a text. Codes meet by text, or by number where both are
 * numbers: the codebook's `9` is the file's `9.0`. A ruling comes before the codebook.
 */
export class Declarations {
  private readonly byText = new Map<string, DeclaredMissing>();
  private readonly byNumber = new Map<number, DeclaredMissing>();
  private readonly labelByText = new Map<string, string>();
  private readonly labelByNumber = new Map<number, string>();

  /** @param form how the data write numbers; the codebook writes them plainly, or as the data do */
  constructor(
    private readonly entry: CodebookEntry | null,
    ruled: readonly { code: string; reason: Reason }[] = [],
    private readonly form: NumberForm = PLAIN,
  ) {
    for (const text of entry?.missingTexts ?? [])
      this.declare({
        code: text,
        label: null,
        reason: reasonOfLabel(text) ?? 'other',
        declaredBy: 'codebook',
      });
    for (const { code, label, missing, reason } of entry?.categories ?? []) {
      const number = this.documented(code);
      if (label !== null) {
        this.labelByText.set(code.trim(), label);
        if (number !== null) this.labelByNumber.set(number, label);
      }
      if (missing) this.declare({ code, label, reason: reason ?? 'other', declaredBy: 'codebook' });
    }
    for (const { code, reason } of ruled)
      this.declare({ code, label: this.label(code), reason, declaredBy: 'ruling' });
  }

  private documented(code: string): number | null {
    return readNumber(code) ?? readNumber(code, this.form);
  }

  /** Whether nothing is declared or labelled at all. */
  get none(): boolean {
    return this.byText.size === 0 && this.labelByText.size === 0 && !this.entry?.missingRanges.length;
  }

  /** What is declared of a code, and its label; `null` where nothing is. */
  of(code: string): Told | null {
    const label = this.label(code);
    const declared = this.missing(code);
    if (!declared)
      return label === null ? null : { label, reason: null, declaredBy: null, spellings: NO_OTHERS };
    const { reason, declaredBy } = declared;
    return { label, reason, declaredBy, spellings: NO_OTHERS };
  }

  /** Marks a level with its label and, if its code is declared missing, with that. */
  mark(level: Level): void {
    const said = this.of(level.code);
    level.label = said?.label ?? null;
    if (!said?.declaredBy) return;
    level.standing = said.reason === 'not-asked' ? 'not-asked' : 'missing';
    level.reason = said.reason;
    level.declaredBy = said.declaredBy;
  }

  private declare(declared: DeclaredMissing): void {
    this.byText.set(declared.code.trim(), declared);
    const number =
      declared.declaredBy === 'ruling'
        ? readNumber(declared.code, this.form)
        : this.documented(declared.code);
    if (number !== null) this.byNumber.set(number, declared);
  }

  missing(text: string): DeclaredMissing | null {
    const bare = text.trim();
    const number = readNumber(bare, this.form);
    const declared = this.byText.get(bare) ?? (number === null ? undefined : this.byNumber.get(number));
    if (declared) return declared;
    if (number !== null && this.entry?.missingRanges.some((range) => inside(number, range))) {
      return { code: bare, label: this.label(bare), reason: 'other', declaredBy: 'codebook' };
    }
    return null;
  }

  label(text: string): string | null {
    const bare = text.trim();
    const number = readNumber(bare, this.form);
    return (
      this.labelByText.get(bare) ?? (number === null ? undefined : this.labelByNumber.get(number)) ?? null
    );
  }
}
