import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { isError } from '@saddlebag/core';
import { checkTarget, writeWhole } from '../files';
import { prepare } from '../load';
import { codeFor, json, type Output, type OwnCommand, plainFinding, tellFindings } from '../output';
import { stopped, withJob } from './shared';

interface PictureOptions {
  readonly output?: string;
  readonly dim?: boolean;
  readonly json?: boolean;
}

/** Draws the board, true to scale, as the screen does: an SVG, or a PNG where the file is called so. */
export const picture: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('picture')
      .description('draw the board, true to scale, as SVG or PNG; lays it out first when nothing is on it')
      .argument('<FILE>')
      .option('-o, --output <FILE>', 'write the picture to a file that ends in .svg or .png')
      .option('--dim', 'in the colours for dark labs')
      .action(async (file: string, options: PictureOptions) => {
        done(await act(file, options, output));
      }),
};

async function act(file: string, { output: path, dim, json: asJson }: PictureOptions, output: Output): Promise<number> {
  if (path !== undefined) checkTarget(path, { endings: ['.svg', '.png'], inputs: [file] });
  const plain = { json: asJson === true };
  return withJob(file, plain, output, async (given) => {
    const { job, reading, packing, findings } = await prepare(given, { layOut: 'if-bare' });
    if (findings.some(isError)) return stopped(findings, plain, output, job.sheet);
    // Drawing takes React; the other commands start without it.
    const { boardPicture, withScale } = await import('@saddlebag/web/picture');
    const { svg, points, pointsPerMetre } = boardPicture({ job, reading, packing, theme: dim ? 'dim' : 'day' });
    if (path !== undefined) {
      const isPng = /\.png$/i.test(path);
      writeWhole(path, isPng ? withScale(await pngOf(svg, points.width), pointsPerMetre) : svg);
    }
    const told = findings.map(plainFinding);
    if (plain.json) output.out(json({ points, ...(path === undefined ? { svg } : { file: path }), findings: told }));
    else {
      if (path === undefined) output.out(`${svg}\n`);
      tellFindings(findings, output, job.sheet);
    }
    return codeFor(findings);
  });
}

/** The weights of the typefaces that the drawing uses, as they come with their packages. */
const typefaces = [
  'ibm-plex-mono/400Regular/IBMPlexMono_400Regular.ttf',
  'ibm-plex-mono/600SemiBold/IBMPlexMono_600SemiBold.ttf',
  'zilla-slab/600SemiBold/ZillaSlab_600SemiBold.ttf',
  'atkinson-hyperlegible/400Regular/AtkinsonHyperlegible_400Regular.ttf',
];

/** Paints an SVG with resvg, `width` points wide; typefaces and painter ship with their packages. */
async function pngOf(svg: string, width: number): Promise<Uint8Array> {
  const { resolve } = createRequire(import.meta.url);
  const { initWasm, Resvg } = await import('@resvg/resvg-wasm');
  started ??= initWasm(readFileSync(resolve('@resvg/resvg-wasm/index_bg.wasm')));
  await started;
  const fontBuffers = typefaces.map((name) => readFileSync(resolve(`@expo-google-fonts/${name}`)));
  const painter = new Resvg(svg, { fitTo: { mode: 'width', value: width }, font: { fontBuffers } });
  return painter.render().asPng();
}

/** The painter can be started once in a process. */
let started: Promise<void> | undefined;
