/** Time is counted in whole ticks of a tenth of a nanosecond: exact in a double for over ten days. */
export const TICKS_PER_NS = 10;
/** A tick in seconds. */
export const TICK_S = 1e-10;
