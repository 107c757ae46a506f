/** Labels on a sheet of A4 (ISO 216: 210 × 297 mm), as they are sold in most places: 21 or 14 of them. */
export const LABEL_SIZES = ['small', 'large'] as const;
export type LabelSize = (typeof LABEL_SIZES)[number];

/** How they lie on the sheet; all in millimetres. */
export interface LabelForm {
  readonly across: number;
  readonly down: number;
  readonly width: number;
  readonly height: number;
  /** Where the first begins, and how far it is from one to the next. */
  readonly left: number;
  readonly top: number;
  readonly stepAcross: number;
  readonly stepDown: number;
}

export const LABEL_FORMS: Readonly<Record<LabelSize, LabelForm>> = {
  small: {
    ...{ across: 3, down: 7, width: 63.5, height: 38.1 },
    ...{ left: 7.25, top: 15.15, stepAcross: 66, stepDown: 38.1 },
  },
  large: {
    ...{ across: 2, down: 7, width: 99.1, height: 38.1 },
    ...{ left: 4.65, top: 15.15, stepAcross: 101.6, stepDown: 38.1 },
  },
};

export const labelsOfSheet = ({ across, down }: LabelForm): number => across * down;

/** Where a label stands: the sheet, from 0, and its upper left corner in millimetres. */
export interface LabelPlace {
  readonly sheet: number;
  readonly x: number;
  readonly y: number;
}

/**
 * Where so many labels stand, line by line.
 * @param first the place on the first sheet at which they begin, from 1: labels before it are used already
 * @throws RangeError where there is no such place
 */
export function labelPlaces(form: LabelForm, count: number, first = 1): LabelPlace[] {
  const each = labelsOfSheet(form);
  if (!Number.isInteger(first) || first < 1 || first > each) throw new RangeError(`A sheet has places 1 to ${each}.`);
  return Array.from({ length: count }, (_, i) => {
    const place = i + first - 1;
    const at = place % each;
    return {
      sheet: Math.floor(place / each),
      x: form.left + (at % form.across) * form.stepAcross,
      y: form.top + Math.floor(at / form.across) * form.stepDown,
    };
  });
}
