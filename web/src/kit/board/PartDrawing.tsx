import { HIGH, innerName, innerOf, type LedState, type SeatedPart, typeOf } from '@saddlebag/core';
import { memo } from 'react';
import { colour } from '../../base/colours';
import {
  Buzzer,
  ChangeOver,
  Diode,
  DipSwitch,
  Display,
  LedBar,
  lampLetter,
  PushButton,
  RowPart,
  Transistor,
} from './BenchParts';
import { Chip } from './Chip';
import { Capacitor, Electrolytic, Led, Resistor, SlideSwitch, Supply } from './SmallParts';
import type { ScenePart } from './scene';

/** What a screen knows of parts; see `BoardOverlay`. */
export interface PartKnowledge {
  readonly gateAt?: (pin: string) => string | undefined;
  readonly levelOf?: (net: number) => number | null;
  readonly ledState?: (ref: string) => LedState;
  readonly isOn?: (ref: string) => boolean;
}

/**
 * How a part looks just now, in one word, so that a part is drawn again only when its look changes: for
 * a chip a letter for each unit (`h` where the output is high), for an LED its state, for a switch `on` or `off`,
 * for other parts a letter for each actuator and lamp.
 */
export function lookOf(part: ScenePart, known: PartKnowledge): string {
  if (part.kind === 'led' || part.kind === 'buzzer') return known.ledState?.(part.ref) ?? 'dark';
  if (part.kind === 'switch') return known.isOn?.(part.ref) ? 'on' : 'off';
  if (part.kind !== 'chip') return benchLook(part, known);
  const level = (output: string): number | null => {
    const net = part.pins.find((p) => p.pin === output)?.net;
    return net === null || net === undefined ? null : (known.levelOf?.(net) ?? null);
  };
  return part.units.map((unit) => (level(unit.output) === HIGH ? 'h' : '-')).join('');
}

/** A letter for each actuator, `1` when it is on, or for each lamp. */
function benchLook(part: ScenePart, known: PartKnowledge): string {
  const { contacts, lamps } = innerOf(typeOf(part.seated));
  const actuators = [...new Set(contacts.map((c) => c.actuator))];
  return [
    ...actuators.map((actuator) => (known.isOn?.(innerName(part.ref, actuator)) ? '1' : '0')),
    ...lamps.map(({ name }) => lampLetter(known.ledState?.(innerName(part.ref, name)) ?? 'dark')),
  ].join('');
}

/** The signals of a part in words: of one, or of each contact or lamp by its name. */
function labelsOf(part: SeatedPart): string[] {
  const labels = (part.labels ?? []).map(({ of, signal }) => `${of} ${signal}`);
  return part.signal ? [part.signal, ...labels] : labels;
}

interface PartDrawingProps {
  readonly part: ScenePart;
  readonly look: string;
  readonly chosen: boolean;
  readonly gateAt: ((pin: string) => string | undefined) | undefined;
}

/** A part on the board, with a dashed outline when it is chosen. */
export const PartDrawing = memo(function PartDrawing({ part, look, chosen, gateAt }: PartDrawingProps) {
  return (
    <g data-ref={part.ref} style={{ cursor: 'grab' }}>
      <title>
        {[`${part.ref} ${part.part}`, ...labelsOf(part.seated), ...(part.seated.fixed ? ['fixed'] : [])].join(', ')}
      </title>
      <PartBody part={part} look={look} gateAt={gateAt} />
      {part.seated.fixed && <FixingPin part={part} />}
      {chosen && (
        <rect
          x={part.x - 0.25}
          y={part.y - 0.25}
          width={part.width + 0.5}
          height={part.height + 0.5}
          rx={0.35}
          fill="none"
          stroke={colour('lit')}
          strokeWidth={0.16}
          strokeDasharray="0.5 0.3"
          pointerEvents="none"
        />
      )}
    </g>
  );
});

/** The brass pin of a part that a person fixed: at the end of a chip, where no wire lies over it, at a corner of others. */
function FixingPin({ part: { ref, kind, x, y, width, height } }: { readonly part: ScenePart }) {
  const at = kind === 'chip' ? { cx: x + width - 0.6, cy: y + height / 2 } : { cx: x + width, cy: y };
  return (
    <g data-fixed={ref} pointerEvents="none">
      <circle {...at} r={0.4} fill={colour('brass')} stroke={colour('matDeep')} strokeWidth={0.12} />
      <circle {...at} r={0.13} fill={colour('matDeep')} />
    </g>
  );
}

function PartBody({ part, look, gateAt }: Omit<PartDrawingProps, 'chosen'>) {
  if (part.kind === 'chip') return <Chip part={part} look={look} gateAt={gateAt} />;
  if (part.kind === 'led') return <Led part={part} state={look as LedState} />;
  if (part.kind === 'switch') return <SlideSwitch part={part} on={look === 'on'} />;
  if (part.kind === 'resistor') return <Resistor part={part} />;
  if (part.seated.part === 'electrolytic') return <Electrolytic part={part} />;
  if (part.kind === 'capacitor') return <Capacitor part={part} />;
  if (part.kind === 'supply') return <Supply part={part} />;
  if (part.kind === 'dip-switch') return <DipSwitch part={part} look={look} />;
  if (part.kind === 'change-over') return <ChangeOver part={part} look={look} />;
  if (part.kind === 'push-button') return <PushButton part={part} look={look} />;
  if (part.kind === 'buzzer') return <Buzzer part={part} state={look as LedState} />;
  if (part.kind === 'led-bar') return <LedBar part={part} look={look} />;
  if (part.kind === 'display') return <Display part={part} look={look} />;
  if (part.kind === 'transistor') return <Transistor part={part} />;
  return part.kind === 'diode' ? <Diode part={part} /> : <RowPart part={part} look={look} />;
}
