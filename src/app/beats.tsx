import { Later } from '../ui/Later';

const screen = async () => (await import('../screens/later')).BeatsScreen;

export default function Beats() {
  return <Later of={screen} />;
}
