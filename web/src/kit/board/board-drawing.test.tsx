import { chips, extractNets, finding, HIGH, LOW, newJob, partNumber, UNKNOWN } from '@saddlebag/core';
import { act, fireEvent, screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { readBoard } from '../../base/job-context';
import { Colours } from '../../base/palette';
import { interlock } from '../../testing/interlock';
import { renderInJob } from '../../testing/render';
import { pointAt } from '../follow';
import { BoardDrawing, type BoardOverlay, BoardPicture } from './BoardDrawing';
import { laidInUnit } from './Chip';
import { FindingMarks } from './FindingMarks';
import { lookOf } from './PartDrawing';
import { pictureOf, pointsOf } from './picture';
import { boardScene } from './scene';
import { areasAt } from './target-areas';
import { gatesByPin } from './use-scene';

const job = interlock();
const scene = boardScene(readBoard(job.board, job.packing));
const colours = new Colours(['K', 'E', 'U', 'L', 'G', 'P', 'W', "E'"]);
const { ofPin } = extractNets(job.board);
const draw = (overlay: BoardOverlay = {}) =>
  renderInJob(<BoardDrawing scene={scene} colours={colours} title="board" overlay={overlay} />, job).container;

/** The wires that are to be seen at full strength: in a sheet that is not faded, alone or with others. */
const brightIn = (drawing: Element): string[] =>
  [...drawing.querySelectorAll('[data-wire], [data-lit]')]
    .filter((e) => e.closest('svg')?.style.opacity === '1')
    .flatMap((e) => (e.getAttribute('data-wire') ?? e.getAttribute('data-lit') ?? '').split(' '));

describe('the drawing of a board', () => {
  it('shows every part and every jumper, each with its name for who points at it', () => {
    const svg = draw();
    const refs = [...svg.querySelectorAll('[data-ref]')].map((e) => e.getAttribute('data-ref'));
    expect(refs.sort()).toEqual(Object.keys(job.board.parts).sort());
    const wires = [...svg.querySelectorAll('[data-wire]')].map((e) => e.getAttribute('data-wire'));
    expect(wires.sort()).toEqual(Object.keys(job.board.jumpers).sort());
    expect(svg.querySelector('[data-ref=S1] title')?.textContent).toBe('S1 switch, K');
    expect(svg.querySelector('[data-wire=w1] title')?.textContent).toBe('w1, 0');
  });

  it('names in each unit the gate that sits there, and leaves spare units dashed', () => {
    const svg = draw({ gateAt: gatesByPin(job.packing) });
    const chip = svg.querySelector('[data-ref=U2]');
    expect(chip?.textContent).toContain('W');
    expect(chip?.innerHTML.match(/stroke-dasharray/g)?.length).toBe(2);
  });

  it('keeps the names of gates inside their chips and off each other, whatever they are called', () => {
    const boards = chips.flatMap(({ base }) =>
      ([0, 180] as const).map((rotation) => ({
        ...newJob('').board,
        parts: { U1: { ref: 'U1', part: partNumber(base, 'HC'), at: rotation === 0 ? 'b1.e20' : 'b1.f40', rotation } },
      })),
    );
    const seated = boards.flatMap((board) => boardScene(readBoard(board, null), new Map()).parts);
    expect(seated.length).toBe(boards.length);
    for (const { units, x, width } of seated)
      for (const unit of units)
        for (const gate of ['W', 'DRY.12', "permit'", 'a_very_long_name']) {
          const { symbolX, nameX, name, size } = laidInUnit(unit, gate);
          const end = nameX + 0.6 * size * name.length;
          expect(name.length).toBeGreaterThan(0);
          expect(symbolX).toBeGreaterThanOrEqual(x);
          expect(end).toBeLessThanOrEqual(x + width);
          for (const other of units.filter((u) => u !== unit && u.y === unit.y && u.x > unit.x))
            expect(end).toBeLessThanOrEqual(laidInUnit(other, gate).symbolX);
        }
  });

  it('is a picture that stands by itself, its holes 2.54 mm apart, in the colours of the theme', () => {
    const shown = { scene, colours, overlay: { gateAt: gatesByPin(job.packing) } };
    const text = pictureOf(shown, 'interlock');
    expect(text).not.toContain('var(');
    expect(text).toContain('#24352F');
    expect(pictureOf(shown, 'interlock', 'dim')).not.toContain('#24352F');
    const made = new DOMParser().parseFromString(text, 'image/svg+xml').documentElement;
    const [, , width, height] = (made.getAttribute('viewBox') ?? '').split(' ').map(Number);
    expect(Number.parseFloat(made.getAttribute('width') ?? '')).toBeCloseTo(2.54 * (width ?? 0), 1);
    expect(Number.parseFloat(made.getAttribute('height') ?? '')).toBeCloseTo(2.54 * (height ?? 0), 1);
    // Points stay square, and no side grows beyond what browsers paint.
    const points = pointsOf(scene);
    expect(points.width / points.height).toBeCloseTo((width ?? 1) / (height ?? 1), 2);
    expect(Math.max(...Object.values(pointsOf({ ...scene, height: 900 })))).toBeLessThanOrEqual(16_000);
  });

  it('is the same on the screen and in a picture', () => {
    const gateAt = gatesByPin(job.packing);
    const inside = (svg: Element): string[] =>
      [...svg.querySelectorAll('[data-ref], [data-wire], [data-strip]')].map((e) => e.outerHTML).sort();
    const picture = renderInJob(<BoardPicture scene={scene} colours={colours} overlay={{ gateAt }} title="" />, job);
    expect(inside(picture.container)).toEqual(inside(draw({ gateAt })));
  });

  it('marks strips with their levels while powered: 1, 0 and ?', () => {
    const levels = new Map([
      [ofPin.get('S1.2'), HIGH],
      [ofPin.get('S2.2'), LOW],
      [ofPin.get('U1.6'), UNKNOWN],
    ]);
    const svg = draw({ levelOf: (net) => levels.get(net) ?? LOW });
    const marks = new Set([...svg.querySelectorAll('[data-strip] text')].map((t) => t.textContent));
    expect(marks).toEqual(new Set(['0', '1', '?']));
    expect(draw().querySelectorAll('[data-strip] text')).toHaveLength(0);
  });

  it('fades every wire but those of the signal that is followed', () => {
    const svg = draw();
    act(() => pointAt('K'));
    const carrying = scene.wires.filter((w) => w.signal === 'K').map((w) => w.id);
    expect(brightIn(svg).sort()).toEqual(carrying.sort());
    expect(carrying.length).toBeGreaterThan(0);
  });

  it('lights the signal of the wire or strip that is pointed at, and lets go when the pointer leaves', () => {
    const svg = draw();
    const bright = () => brightIn(svg).length;
    expect(bright()).toBe(28);
    const strip = svg.querySelector("[data-strip][data-signal='E']") ?? expect.fail('no strip of E');
    fireEvent.pointerOver(strip);
    expect(bright()).toBe(scene.wires.filter((w) => w.signal === 'E').length);
    fireEvent.pointerLeave(screen.getByRole('img', { name: 'board' }));
    expect(bright()).toBe(28);
  });

  it('outlines what is chosen', () => {
    const before = draw().querySelector('[data-ref=D1]')?.children.length ?? 0;
    const after = draw({ chosen: new Set(['D1']) }).querySelector('[data-ref=D1]')?.children.length ?? 0;
    expect(after).toBe(before + 1);
  });
});

describe('how a part looks', () => {
  const part = (ref: string) => scene.parts.find((p) => p.ref === ref) ?? expect.fail(ref);

  it('is a letter a unit for chips, the state for LEDs, the position for switches', () => {
    const high = ofPin.get('U1.6');
    expect(lookOf(part('U1'), { levelOf: (net) => (net === high ? HIGH : LOW) })).toBe('h-');
    expect(lookOf(part('U1'), {})).toBe('--');
    expect(lookOf(part('D1'), { ledState: () => 'lit' })).toBe('lit');
    expect(lookOf(part('D1'), {})).toBe('dark');
    expect(lookOf(part('S1'), { isOn: (ref) => ref === 'S1' })).toBe('on');
    expect(lookOf(part('S2'), { isOn: (ref) => ref === 'S1' })).toBe('off');
  });
});

describe('marks of findings', () => {
  it('stand at pins, parts, holes and both ends of jumpers', () => {
    const at = (places: Parameters<typeof finding>[1]) => areasAt(places, scene);
    const pin = scene.parts.find((p) => p.ref === 'U1')?.pins[2];
    expect(at([{ kind: 'pin', pin: 'U1.3' }])[0]).toMatchObject({ x: (pin?.x ?? 0) - 0.65 });
    expect(at([{ kind: 'part', ref: 'U1' }])[0]?.width).toBeGreaterThan(7);
    expect(at([{ kind: 'hole', hole: 'b1.e17' }])[0]).toMatchObject({ x: 16.35 });
    expect(at([{ kind: 'jumper', id: 'w1' }])).toHaveLength(2);
    expect(
      at([
        { kind: 'signal', name: 'K' },
        { kind: 'part', ref: 'U77' },
      ]),
    ).toEqual([]);
  });

  it('say the chosen finding at its place', () => {
    const f = finding('led-reversed', [{ kind: 'part', ref: 'D1' }], { ref: 'D1' });
    const above = <FindingMarks findings={[f]} chosen={f} scene={scene} />;
    draw({ above });
    expect(screen.getByText('D1 is the wrong way round; it will never light.')).toBeDefined();
  });
});
