import { portIds, portName } from '@/core/families/port-names';

/** Ports that an instrument can stand on, over all families. */
export const portChoices = (): { value: string; label: string }[] =>
  portIds().map((value) => ({ value, label: portName(value) }));
