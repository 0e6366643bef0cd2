'use client';

import { createContext, use, type ReactNode } from 'react';

/** Where the parts of a drawing are. */
export interface Pose {
  /** How far a part is from its rest, as a share of its way: from −1 to 1; 0 for one that the twin does not have. */
  readonly share: (part: string) => number;
  /** Time, s: what turns goes round by it. */
  readonly t_s: number;
}

const PoseContext = createContext<Pose | null>(null);
export const Posed = PoseContext.Provider;

/** How far parts are from their rest; 0 on a drawing that stands still. */
export function useShares<const P extends readonly string[]>(
  ...parts: P
): { readonly [I in keyof P]: number } {
  const pose = use(PoseContext);
  return parts.map((part) => pose?.share(part) ?? 0) as unknown as { [I in keyof P]: number };
}

const px = (value: number) => Number(value.toFixed(2));

interface PartProps {
  readonly part: string;
  readonly children: ReactNode;
}

/** A part that moves along. @param x, y how far at the end of its way, px */
export function Moves({
  part,
  x = 0,
  y = 0,
  children,
}: PartProps & { readonly x?: number; readonly y?: number }) {
  const [share] = useShares(part);
  return (
    <g data-part={part} transform={`translate(${px(share * x)} ${px(share * y)})`}>
      {children}
    </g>
  );
}

/** A part that turns about a point. @param by how far at the end of its way, ° */
export function Turns({
  part,
  by,
  about: [x, y],
  children,
}: PartProps & { readonly by: number; readonly about: readonly [number, number] }) {
  const [share] = useShares(part);
  return (
    <g data-part={part} transform={`rotate(${px(share * by)} ${x} ${y})`}>
      {children}
    </g>
  );
}

/** Half a turn in a second tells that something runs, and no more than that. */
const TURNS_DEG_PER_S = 180;

/** What goes round while its part runs. */
export function Rotor({
  part,
  about: [x, y],
  children,
}: PartProps & { readonly about: readonly [number, number] }) {
  const pose = use(PoseContext);
  const runs = pose !== null && pose.share(part) > 0;
  return (
    <g data-part={part} transform={`rotate(${runs ? px((pose.t_s * TURNS_DEG_PER_S) % 360) : 0} ${x} ${y})`}>
      {children}
    </g>
  );
}

interface CoilProps {
  /** Ends along its axis, and the axis across, px. */
  readonly from: number;
  readonly to: number;
  readonly axis: number;
  readonly half: number;
  readonly turns: number;
  readonly upright?: boolean;
}

/** A spring between two places, wherever they are. */
export function Coil({ from, to, axis, half, turns, upright }: CoilProps) {
  const legs = 2 * turns;
  const points = Array.from({ length: legs + 1 }, (_, i) => {
    const along = px(from + ((to - from) * i) / legs);
    const across = i === 0 || i === legs ? axis : axis + (i % 2 ? -half : half);
    return upright ? `${across} ${along}` : `${along} ${across}`;
  });
  return <path d={`M${points.join(' L')}`} />;
}

/** Paler than any line, at the most. */
const MOST_TINT = 0.42;

interface TintProps {
  readonly part: string;
  readonly d: string;
  readonly ink: 'supply' | 'activation' | 'input' | 'output';
}

/** A pale tint for what stands in a space: stronger the more it is. None on a drawing that stands still. */
export function Tint({ part, d, ink }: TintProps) {
  const [share] = useShares(part);
  if (share <= 0) return null;
  return (
    <path data-part={part} d={d} stroke="none" fill={`var(--hp-${ink})`} opacity={px(MOST_TINT * share)} />
  );
}

/** Shares below this are as good as shut. */
const SHUT = 0.02;

/** An arrow where something goes through while its part is open. */
export function Through({ part, d, ink }: TintProps) {
  const [share] = useShares(part);
  if (Math.abs(share) < SHUT) return null;
  return (
    <path
      data-part={part}
      d={d}
      stroke={`var(--hp-${ink})`}
      strokeWidth="3"
      strokeLinecap="round"
      opacity={px(0.4 + 0.6 * Math.abs(share))}
    />
  );
}
