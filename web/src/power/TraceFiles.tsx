import { NativeSelect } from '@chakra-ui/react';
import type { TraceWindow } from '@saddlebag/core';
import { useJobView } from '../base/job-context';
import { download, fileName } from '../kit/download';
import { tell } from '../kit/notices';
import { picturedRows, pictureSize, tracePicture } from '../kit/trace-picture';
import { useTraceSetup } from './use-trace-setup';

const kinds = [
  ['vcd', 'value change dump (IEEE 1364), all of it'],
  ['csv', 'table (CSV), all of it'],
  ['svg', 'picture of what is in sight (SVG)'],
  ['png', 'picture of what is in sight (PNG)'],
] as const;
type Kind = (typeof kinds)[number][0];

/** Dots of a picture to the point. */
const SHARPNESS = 2;
/** Points of a page to the metre: 96 to the inch. */
const PER_METRE = 96 / 0.0254;

/** Takes the trace out: whole as a value change dump or a table, or what is in sight as a picture. */
export function TraceFiles({ trace }: { readonly trace: TraceWindow }) {
  const { bench, job } = useJobView();
  const { setup } = useTraceSetup();
  const rows = picturedRows(trace, setup);
  const named = (kind: Kind): string => fileName(job.name, `-trace.${kind}`);
  const svg = (): string => tracePicture(job.name, trace, rows);
  const save = (kind: Kind): void => {
    if (kind === 'svg') download(named(kind), svg(), 'image/svg+xml');
    else if (kind === 'png') {
      const { width, height } = pictureSize(rows.length);
      import('../kit/board/picture')
        .then(({ pngOf }) =>
          pngOf(svg(), { width: SHARPNESS * width, height: SHARPNESS * height }, SHARPNESS * PER_METRE),
        )
        .then((blob) => download(named(kind), blob))
        .catch((e: unknown) => tell(`No PNG could be made: ${String(e)}.`));
    } else bench.writeTrace(kind, (text) => download(named(kind), text, kind === 'vcd' ? 'text/plain' : 'text/csv'));
  };
  return (
    <NativeSelect.Root size="xs" width="92px">
      <NativeSelect.Field
        aria-label="save the trace as"
        bg="card"
        borderColor="line"
        h="28px"
        fontSize="13px"
        value=""
        onChange={(e) => save(e.target.value as Kind)}
      >
        <option value="" disabled hidden>
          Save as
        </option>
        {kinds.map(([kind, words]) => (
          <option key={kind} value={kind}>
            {words}
          </option>
        ))}
      </NativeSelect.Field>
      <NativeSelect.Indicator />
    </NativeSelect.Root>
  );
}
