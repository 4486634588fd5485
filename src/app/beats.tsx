import { Later } from '../ui/Later';

const screen = async () => (await import('../screens/beats/BeatsScreen')).BeatsScreen;

export default function Beats() {
  return <Later of={screen} />;
}
