'use client';

import { Box, Button } from '@mui/material';
import { useEffect, useRef, useState } from 'react';
import { handsOff, type Command, type Hands } from '@/core/model/motion';
import { call } from '../api';
import { Key, useKeys } from '../keys';
import type { seenByEye } from './live-gauges';
import { usePrint } from '../settings-context';
import { CommandControl, LevelSlider } from './command-controls';

interface SimHandleProps {
  /** What can be done by hand to what stands on the bench. Its first level is what the keys work. */
  readonly commands: readonly Command[];
  /** Input that the step aims for, SI; null where it aims for none. */
  readonly aim: number | null;
  /** How far the keys and the slider go, SI. */
  readonly most: number;
  /** Input as it is now, SI. */
  readonly input: number | null;
  /** Null where nothing else may be put on the bench. */
  readonly runId: string | null;
  /** What is read by eye: no gauge of the run shows it. */
  readonly seen: ReturnType<typeof seenByEye>;
}

/** How fast an aim is gone to, and how fast while a key is held, as a part of the usual speed. */
const TO_AIM = 0.75;
const HELD = 0.3;

/** The hands at the simulated bench: what its models can be told, and nothing else. */
export function SimHandle({ commands, aim, most, input, runId, seen }: SimHandleProps) {
  const print = usePrint();
  const [hands, setHands] = useState<Hands>(() => handsOff(commands));
  const [problem, setProblem] = useState('');
  const level = commands.find((command) => command.kind === 'level')!;
  const shutting = commands.filter((command) => command.kind === 'switch' && !command.usual);
  /** Moves the handle, a part of the usual speed, with nothing shut behind it. */
  const to = (value: number, part = TO_AIM): Hands => ({
    [level.id]: value,
    [level.speed.id]: part * level.speed.usual,
  });
  /** Of one choice its own words tell what it is; of several each needs its name. */
  const isNamed = commands.filter(({ kind }) => kind === 'choice').length > 1;
  const freed = Object.fromEntries(shutting.map(({ id }) => [id, false]));
  const present = useRef(input);
  useEffect(() => {
    present.current = input;
  });
  const move = async (change: Hands) => {
    setHands((now) => ({ ...now, ...change }));
    const answer = await call<{ hands: Hands }>('POST', '/live/hands', { hands: change });
    setProblem(answer.ok ? '' : answer.problem.title);
    if (answer.ok) setHands(answer.value.hands);
  };
  const put = async () => {
    const answer = await call('POST', '/live/hands', { unit: { run: runId, fault: null } });
    setProblem(
      answer.ok ? 'What this run tests is simulated now: healthy, at rest, let go.' : answer.problem.title,
    );
    if (answer.ok) setHands(handsOff(commands));
  };
  useEffect(() => {
    // The bench stands as somebody left it: nothing is moved, its hands are asked for.
    let gone = false;
    void call<{ hands: Hands }>('POST', '/live/hands', { hands: {} }).then((answer) => {
      if (answer.ok && !gone) setHands(answer.value.hands);
    });
    return () => {
      gone = true;
    };
  }, []);
  const latest = useRef({ move, to });
  useEffect(() => {
    latest.current = { move, to };
  });
  useEffect(() => {
    // Held down, an arrow pulls or lets down; let go, the handle stays where it is.
    const arrow = (event: KeyboardEvent) =>
      event.key === 'ArrowUp' || event.key === 'ArrowDown' ? event.key : null;
    const down = (event: KeyboardEvent) => {
      const key = arrow(event);
      if (!key || event.repeat || document.querySelector('[role=dialog], [role=listbox]')) return;
      if (
        event.target instanceof HTMLElement &&
        event.target.closest('[role=slider], .MuiSlider-root, select')
      )
        return;
      event.preventDefault();
      const { move: go, to: towards } = latest.current;
      void go(towards(key === 'ArrowUp' ? most : 0, HELD));
    };
    const up = (event: KeyboardEvent) => {
      if (arrow(event) && present.current !== null)
        void latest.current.move(latest.current.to(Math.max(0, present.current)));
    };
    window.addEventListener('keydown', down);
    window.addEventListener('keyup', up);
    return () => {
      window.removeEventListener('keydown', down);
      window.removeEventListener('keyup', up);
    };
  }, [most]);
  useKeys([
    {
      key: 'F6',
      label: 'Simulated bench: pull to the aim',
      run: () => aim !== null && void move({ ...to(aim), ...freed }),
      inFields: true,
    },
    { key: 'ArrowUp', label: 'Simulated bench: pull while held', run: () => undefined },
    { key: 'ArrowDown', label: 'Simulated bench: let down while held', run: () => undefined },
  ]);
  return (
    <Box
      component="section"
      aria-label="Simulated bench"
      sx={{ borderTop: 1, borderColor: 'divider', pt: 0.75, display: 'grid', gap: 0.5, fontSize: '0.9rem' }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5 }}>
        <LevelSlider
          level={level}
          most={most}
          value={Number(hands[level.id] ?? level.usual)}
          onMove={(value) => setHands((now) => ({ ...now, [level.id]: value }))}
          onSet={(value) => void move(to(value))}
        />
        <Button
          size="small"
          variant="outlined"
          disabled={aim === null}
          onClick={() => aim !== null && void move({ ...to(aim), ...freed })}
          sx={{ gap: 0.75, whiteSpace: 'nowrap' }}
        >
          {aim === null ? 'To the aim' : `To ${print.value(aim, level.quantity)}`} <Key name="F6" />
        </Button>
        <Button size="small" onClick={() => void move({ ...to(0), ...freed })}>
          Let go
        </Button>
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, flexWrap: 'wrap' }}>
        {commands.map((command) => (
          <CommandControl
            key={command.id}
            command={command}
            value={hands[command.id] ?? command.usual}
            isNamed={isNamed}
            onSet={(value) => void move({ [command.id]: value })}
          />
        ))}
        {seen.map(({ name, value_SI, quantity }) => (
          <Box key={name}>
            {name}: <b>{print.value(value_SI, quantity)}</b>
          </Box>
        ))}
        {runId !== null && (
          <Button size="small" onClick={() => void put()}>
            Simulate what this run tests
          </Button>
        )}
      </Box>
      <Box role="status" sx={{ color: 'text.secondary', '&:empty': { display: 'none' } }}>
        {problem}
      </Box>
    </Box>
  );
}
