'use client';

import { Box, Button, Slider, ToggleButton, ToggleButtonGroup } from '@mui/material';
import { useEffect, useRef, useState } from 'react';
import type { Hands } from '@/core/model/running';
import { fromSI, unitFor } from '@/core/quantities/units';
import { call } from '../api';
import { Key, useKeys } from '../keys';
import { usePrint, useSettings } from '../settings-context';

interface SimHandleProps {
  /** Input that the step aims for, Pa; null where it aims for none. */
  readonly aim_Pa: number | null;
  readonly proof_Pa: number;
  /** Input as it is now, Pa. */
  readonly input_Pa: number | null;
  readonly runId: string;
}

/** How fast the handle is pulled to an aim, Pa/s. */
const PULL_PAPERS = 6e5;
const SLOW_PAPERS = 2.5e5;

type Move = Partial<Hands>;

/** The hands at the simulated bench: a handle to pull, a pump, a valve, a cock on the input line. */
export function SimHandle({ aim_Pa, proof_Pa, input_Pa, runId }: SimHandleProps) {
  const { unitSet } = useSettings();
  const print = usePrint();
  const [hands, setHands] = useState<Move>({ handle_Pa: 0, pump: true, valve: 'vented', shutIn: false });
  const [problem, setProblem] = useState('');
  const input = useRef(input_Pa);
  useEffect(() => {
    input.current = input_Pa;
  });
  const move = async (change: Move) => {
    setHands((now) => ({ ...now, ...change }));
    const answer = await call<{ hands: Hands }>('POST', '/live/hands', { hands: change });
    setProblem(answer.ok ? '' : answer.problem.title);
    if (answer.ok) setHands(answer.value.hands);
  };
  const put = async () => {
    const answer = await call('POST', '/live/hands', { unit: { run: runId, fault: null } });
    setProblem(
      answer.ok ? 'This unit is on the bench now: healthy, vented, released.' : answer.problem.title,
    );
    if (answer.ok) setHands({ handle_Pa: 0, pump: true, valve: 'vented', shutIn: false });
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
  const latest = useRef(move);
  useEffect(() => {
    latest.current = move;
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
      void latest.current({ handle_Pa: key === 'ArrowUp' ? proof_Pa : 0, pull_PaPerS: SLOW_PAPERS });
    };
    const up = (event: KeyboardEvent) => {
      if (arrow(event) && input.current !== null)
        void latest.current({ handle_Pa: Math.max(0, input.current) });
    };
    window.addEventListener('keydown', down);
    window.addEventListener('keyup', up);
    return () => {
      window.removeEventListener('keydown', down);
      window.removeEventListener('keyup', up);
    };
  }, [proof_Pa]);
  useKeys([
    {
      key: 'F6',
      label: 'Simulated bench: pull to the aim',
      run: () => aim_Pa !== null && void move({ handle_Pa: aim_Pa, pull_PaPerS: PULL_PAPERS, shutIn: false }),
      inFields: true,
    },
    { key: 'ArrowUp', label: 'Simulated bench: pull while held', run: () => undefined },
    { key: 'ArrowDown', label: 'Simulated bench: let down while held', run: () => undefined },
  ]);
  const unit = unitFor('pressure', unitSet);
  return (
    <Box
      component="section"
      aria-label="Simulated bench"
      sx={{ borderTop: 1, borderColor: 'divider', pt: 0.75, display: 'grid', gap: 0.5, fontSize: '0.9rem' }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5 }}>
        <b>Handle</b>
        <Slider
          size="small"
          aria-label="Handle"
          value={fromSI(hands.handle_Pa ?? 0, unit)}
          min={0}
          max={Math.round(fromSI(proof_Pa, unit))}
          step={fromSI(proof_Pa, unit) / 700}
          getAriaValueText={(value) => `${value.toFixed(1)} ${unit.symbol}`}
          onChange={(_event, value) =>
            setHands((now) => ({ ...now, handle_Pa: (value as number) * unit.factor }))
          }
          onChangeCommitted={(_event, value) =>
            void move({ handle_Pa: (value as number) * unit.factor, pull_PaPerS: PULL_PAPERS })
          }
          sx={{ flex: 1, mx: 1.5 }}
        />
        <Button
          size="small"
          variant="outlined"
          disabled={aim_Pa === null}
          onClick={() =>
            aim_Pa !== null && void move({ handle_Pa: aim_Pa, pull_PaPerS: PULL_PAPERS, shutIn: false })
          }
          sx={{ gap: 0.75, whiteSpace: 'nowrap' }}
        >
          {aim_Pa === null ? 'To the aim' : `To ${print.value(aim_Pa, 'pressure')}`} <Key name="F6" />
        </Button>
        <Button
          size="small"
          onClick={() => void move({ handle_Pa: 0, pull_PaPerS: PULL_PAPERS, shutIn: false })}
        >
          Let go
        </Button>
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, flexWrap: 'wrap' }}>
        <ToggleButtonGroup
          size="small"
          exclusive
          aria-label="Vacuum valve"
          value={hands.valve}
          onChange={(_event, valve: Hands['valve'] | null) => valve && void move({ valve })}
        >
          <ToggleButton value="open">Vacuum open</ToggleButton>
          <ToggleButton value="shut">Shut</ToggleButton>
          <ToggleButton value="vented">Vented</ToggleButton>
        </ToggleButtonGroup>
        <ToggleButton
          size="small"
          value="pump"
          selected={hands.pump ?? true}
          onChange={() => void move({ pump: !hands.pump })}
        >
          Pump
        </ToggleButton>
        <ToggleButton
          size="small"
          value="shutIn"
          selected={hands.shutIn ?? false}
          onChange={() => void move({ shutIn: !hands.shutIn })}
        >
          Input shut in
        </ToggleButton>
        <Button size="small" onClick={() => void put()}>
          Put this unit on it
        </Button>
      </Box>
      <Box role="status" sx={{ color: 'text.secondary', '&:empty': { display: 'none' } }}>
        {problem}
      </Box>
    </Box>
  );
}
