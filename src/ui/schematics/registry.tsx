import type { ComponentType } from 'react';
import type { FamilyKind } from '@/core/families/registry';
import { RemoteVacuumDrawing, type SchematicProps } from './remote-vacuum';

/** One drawing per family. */
export const SCHEMATICS = { 'remote-vacuum': RemoteVacuumDrawing } as const satisfies Record<
  FamilyKind,
  ComponentType<SchematicProps>
>;
