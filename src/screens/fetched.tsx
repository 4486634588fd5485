/** The screens beside the first: their code is fetched when one of them is opened, or made ready. */
import type { ComponentType } from 'react';
import { Later } from '../ui/Later';

type Name = 'Feel' | 'Grooves' | 'Song' | 'Export' | 'Beats' | 'Kit' | 'Ports';

const fetching = (name: Name) => async (): Promise<ComponentType> =>
  (await import('./later'))[`${name}Screen`];

const fetchGrooves = async (): Promise<ComponentType> => {
  const { builtIn, GroovesScreen: Screen } = await import('./later');
  void builtIn();
  return Screen;
};

/** Those that are a press away from wherever one is, by their addresses, in the order in which they are made ready. */
export const AHEAD: Record<string, () => Promise<ComponentType>> = {
  '/grooves': fetchGrooves,
  '/feel': fetching('Feel'),
  '/song': fetching('Song'),
  '/export': fetching('Export'),
};

const fetchBeats = fetching('Beats');
const fetchKit = fetching('Kit');
const fetchPorts = fetching('Ports');

export const GroovesLater = () => <Later of={AHEAD['/grooves']!} />;
export const FeelLater = () => <Later of={AHEAD['/feel']!} />;
export const SongLater = () => <Later of={AHEAD['/song']!} />;
export const ExportLater = () => <Later of={AHEAD['/export']!} />;
export const BeatsLater = () => <Later of={fetchBeats} />;
export const KitLater = () => <Later of={fetchKit} />;
export const PortsLater = () => <Later of={fetchPorts} />;
