import type { ReactNode } from 'react';

export interface SchematicProps {
  /** Port or leak point of the current step. */
  readonly lit: string | null;
  /** What was seen at leak points. */
  readonly marks?: Readonly<Record<string, 'good' | 'bad' | 'unknown'>>;
}

/** A port or leak point of a drawing, and where its name stands. */
export interface Spot {
  readonly name: string;
  readonly x: number;
  readonly y: number;
  /** Where its name stands. */
  readonly tx: number;
  readonly ty: number;
  readonly anchor: 'start' | 'middle' | 'end';
  readonly channel?: string;
}

const MARK = { good: '✓', bad: '▬', unknown: '◌' } as const;

function Place({
  name,
  x,
  y,
  tx,
  ty,
  anchor,
  channel,
  lit,
  mark,
}: Spot & { lit: boolean; mark?: keyof typeof MARK }) {
  const color = channel ? `var(--hp-${channel})` : 'var(--mui-palette-warning-main)';
  return (
    <g>
      {lit && <circle cx={x} cy={y} r={channel ? 17 : 12} fill={color} opacity={0.22} />}
      <circle
        cx={x}
        cy={y}
        r={channel ? 8 : 4.5}
        fill={lit ? color : 'var(--mui-palette-background-default)'}
        stroke={lit ? color : 'var(--hp-line)'}
        strokeWidth="1.6"
      />
      <text
        x={tx}
        y={ty}
        textAnchor={anchor}
        fontSize={channel ? 14 : 12.5}
        fontWeight={lit ? 700 : 400}
        fill={lit ? color : 'var(--hp-line)'}
      >
        {name}
        {mark ? ` ${MARK[mark]}` : ''}
      </text>
    </g>
  );
}

interface DrawingProps extends SchematicProps {
  readonly places: Readonly<Record<string, Spot>>;
  /** The lines of the drawing, 620 wide and 330 high. */
  readonly children: ReactNode;
}

/** A line drawing with its ports and leak points: only the one of the current step is tinted. */
export function Drawing({ lit, marks, places, children }: DrawingProps) {
  return (
    <svg
      viewBox="0 0 620 330"
      role="img"
      aria-label={lit ? `Drawing of the unit, ${places[lit]?.name ?? lit} marked` : 'Drawing of the unit'}
      style={{ width: '100%', height: '100%' }}
    >
      <g fill="none" stroke="var(--hp-line)" strokeWidth="1.6" strokeLinejoin="round">
        {children}
      </g>
      {Object.entries(places).map(([id, place]) => (
        <Place key={id} {...place} lit={lit === id} mark={marks?.[id]} />
      ))}
    </svg>
  );
}
