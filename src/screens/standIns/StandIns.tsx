import type { ComponentType } from 'react';
import { GridStandIn } from './GridStandIn';
import { HostStandIn } from './HostStandIn';
import { ModuleStandIn } from './ModuleStandIn';

const PAGES: Record<string, ComponentType> = {
  '/stand-ins/grid': GridStandIn,
  '/stand-ins/host': HostStandIn,
  '/stand-ins/module': ModuleStandIn,
};

/** A stand-in by its address. */
export const StandIns = ({ path }: { path: string }) => {
  const One = PAGES[path] ?? GridStandIn;
  return <One />;
};
