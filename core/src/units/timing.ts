/** How exactly strokes stand in time: what counts as the same one, and what comes early for its beat. */

/** Two strokes this near are the same one: nobody strikes twice within it (sixteenths at 240 bpm are 62 ms apart). */
export const SAME_STROKE_S = 0.05;
/** A strum that comes up to this much early belongs to the bar, and the pass, that it comes early for. */
export const EARLY_S = 0.06;
