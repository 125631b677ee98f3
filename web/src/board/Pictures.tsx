import { useJobView } from '../base/job-context';
import { settings } from '../base/settings';
import { gatesByPin, useScene } from '../kit/board/use-scene';
import { download, fileName } from '../kit/download';
import { tell } from '../kit/notices';
import { TipButton } from '../kit/Tip';

/** The board as a picture, to print at its true size or to show. Drawing without a page is fetched when it is first asked for. */
export function Pictures() {
  const { job, board, colours } = useJobView();
  const scene = useScene(board);
  const drawn = async () => {
    const picture = await import('../kit/board/picture');
    const shown = { scene, colours, overlay: { gateAt: gatesByPin(board.wired) } };
    return { ...picture, svg: picture.pictureOf(shown, job.name, settings().dim ? 'dim' : 'day') };
  };
  const named = (ending: string): string => fileName(job.name, `-board.${ending}`);
  const sorry = (what: string) => (e: unknown) => tell(`No ${what} could be made: ${String(e)}.`);
  const asSvg = (): void => {
    drawn()
      .then(({ svg }) => download(named('svg'), svg, 'image/svg+xml'))
      .catch(sorry('SVG'));
  };
  const asPng = (): void => {
    drawn()
      .then(({ svg, pngOf, pointsOf, pointsPerMetreOf }) => pngOf(svg, pointsOf(scene), pointsPerMetreOf(scene)))
      .then((blob) => download(named('png'), blob))
      .catch(sorry('PNG'));
  };
  return (
    <>
      <TipButton tip="picture, true to scale, as SVG" onClick={asSvg}>
        SVG
      </TipButton>
      <TipButton tip="picture, 300 points to the inch, as PNG" onClick={asPng}>
        PNG
      </TipButton>
    </>
  );
}
