import * as z from 'zod';

const name = z.string().min(1);
const bound = z.union([z.number(), z.string().min(1)]);
const band = z.union([
  z.strictObject({ from: bound, to: bound.optional(), code: name, label: z.string().optional() }),
  z.strictObject({ to: bound, code: name, label: z.string().optional() }),
  z.strictObject({ values: z.array(z.string()).min(1), code: name, label: z.string().optional() }),
]);
export type Band = z.infer<typeof band>;

const common = {
  name,
  of: name,
  label: z.string().optional(),
  /** What a row in no band, bin or pick becomes: blank, or it keeps its code and label. */
  rest: z.enum(['blank', 'same']).optional(),
};

/** A trial recode: a variable made of another, which touches no data. */
export const recodeSchema = z.union([
  z.strictObject({ ...common, bands: z.array(band).min(1) }),
  z.strictObject({ ...common, width: z.strictObject({ size: z.number().positive(), start: z.number() }) }),
  z.strictObject({ ...common, only: z.array(z.string()).min(1) }),
]);
export type Recode = z.infer<typeof recodeSchema>;

/** Trial recodes as they are saved and exchanged. */
export const recodesSchema = z.object({
  format: z.literal('dig-first-recodes'),
  version: z.literal(1),
  recodes: z.array(recodeSchema).min(1),
});
export type RecodesFile = z.infer<typeof recodesSchema>;

/** Where a document holds no recodes, and why; or the recodes. */
export function readRecodes(found: unknown): { recodes: Recode[] } | { element: string; says: string } {
  const read = recodesSchema.safeParse(found);
  if (read.success) return { recodes: read.data.recodes };
  const list = typeof found === 'object' && found !== null && 'recodes' in found ? found.recodes : null;
  if (Array.isArray(list))
    for (const [i, one] of list.entries()) {
      const wrong = wrongIn(one, `recodes.${i}`);
      if (wrong) return wrong;
    }
  const [{ path, message }] = read.error.issues;
  return {
    element: path.join('.') || 'the document',
    says: `these are no recodes that are known here (${message})`,
  };
}

function wrongIn(found: unknown, element: string): { element: string; says: string } | null {
  const read = recodeSchema.safeParse(found);
  if (read.success) return null;
  if (typeof found !== 'object' || found === null || !('name' in found) || !('of' in found))
    return { element, says: 'a recode has a name, and says of which variable it is made' };
  const ways = ['bands', 'width', 'only'].filter((way) => way in found);
  if (ways.length !== 1)
    return {
      element,
      says: `a recode is made in one way: by bands, width or only${ways.length ? `, not by ${ways.join(' and ')}` : ''}`,
    };
  if (ways[0] === 'bands' && 'bands' in found && Array.isArray(found.bands)) {
    const at = found.bands.findIndex((one) => !band.safeParse(one).success);
    if (at >= 0)
      return {
        element: `${element}.bands.${at}`,
        says: 'a band has from or to, or values, and a code, all codes as texts',
      };
  }
  return {
    element: `${element}.${ways[0]}`,
    says:
      ways[0] === 'width'
        ? 'width has a size above zero and a start, both numbers'
        : ways[0] === 'only'
          ? 'only is a list of codes, as texts'
          : 'bands is a list of at least one band; nothing else stands beside it but name, of, label and rest',
  };
}
