/** Pixels left of the weeks of a chart, for what stands below it to stand below its bars. */
export const WEEK_AXIS = 44;
