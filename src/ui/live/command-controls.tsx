'use client';

import { Box, Slider, ToggleButton, ToggleButtonGroup } from '@mui/material';
import type { Command, Hands, Level } from '@/core/model/motion';
import { fromSI, unitFor } from '@/core/quantities/units';
import { useSettings } from '../settings-context';

interface LevelSliderProps {
  readonly level: Level;
  readonly most: number;
  readonly value: number;
  /** While it is dragged, and once it is let go: SI. */
  readonly onMove: (value: number) => void;
  readonly onSet: (value: number) => void;
}

/** Steps of a slider from one end to the other. */
const SLIDER_STEPS = 700;

/** A level that is dragged to where it is to go. */
export function LevelSlider({ level, most, value, onMove, onSet }: LevelSliderProps) {
  const unit = unitFor(level.quantity, useSettings().unitSet);
  return (
    <>
      <b>{level.name}</b>
      <Slider
        size="small"
        aria-label={level.name}
        value={fromSI(value, unit)}
        min={0}
        max={Math.round(fromSI(most, unit))}
        step={fromSI(most, unit) / SLIDER_STEPS}
        getAriaValueText={(shown) => `${shown.toFixed(1)} ${unit.symbol}`}
        onChange={(_event, shown) => onMove((shown as number) * unit.factor)}
        onChangeCommitted={(_event, shown) => onSet((shown as number) * unit.factor)}
        sx={{ flex: 1, mx: 1.5 }}
      />
    </>
  );
}

interface CommandControlProps {
  readonly command: Command;
  readonly value: Hands[string];
  /** Whether a choice has its name before it. */
  readonly isNamed: boolean;
  readonly onSet: (value: Hands[string]) => void;
}

/** A switch or a choice; a level has its slider. */
export function CommandControl({ command, value, isNamed, onSet }: CommandControlProps) {
  switch (command.kind) {
    case 'level':
      return null;
    case 'switch':
      return (
        <ToggleButton
          size="small"
          value={command.id}
          selected={value === true}
          onChange={() => onSet(value !== true)}
        >
          {command.name}
        </ToggleButton>
      );
    case 'choice':
      return (
        <Box sx={{ display: 'inline-flex', alignItems: 'center', gap: 1 }}>
          {isNamed && <b>{command.name}</b>}
          <ToggleButtonGroup
            size="small"
            exclusive
            aria-label={command.name}
            value={value}
            onChange={(_event, chosen: string | null) => chosen && onSet(chosen)}
          >
            {command.choices.map(({ id, name }) => (
              <ToggleButton key={id} value={id}>
                {name}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        </Box>
      );
  }
}
