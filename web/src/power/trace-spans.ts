/** Spans of time that can be looked at, in nanoseconds: from a gate delay to a day, each twice or two and a half times the one before. */
const SPANS = [
  ...Array.from({ length: 39 }, (_, i) => ([1, 2, 5][i % 3] ?? 1) * 10 ** (1 + Math.floor(i / 3))),
  86_400e9,
]
  .filter((span) => span <= 86_400e9)
  .sort((a, b) => a - b);
const [LEAST, MOST] = [Math.min(...SPANS), Math.max(...SPANS)];

/** The next longer or shorter span; the same where there is none. */
export const nextSpan = (spanNs: number, isLonger: boolean): number =>
  (isLonger ? SPANS.find((span) => span > spanNs) : SPANS.findLast((span) => span < spanNs)) ?? spanNs;

/** What is seen of a trace: a span of time, and its end; null where it ends now. */
export interface Sight {
  readonly spanNs: number;
  readonly endNs: number | null;
}

/** A sight made so many times longer about a place, a share of it from its beginning: what is there stays there. */
export function zoomed({ spanNs, endNs }: Sight, times: number, share: number, nowNs: number): Sight {
  const span = Math.max(LEAST, Math.min(MOST, spanNs * times));
  const at = (endNs ?? nowNs) - (1 - share) * spanNs;
  return { spanNs: span, endNs: atMostNow(at + (1 - share) * span, nowNs) };
}

/** A sight moved on by so much time, or back. */
export function panned({ spanNs, endNs }: Sight, byNs: number, nowNs: number): Sight {
  return { spanNs, endNs: atMostNow(Math.max(spanNs, (endNs ?? nowNs) + byNs), nowNs) };
}

/** What would end later than now follows time. */
const atMostNow = (endNs: number, nowNs: number): number | null => (endNs >= nowNs ? null : endNs);
